/** The days of the week in the keeper's own words, 0 for Monday as everywhere on the wire. */

/** The fifth of January 2026 was a Monday. */
const MONDAY = Date.UTC(2026, 0, 5, 12);

export const WEEKDAYS: readonly (readonly [string, string])[] = Array.from({ length: 7 }, (_, n) => [
  String(n),
  new Date(MONDAY + n * 86_400_000).toLocaleDateString(undefined, { weekday: "long", timeZone: "UTC" }),
]);
