/** Days of a month as a calendar lays them out. Pure; the week begins as the reader's locale has it. */

/** A day as a word that sorts and compares: 2026-11-26, by this device's clock. */
export function dayKey(at: Date): string {
  const two = (n: number) => String(n).padStart(2, "0");
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}

/** 0 for Sunday, 1 for Monday: how a week begins here. */
export function weekBegins(locale: string = navigator.language): number {
  const info = new Intl.Locale(locale) as Intl.Locale & {
    getWeekInfo?: () => { firstDay: number };
    weekInfo?: { firstDay: number };
  };
  return (info.getWeekInfo?.().firstDay ?? info.weekInfo?.firstDay ?? 1) % 7;
}

/** Every day of the month of `first`, filled up to whole weeks. */
export function monthDays(first: Date, begins: number = weekBegins()): Date[] {
  const before = (first.getDay() - begins + 7) % 7;
  const last = new Date(first.getFullYear(), first.getMonth() + 1, 0).getDate();
  const weeks = Math.ceil((before + last) / 7);
  return Array.from(
    { length: weeks * 7 },
    (_, n) => new Date(first.getFullYear(), first.getMonth(), 1 - before + n),
  );
}

/** The seven names, in this locale's order. */
export function weekdayNames(begins: number = weekBegins()): string[] {
  // 4 January 2026 is a Sunday.
  return Array.from({ length: 7 }, (_, n) =>
    new Date(2026, 0, 4 + begins + n).toLocaleDateString(undefined, { weekday: "short" }),
  );
}
