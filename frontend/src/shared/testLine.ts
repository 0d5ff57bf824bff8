/** A test typed in one line: the question to the server, and its answer as a reading. */
import type { AnswerOf, QuestionOf, Reading } from "../api/schemas";
import { unitName } from "../quantity/format";

export const FIELDS = [
  ["ammonia_ppm", "Ammonia"],
  ["nitrite_ppm", "Nitrite"],
  ["nitrate_ppm", "Nitrate"],
  ["ph", "pH"],
  ["kh_dkh", "KH"],
  ["temperature_c", "Temperature"],
  ["phosphate_ppm", "Phosphate"],
  ["salinity_g_kg", "Salinity, g/kg"],
] as const;

/** The typed line as a reading. */
export function readingOf(blank: Reading, found: AnswerOf<"read-test-line">, basis: "ion" | "N"): Reading {
  return {
    ...blank,
    basis,
    off_scale: found.off_scale,
    between: found.between,
    other_kit: found.other_kit,
    ...Object.fromEntries(FIELDS.map(([f]) => [f, found[f] ?? null])),
  };
}

/** A temperature without a unit is in the keeper's own. */
export function lineQuestion(text: string): QuestionOf<"read-test-line"> {
  return { text, degrees: unitName("°C") === "°F" ? "°F" : "°C" };
}
