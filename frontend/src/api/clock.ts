/** The clock of the page: the browser's own, or that of the practice tank that is open. */
let aheadMs = 0;

/** Follow a practice tank's clock; null for the browser's own. */
export function followClock(now: string | null): void {
  aheadMs = now === null ? 0 : new Date(now).getTime() - Date.now();
}

export function nowMs(): number {
  return Date.now() + aheadMs;
}

export function nowDate(): Date {
  return new Date(nowMs());
}
