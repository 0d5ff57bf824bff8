/** Labels beside the parts of a filter. */
import type { Filter, FittingPlan } from "../api/schemas";
import type { Sheet } from "./geometry";
import { DRAWINGS } from "./kinds";
import type { Spots } from "./parts";

export interface SectionLabel {
  at: keyof Spots;
  lines: [string, string?];
}

interface LabelsProps {
  sheet: Sheet;
  filter: Filter;
  fitting?: FittingPlan;
  labels: SectionLabel[];
  /** Whether other filters stand beside this one, so that no line points at it alone. */
  many: boolean;
}

/** Target positions of labels, from the plan. */
function planned({ left, floorY, scale }: Sheet, { parts, runs }: FittingPlan): Partial<Spots> {
  const found: Partial<Spots> = {};
  const spot = (x: number, y: number): [number, number] => [left + x * scale, floorY - y * scale];
  for (const { role, at } of parts)
    if (role === "outlet" || role === "body") found[role] = spot(at.x_cm, at.y_cm);
  const hose = runs.find((run) => run.role === "return-hose")?.points;
  // Under the tank, where it is visible: between the last corner but one and the body.
  const [from, to] = hose?.slice(-3) ?? [];
  if (from && to) found.hose = spot((from.x_cm + to.x_cm) / 2, (from.y_cm + to.y_cm) / 2);
  return found;
}

export function Labels({ sheet, filter, fitting, labels, many }: LabelsProps) {
  const drawing = DRAWINGS[filter.kind];
  const spots = { ...drawing.anchors(sheet, filter), ...(fitting && planned(sheet, fitting)) };
  const { left, tankWidth } = sheet;
  const places = drawing.labels(sheet, spots);
  return (
    <g className="figures">
      {labels.map(({ at, lines }) => {
        const [wanted, y] = places[at];
        // Text ends inside the picture, on a phone as well, however narrow the tank.
        const wide = Math.max(...lines.map((line) => line?.length ?? 0)) * 7.4;
        const x = Math.max(Math.min(wanted, left + tankWidth + 34 - wide), left - 56);
        const [px, py] = spots[at];
        // The line starts on the side of the target; about 6.6 units a letter at this size.
        const from = px > x + lines[0].length * 3.3 ? x + lines[0].length * 6.6 + 4 : x - 4;
        return (
          <g key={at}>
            {!many && (
              <>
                <path
                  d={`M${from} ${y - 4} L${px} ${py}`}
                  stroke="var(--seed)"
                  strokeWidth={1.1}
                  fill="none"
                />
                <circle cx={px} cy={py} r={3} fill="var(--seed)" />
              </>
            )}
            <text x={x} y={y} className="strong" {...(many && { "data-free": "" })}>
              {lines[0]}
            </text>
            {lines[1] && (
              <text x={x} y={y + 20}>
                {lines[1]}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
