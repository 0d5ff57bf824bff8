/** Overlay of currents on the section: reach of an outlet's jet, calm water, settling dirt. */
import type { CurrentsAnswer } from "../api/schemas";
import type { Sheet } from "./geometry";
import type { SectionFilter } from "./sectionFilter";

interface Props {
  sheet: Sheet;
  currents: CurrentsAnswer;
  /** The filters, in the order of the currents' outlets. */
  filters: SectionFilter[];
}

const DOTS = 14;

export function CurrentsOverlay({ sheet, currents, filters }: Props) {
  const { left, tankWidth, waterY, bottomY, substrate, floorY, scale, glass } = sheet;
  const bedY = bottomY - substrate;
  const middle = { x: left + tankWidth / 2, y: (waterY + bedY) / 2 };
  // Speeds rise from the centre of the circulation to the glass: the calm part surrounds the centre.
  const inset = Math.sqrt(currents.rest_share);
  const rx = (tankWidth / 2 - glass) * inset;
  const ry = ((bedY - waterY) / 2) * inset;
  const outlets = filters
    .filter((f) => f.filter.air_l_min === null)
    .map((f) => f.fitting?.parts.find((p) => p.role === "outlet")?.at);
  const settled = tankWidth * currents.settles_share * 0.94;
  return (
    <g aria-hidden="true" data-currents="">
      {currents.rest_share < 0.98 && (
        <rect
          x={middle.x - rx}
          y={middle.y - ry}
          width={2 * rx}
          height={2 * ry}
          rx={Math.min(rx, ry) * 0.6}
          fill="none"
          stroke="var(--reed)"
          strokeWidth={1.3}
          strokeDasharray="2 5"
        />
      )}
      {currents.jets.map((jet, i) => {
        const at = outlets[i];
        if (!at || jet.reach_cm <= 0) return null;
        const x = left + at.x_cm * scale;
        const y = floorY - at.y_cm * scale;
        return <JetShape key={i} sheet={sheet} jet={jet} x={x} y={y} />;
      })}
      {settled > 10 &&
        Array.from({ length: DOTS }, (_, i) => (
          <circle
            key={i}
            cx={middle.x + settled * (i / (DOTS - 1) - 0.5)}
            cy={bedY - 2.5 - (i % 3)}
            r={1.3}
            fill="var(--seed)"
          />
        ))}
    </g>
  );
}

interface JetProps {
  sheet: Sheet;
  jet: CurrentsAnswer["jets"][number];
  x: number;
  y: number;
}

/** A nozzle's cone along the tank; a bar's row, seen from the front. Clipped to the water. */
function JetShape({ sheet, jet, x, y }: JetProps) {
  const { left, tankWidth, waterY, bottomY, substrate, scale, glass } = sheet;
  const top = waterY;
  const bed = bottomY - substrate;
  const start = Math.max(y, top);
  const half = jet.half_width_cm * scale;
  const within = (at: number) => Math.min(Math.max(at, left + glass), left + tankWidth - glass);
  const upper = (dy: number) => Math.max(start - dy, top);
  const lower = (dy: number) => Math.min(start + dy, bed);
  const shape =
    jet.row_cm > 0
      ? `M${within(x)} ${upper(half)} H${within(x + jet.row_cm * scale)} V${lower(half)} H${within(x)} Z`
      : cone();
  function cone(): string {
    const to = x < left + tankWidth / 2 ? 1 : -1;
    const tip = within(x + to * jet.reach_cm * scale);
    return `M${x} ${start} L${tip} ${upper(half)} V${lower(half)} Z`;
  }
  return <path d={shape} fill="var(--field)" opacity={0.34} />;
}
