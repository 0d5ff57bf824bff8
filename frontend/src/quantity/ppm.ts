/** Concentrations in the keeper's kit's ppm; internal values are mg/L of nitrogen. */
import type { KitSteps, Tables } from "../api/schemas";

/** mg N/L in one ppm of the kit, by test. */
export type Shares = Tables["nitrogen_share"];

export function kitShares(tables: Tables, kit: KitSteps | undefined): Shares {
  return kit?.basis === "N" ? { ammonia: 1, nitrite: 1, nitrate: 1 } : tables.nitrogen_share;
}

/** "0.5 ppm". */
export function ppmWords(mgNL: number, what: keyof Shares, shares: Shares): string {
  const ppm = mgNL / shares[what];
  return `${ppm >= 9.95 ? ppm.toFixed(0) : String(Number(ppm.toPrecision(2)))} ppm`;
}
