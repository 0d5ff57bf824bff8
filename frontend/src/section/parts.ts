/** Shared by the drawings of all kinds: props, line style, and position of the next of a kind. */
import type { Filter, TankPlan } from "../api/schemas";
import type { Sheet } from "./geometry";

export const line = { stroke: "var(--ink)", strokeWidth: 1.3, fill: "none" } as const;

export interface PartProps {
  sheet: Sheet;
  filter: Filter;
  /** Its index among filters of its kind: 0 for the first, at the default position. */
  place: number;
  /** Without hoses, intake and outlet: a fitting plan draws those. */
  bare?: boolean;
  /** Centre of the body, cm from the tank's left face. */
  bodyXCm?: number;
  /** The tank's own sump, where measured. */
  sump?: TankPlan["surroundings"]["sump"];
}

/** Position of the next of a kind as a share of the tank's length: from the first position towards the other end. */
export function stand(first: number, reach: number, place: number): number {
  return place === 0 ? first : first - reach / (place === 1 ? 1 : place + 0.5);
}

/** Centre of a body in pixels from the tank's left face: by its plan, or at a share of the length. */
export function middleOf(bodyXCm: number | undefined, sheet: Sheet, share: number): number {
  return bodyXCm === undefined ? sheet.tankWidth * share : bodyXCm * sheet.scale;
}

/** Centre of a body in the water, kept clear of the glass. */
export function inside(middle: number, width: number, { tankWidth, glass }: Sheet): number {
  return Math.max(Math.min(middle, tankWidth - glass - 3 - width / 2), glass + 3 + width / 2);
}

/** Target of a label, in the front view. */
