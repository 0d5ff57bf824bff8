/** The measures of a sump that are typed, with their labels. */
import type { Sump } from "../api/schemas";

export const SUMP_SIZES = [
  ["length_cm", "Sump length"],
  ["width_cm", "Sump width"],
  ["height_cm", "Sump height"],
  ["level_cm", "Level while it runs"],
] as const satisfies readonly (readonly [keyof Sump, string])[];
