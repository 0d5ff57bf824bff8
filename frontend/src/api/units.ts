/** Units of the session, chosen before anything is drawn: one keeper a page, as there is one language a page. */
import type { SessionState } from "./schemas";

type Written = SessionState["written"][number];

let written = new Map<string, Written>();
let currency = "";
let mark = ".";

/** Apply the units of a session. */
export function chooseUnits(session: SessionState): void {
  written = new Map(session.written.map((w) => [w.home, w]));
  currency = session.units.currency;
  mark = session.units.decimal;
}

/** How the keeper reads a kind of figure; undefined before the session is known. */
export function writtenUnit(home: string): Written | undefined {
  return written.get(home);
}

/** The keeper's currency, or "" for none. */
export function chosenCurrency(): string {
  return currency;
}

/** The keeper's decimal mark. */
export function decimalMark(): string {
  return mark;
}
