/** Shared by the drawings of all kinds: the record of a kind, its props, line style, hose and air line. */
import type { ReactNode } from "react";
import type { Filter, TankPlan } from "../api/schemas";
import type { Sheet } from "./geometry";
import type { HandleSpec } from "./handleSpec";

export const line = { stroke: "var(--ink)", strokeWidth: 1.3, fill: "none" } as const;

/** Points of the front view that a label may name, in pixels. */
export type Spots = Record<"outlet" | "hose" | "body", [number, number]>;

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

interface HandleContext {
  sheet: Sheet;
  plan: TankPlan;
  /** Highest foot of a body under the tank that leaves the height its kind needs, cm. */
  footMostCm: number;
}

/** How a kind of filter is drawn: one file a kind in `kinds/`, named after it. */
export interface KindDrawing {
  Part: (props: PartProps) => ReactNode;
  /** Targets of its labels without a fitting plan. */
  anchors: (sheet: Sheet, filter: Filter) => Spots;
  /** Positions of its labels. spots: their targets. */
  labels: (sheet: Sheet, spots: Spots) => Spots;
  /** Handles of its own besides those of the tank. Default: none. */
  handles?: (context: HandleContext) => HandleSpec[];
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

/** Label targets of a filter that stands on the bed near the right end. */
export function standingAnchors(
  { left, tankWidth, waterY, bottomY, substrate, scale }: Sheet,
  filter: Filter,
): Spots {
  const foot = bottomY - substrate;
  const x = left + tankWidth * 0.88;
  return {
    outlet: [x, foot - filter.height_cm * scale],
    hose: [x, waterY],
    body: [x, foot - filter.height_cm * scale * 0.3],
  };
}

/** Label targets of a filter that returns near the water line at the right end. */
export function highAnchors({ left, tankWidth, waterY }: Sheet): Spots {
  const at: [number, number] = [left + tankWidth * 0.78, waterY + 16];
  return { outlet: at, hose: at, body: at };
}

/** Label positions of a filter inside the tank. */
export function insideLabels({ left, tankWidth, waterY, floorY, standHeight }: Sheet, spots: Spots): Spots {
  return {
    outlet: [left + tankWidth * 0.36, Math.max(spots.outlet[1] - 10, waterY + 24)],
    hose: [left + tankWidth * 0.3, spots.hose[1] + 40],
    body: [left + tankWidth * 0.3, floorY - standHeight * 0.5],
  };
}

/** Label positions of a filter that stands under the tank. */
export function beneathLabels({ left, tankWidth, floorY, standHeight }: Sheet, spots: Spots): Spots {
  return {
    outlet: [left + tankWidth * 0.3, spots.outlet[1] + 26],
    hose: [left + 18, Math.min(spots.hose[1] + 44, floorY - 30)],
    body: [left + tankWidth * 0.2, floorY - standHeight * 0.1],
  };
}

export function Hose({ d, out }: { d: string; out?: boolean }) {
  return (
    <>
      <path d={d} stroke="var(--ink)" strokeWidth={8} fill="none" strokeLinejoin="round" />
      <path
        d={d}
        stroke={out ? "var(--water-deep)" : "var(--silt-deep)"}
        strokeWidth={5.4}
        fill="none"
        strokeLinejoin="round"
      />
    </>
  );
}

/** The air line of an air-driven filter: over the rim, check valve, pump. */
export function AirLine({ sheet, from }: { sheet: Sheet; from: [number, number] }) {
  const { left, tankWidth, rimY, waterY } = sheet;
  const edge = left + tankWidth;
  return (
    <g>
      <path
        d={`M${from[0]} ${from[1]} C${from[0] + 10} ${waterY} ${edge - 14} ${rimY - 12} ${edge + 8} ${rimY - 8} V${rimY + 40}`}
        stroke="var(--ink)"
        strokeWidth={1.6}
        fill="none"
      />
      <rect x={edge + 2} y={rimY + 40} width={18} height={12} rx={3} {...line} fill="var(--field)" />
      <path d={`M${edge + 4} ${rimY + 18} h8 l-4 7 z`} fill="var(--ink)" />
    </g>
  );
}
