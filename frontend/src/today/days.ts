/** Days of a calendar. Pure; the week starts as the reader's locale has it. */
import { LOCALE } from "../quantity/locale";

/** A day as a sortable string: 2026-11-26, in this device's time zone. */
export function dayKey(at: Date): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** First weekday of the locale: 0 for Sunday, 1 for Monday. */
function weekBegins(locale: string = navigator.language): number {
  const info = new Intl.Locale(locale) as Intl.Locale & {
    getWeekInfo?: () => { firstDay: number };
    weekInfo?: { firstDay: number };
  };
  return (info.getWeekInfo?.().firstDay ?? info.weekInfo?.firstDay ?? 1) % 7;
}

/** Whole weeks of days, the first of them that of `from`. */
export function weeksFrom(from: Date, weeks: number, begins: number = weekBegins()): Date[] {
  const before = (from.getDay() - begins + 7) % 7;
  return Array.from(
    { length: weeks * 7 },
    (_, n) => new Date(from.getFullYear(), from.getMonth(), from.getDate() - before + n),
  );
}

/** Weekday names in the locale's order. */
export function weekdayNames(begins: number = weekBegins()): string[] {
  // 4 January 2026 is a Sunday.
  return Array.from({ length: 7 }, (_, n) =>
    new Date(2026, 0, 4 + begins + n).toLocaleDateString(LOCALE, { weekday: "short" }),
  );
}
