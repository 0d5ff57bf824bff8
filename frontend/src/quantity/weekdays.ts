/** Weekday names in the keeper's language, 0 for Monday as in the API. */
import { LOCALE } from "./locale";

/** 5 January 2026 is a Monday. */
const MONDAY = Date.UTC(2026, 0, 5, 12);

export const WEEKDAYS: readonly (readonly [string, string])[] = Array.from({ length: 7 }, (_, n) => [
  String(n),
  new Date(MONDAY + n * 86_400_000).toLocaleDateString(LOCALE, { weekday: "long", timeZone: "UTC" }),
]);
