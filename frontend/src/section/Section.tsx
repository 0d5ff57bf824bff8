/** The section drawing: this tank on its stand against its wall, front and side, to one scale. */
import { useMemo, useRef, useState } from "react";
import { styled } from "styled-components";
import { Glassware, Room } from "./Glassware";
import { Labels, type SectionLabel } from "./Labels";
import type { Animals, CurrentsAnswer, Filter, Species, TankPlan, TankVolume } from "../api/schemas";
import { InlineButton } from "../kit/controls";
import { phone } from "../kit/theme";
import { usePhone } from "../kit/usePhone";
import { CurrentsOverlay } from "./CurrentsOverlay";
import { FilterParts } from "./FilterParts";
import { layOut, planPath, swimmers, type Sheet } from "./geometry";
import { FitOverlay } from "./FitOverlay";
import type { SectionFilter } from "./sectionFilter";
import { Handles } from "./Handles";
import type { HandleName } from "./handleSpec";
import { useKeptApart } from "./labelPlacement";
import { Swimmers } from "./Swimmers";
import { sizeOf, unitName } from "../quantity/format";
import { WaterText, linesWithin } from "./WaterText";

export interface SectionProps {
  plan: TankPlan;
  volume?: TankVolume;
  animals?: Animals[];
  species?: Species[];
  /** All filters on the tank, in order. */
  filters?: SectionFilter[];
  labels?: SectionLabel[];
  /** Currents of the given filters. */
  currents?: CurrentsAnswer;
  /** Text in the water: what it contains today. */
  water?: string[];
  dimensions?: boolean;
  /** Key of the selected filter: its handles, marks and faults are shown. */
  working?: string;
  stopsBelowRimCm?: number;
  /** A part of the fitting plan to find on the drawing. */
  lookAt?: string;
  /** Enables the handles; each reports its new value in cm. */
  onMove?: Partial<Record<HandleName, (cm: number) => void>>;
  /** Highest foot of a body under the tank, cm; for its handle. */
  footMostCm?: number;
  caption: string;
}

export function Section(props: SectionProps) {
  const { plan, animals, species, filters = [], caption, onMove } = props;
  const first = filters.find((f) => f.key === props.working) ?? filters[0];
  const sheet = useMemo(() => layOut(plan, 560, 610), [plan]);
  const small = usePhone();
  const [whole, setWhole] = useState(false);
  const drawing = useRef<SVGSVGElement>(null);
  useKeptApart(drawing);
  const fish = useMemo(
    () => (animals && species ? swimmers(sheet, animals, species) : []),
    [sheet, animals, species],
  );
  return (
    <Frame data-whole={whole || undefined}>
      <svg ref={drawing} viewBox={viewOf(sheet, small && !whole)} role="group" aria-label={caption}>
        <Room sheet={sheet} />
        {/* Plants are omitted when text is shown in the water. */}
        <Glassware
          sheet={sheet}
          plants={plan.surroundings.planted && props.water === undefined}
          stones={plan.tank.stone_kg > 0}
        />
        {props.currents && <CurrentsOverlay sheet={sheet} currents={props.currents} filters={filters} />}
        <Swimmers all={fish} />
        <Fittings {...props} sheet={sheet} filters={filters} first={first?.key} />
        <Figures {...props} sheet={sheet} />
        {first && props.labels && (
          <Labels
            sheet={sheet}
            filter={first.filter}
            fitting={first.fitting}
            labels={props.labels}
            many={filters.length > 1}
          />
        )}
        <Movable {...props} sheet={sheet} small={small} first={first} />
      </svg>
      {onMove && <WholeOrTank whole={whole} onChange={setWhole} />}
    </Frame>
  );
}

/** On a phone: the whole sheet, or the tank alone. */
function WholeOrTank({ whole, onChange }: { whole: boolean; onChange: (whole: boolean) => void }) {
  if (!usePhone()) return null;
  return (
    <InlineButton
      onPress={() => {
        onChange(!whole);
      }}
    >
      {whole ? "The tank alone" : "The whole drawing"}
    </InlineButton>
  );
}

/** Part of the sheet that is drawn. strip: the tank itself, where stand and side view are for wider screens. */
function viewOf(sheet: Sheet, strip: boolean): string {
  return strip
    ? `${sheet.left - 62} ${sheet.rimY - 46} ${sheet.tankWidth + 100} ${sheet.tankHeight + 60}`
    : `0 0 ${sheet.width} ${sheet.height}`;
}

interface FittingsProps {
  sheet: Sheet;
  plan: TankPlan;
  filters: SectionFilter[];
  /** Key of the selected filter, and of the one whose marks are shown. */
  working?: string;
  first?: string;
  stopsBelowRimCm?: number;
  lookAt?: string;
}

function Fittings({ sheet, plan, filters, working, first, stopsBelowRimCm, lookAt }: FittingsProps) {
  const places = placesOf(filters.map((f) => f.filter.kind));
  return (
    <>
      {filters.map(({ key, filter, fitting }, i) => (
        <FilterParts
          key={key}
          sheet={sheet}
          filter={filter}
          place={places[i] ?? 0}
          bare={fitting !== undefined}
          sump={plan.surroundings.sump}
          bodyXCm={fitting?.parts.find((p) => p.role === "body" || p.role === "filter")?.at.x_cm}
        />
      ))}
      {/* The selected one is drawn last, so that nothing covers its labels. */}
      {[...filters]
        .sort((a, b) => Number(a.key === first) - Number(b.key === first))
        .map(({ key, fitting }) =>
          fitting ? (
            <FitOverlay
              key={key}
              sheet={sheet}
              fitting={fitting}
              quiet={working !== key && (working === undefined || filters.length > 1)}
              {...(key === first ? { stopsBelowRimCm, lookAt } : {})}
            />
          ) : null,
        )}
    </>
  );
}

interface MovableProps extends Pick<SectionProps, "plan" | "onMove" | "footMostCm"> {
  sheet: Sheet;
  small: boolean;
  first?: SectionFilter;
}

/** The handles; on a phone only the water line's, which a thumb can hit. */
function Movable({ sheet, plan, small, first, onMove, footMostCm }: MovableProps) {
  if (!onMove) return null;
  if (!small)
    return (
      <Handles
        sheet={sheet}
        plan={plan}
        filter={first?.filter}
        fitting={first?.fitting}
        footMostCm={footMostCm}
        onMove={onMove}
      />
    );
  if (!onMove.fill) return null;
  return <Handles sheet={sheet} plan={plan} filter={first?.filter} onMove={{ fill: onMove.fill }} />;
}

function Figures({ sheet, plan, volume, water, dimensions }: SectionProps & { sheet: Sheet }) {
  const { left, tankWidth, rimY, tankHeight, floorY, standHeight, sideLeft, sideWidth, wallX } = sheet;
  const middle = left + tankWidth / 2;
  return (
    <g className="figures">
      <Span
        x0={left}
        x1={left + tankWidth}
        y={rimY - 18}
        text={`${sizeOf(plan.tank.length_cm)} ${unitName("cm")}`}
      />
      <Span
        x0={sideLeft}
        x1={sideLeft + sideWidth}
        y={rimY - 18}
        text={sizeOf(sheet.sideWidth / sheet.scale)}
      />
      {wallX - sideLeft - sideWidth > 8 && (
        <text
          x={(sideLeft + sideWidth + wallX) / 2}
          y={floorY - standHeight * 0.5}
          textAnchor="middle"
          className="small"
          transform={`rotate(-90 ${(sideLeft + sideWidth + wallX) / 2 + 4} ${floorY - standHeight * 0.5})`}
        >
          {`${sizeOf(plan.surroundings.behind_cm)} ${unitName("cm")}`} to the wall
        </text>
      )}
      <text x={left - 22} y={rimY + tankHeight / 2 + 5} textAnchor="end">
        {sizeOf(plan.tank.height_cm)}
      </text>
      <text x={left - 22} y={floorY - standHeight / 2 + 5} textAnchor="end">
        {sizeOf(plan.surroundings.stand_height_cm)}
      </text>
      <path
        data-line=""
        d={`M${left - 14} ${rimY} V${floorY} M${left - 18} ${rimY} h8 M${left - 18} ${rimY + tankHeight} h8 M${left - 18} ${floorY} h8`}
        stroke="var(--ink-soft)"
        strokeWidth={0.9}
        fill="none"
      />
      <WaterText
        sheet={sheet}
        volume={dimensions ? volume : undefined}
        lines={linesWithin(water, tankWidth)}
      />
      {plan.tank.shape !== "box" && standHeight > 90 && (
        <g transform={`translate(${sideLeft + sideWidth / 2 - 34} ${floorY - standHeight * 0.5 - 34})`}>
          <path d={planPath(plan, 68)} fill="var(--water-fill)" stroke="var(--ink)" strokeWidth={1.4} />
          <text x={34} y={88} textAnchor="middle" className="small">
            from above
          </text>
        </g>
      )}
      <text x={middle} y={floorY + 20} textAnchor="middle" className="small">
        front
      </text>
      <text x={sideLeft + sideWidth / 2} y={floorY + 20} textAnchor="middle" className="small">
        side
      </text>
    </g>
  );
}

function Span({ x0, x1, y, text }: { x0: number; x1: number; y: number; text: string }) {
  return (
    <>
      <path
        data-line=""
        d={`M${x0} ${y} H${x1} M${x0} ${y - 4} v8 M${x1} ${y - 4} v8`}
        stroke="var(--ink-soft)"
        strokeWidth={0.9}
      />
      <text x={(x0 + x1) / 2} y={y - 10} textAnchor="middle">
        {text}
      </text>
    </>
  );
}

/** Filters of one kind stand side by side: the position index of each. */
function placesOf(kinds: Filter["kind"][]): number[] {
  return kinds.map((kind, i) => kinds.slice(0, i).filter((k) => k === kind).length);
}

const Frame = styled.figure`
  margin: 0;
  svg {
    display: block;
    width: 100%;
    height: auto;
    max-height: calc(100vh - 150px);
  }
  .figures text {
    font:
      400 min(0.9375rem, 20px) "Source Sans 3",
      sans-serif;
    fill: var(--ink);
    paint-order: stroke;
    stroke: color-mix(in srgb, var(--silt) 85%, transparent);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  .figures .strong {
    font-weight: 600;
  }
  .figures .small {
    font-size: min(0.875rem, 19px);
    fill: var(--ink-soft);
  }
  .figures .big {
    font:
      600 min(1.625rem, 34px) Vollkorn,
      serif;
  }
  .moving {
    stroke-dasharray: 4 4;
    animation: drift 1.4s linear infinite;
  }
  @keyframes drift {
    to {
      stroke-dashoffset: -16;
    }
  }
  ${phone} {
    svg {
      /* As wide as its picture, so that nothing beside the tank is visible. */
      width: auto;
      max-width: 100%;
      max-height: 212px;
      margin: 0 auto;
    }
    &[data-whole] svg {
      width: 100%;
      max-height: none;
    }
  }
`;
