/** A test typed in one line: the question to the server, and its answer as a reading. */
import type { AnswerOf, QuestionOf, Reading } from "../api/schemas";
import { WATER_PARAMETERS } from "../api/waterParameters";
import { unitName } from "../quantity/format";

/** The typed line as a reading. */
export function readingOf(blank: Reading, found: AnswerOf<"read-test-line">, basis: "ion" | "N"): Reading {
  return {
    ...blank,
    basis,
    off_scale: found.off_scale,
    between: found.between,
    other_kit: found.other_kit,
    ...Object.fromEntries(WATER_PARAMETERS.map(({ field }) => [field, found[field] ?? null])),
  };
}

/** A temperature without a unit is in the keeper's own. */
export function lineQuestion(text: string): QuestionOf<"read-test-line"> {
  return { text, degrees: unitName("°C") === "°F" ? "°F" : "°C" };
}
