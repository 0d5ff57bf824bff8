/** Concentrations as the keeper's own kit reads them: inside everything is mg/L of nitrogen. */
import type { KitSteps, Tables } from "../api/schemas";

export type Test = "ammonia" | "nitrite" | "nitrate";
/** mg N/L in one ppm of the kit, by test. */
export type Shares = Record<Test, number>;

export function kitShares(tables: Tables | undefined, kit: KitSteps | undefined): Shares {
  if (kit?.basis === "N") return { ammonia: 1, nitrite: 1, nitrate: 1 };
  const of = tables?.nitrogen_share;
  return { ammonia: of?.ammonia ?? 0.776, nitrite: of?.nitrite ?? 0.304, nitrate: of?.nitrate ?? 0.226 };
}

/** "0.5 ppm". */
export function ppmWords(mgNL: number, what: Test, shares: Shares): string {
  const ppm = mgNL / shares[what];
  return `${ppm >= 9.95 ? ppm.toFixed(0) : String(Number(ppm.toPrecision(2)))} ppm`;
}
