/** Language of dates: English, as all words here are, in the order and with the clock of the keeper's own country. */
export const LOCALE = englishIn(navigator.language);

function englishIn(tag: string): string {
  try {
    const { region } = new Intl.Locale(tag).maximize();
    const english = region ? `en-${region}` : "en";
    const { locale } = new Intl.DateTimeFormat(english).resolvedOptions();
    if (locale !== "en") return english;
    // A country whose English nobody has described would be given the order of the United States.
    const { hourCycle } = new Intl.DateTimeFormat(tag, { hour: "numeric" }).resolvedOptions();
    return `en-001-u-hc-${hourCycle ?? "h23"}`;
  } catch {
    return "en";
  }
}

/** Decimal mark of the browser's own language, for a new account. */
export const DECIMAL = new Intl.NumberFormat(navigator.language)
  .formatToParts(1.5)
  .some((part) => part.type === "decimal" && part.value === ",")
  ? ","
  : ".";

/** Weekday, day and time of a moment, in short. at: ISO time */
export function whenOf(at: string): string {
  return new Date(at).toLocaleString(LOCALE, {
    weekday: "short",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
}
