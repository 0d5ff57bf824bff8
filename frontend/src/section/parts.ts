/** What the drawings of every kind share: their props, their line, and where the next of a kind stands. */
import type { Filter, TankPlan } from "../api/schemas";
import type { Sheet } from "./geometry";

export const line = { stroke: "var(--ink)", strokeWidth: 1.3, fill: "none" } as const;

export interface PartProps {
  sheet: Sheet;
  filter: Filter;
  /** Its place among filters of its kind: 0 for the first, which stands where it usually does. */
  place: number;
  /** Without hoses, intake and outlet: a fitting plan draws those where they go. */
  bare?: boolean;
  /** Middle of the body, cm from the tank's left face. */
  bodyXCm?: number;
  /** The tank's own sump, where it was measured. */
  sump?: TankPlan["surroundings"]["sump"];
}

/** Share of the tank's length at which the next of a kind stands: from the first place towards the other end. */
export function stand(first: number, reach: number, place: number): number {
  return place === 0 ? first : first - reach / (place === 1 ? 1 : place + 0.5);
}

/** Middle of a body in pixels from the tank's left face: where its plan puts it, else at a share of the length. */
export function middleOf(bodyXCm: number | undefined, sheet: Sheet, share: number): number {
  return bodyXCm === undefined ? sheet.tankWidth * share : bodyXCm * sheet.scale;
}

/** The middle of a body that stands in the water, kept clear of the glass. */
export function inside(middle: number, width: number, { tankWidth, glass }: Sheet): number {
  return Math.max(Math.min(middle, tankWidth - glass - 3 - width / 2), glass + 3 + width / 2);
}

/** Where a label may point, in the front view. */
