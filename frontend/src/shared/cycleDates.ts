/** Days of a cycle as dates. */
import { nowDate } from "../api/clock";
import type { LogbookState } from "../api/schemas";
import { LOCALE } from "../quantity/locale";

const DAY_MS = 86_400_000;

export function cycleStart(logbook: LogbookState): Date {
  return logbook.cycle_plan?.body.kind === "cycle-plan"
    ? new Date(logbook.cycle_plan.body.started_at)
    : nowDate();
}

/** A day of the cycle as a short date. */
export function dater(start: Date): (day: number) => string {
  return (day) =>
    new Date(start.getTime() + day * DAY_MS).toLocaleDateString(LOCALE, {
      day: "numeric",
      month: "short",
    });
}

/** A day in words: today, tomorrow, about Thursday, or the date. */
export function about(start: Date, day: number): string {
  const at = new Date(start.getTime() + day * DAY_MS);
  const ahead = Math.round((new Date(at).setHours(12, 0, 0, 0) - nowDate().setHours(12, 0, 0, 0)) / DAY_MS);
  if (ahead <= 0) return "today";
  if (ahead === 1) return "tomorrow";
  if (ahead <= 6) return `about ${at.toLocaleDateString(LOCALE, { weekday: "long" })}`;
  return `about ${at.toLocaleDateString(LOCALE, { day: "numeric", month: "long" })}`;
}
