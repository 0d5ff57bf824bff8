/** Concentrations in the keeper's kit's ppm; internal values are mg/L of nitrogen. */
import type { KitSteps, Tables } from "../api/schemas";
import { withMark } from "./format";

/** How a kit gives ppm: mg N/L in one of them, by test, and whether as nitrogen. */
export interface KitPpm extends Pick<Tables["nitrogen_share"], "ammonia" | "nitrite" | "nitrate"> {
  asN: boolean;
}

export function kitPpm(tables: Tables, kit: KitSteps | undefined): KitPpm {
  return kit?.basis === "N"
    ? { ammonia: 1, nitrite: 1, nitrate: 1, asN: true }
    : { ...tables.nitrogen_share, asN: false };
}

/** "0.5 ppm", or "0.39 ppm as N", as the server writes it. */
export function ppmWords(mgNL: number, what: "ammonia" | "nitrite" | "nitrate", kit: KitPpm): string {
  const ppm = mgNL / kit[what];
  const figure = ppm >= 9.95 ? ppm.toFixed(0) : withMark(String(Number(ppm.toPrecision(2))));
  return `${figure} ppm${kit.asN ? " as N" : ""}`;
}
