/** State of a tank on the board, in one word and one mark. */
import type { BoardRow } from "../api/schemas";

export type Stands = "urgent" | "due" | "well";

export function standsOf(row: BoardRow, nowMs: number = Date.now()): Stands {
  if (row.urgent) return "urgent";
  return row.next.some((d) => new Date(d.at).getTime() <= nowMs) ? "due" : "well";
}

export const MARKS: Record<Stands, string> = { urgent: "!", due: "●", well: "" };
