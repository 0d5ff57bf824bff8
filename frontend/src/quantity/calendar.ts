/** Days and lengths of work as a round shows them. */
import { nowDate } from "../api/clock";
import { LOCALE } from "./locale";

/** A day: of the calendar ("2026-12-01"), or days from today. */
export function dayOf(day: string | number): string {
  const at = typeof day === "number" ? nowDate() : new Date(`${day}T12:00:00`);
  if (typeof day === "number") at.setDate(at.getDate() + day);
  return at.toLocaleDateString(LOCALE, { weekday: "short", day: "numeric", month: "short" });
}

/** A length of work, "25 min" or "1 h 50 min". */
export function hours(minutes: number): string {
  const whole = Math.round(minutes);
  if (whole < 60) return `${whole} min`;
  return `${Math.floor(whole / 60)} h ${String(whole % 60).padStart(2, "0")} min`;
}
