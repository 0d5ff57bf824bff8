/** A fitting plan on the section: hoses by their runs, cut lengths, parts, faults and levels. */
import { useId } from "react";
import type { FittingPlan } from "../api/schemas";
import type { Sheet } from "./geometry";
import { show } from "../quantity/format";

interface Props {
  sheet: Sheet;
  fitting: FittingPlan;
  /** Level where the water would stop, cm below the rim. */
  stopsBelowRimCm?: number;
  /** A part to find and confirm, by its role. */
  lookAt?: string;
  /** Drawn without names and lengths, beside the selected one. */
  quiet?: boolean;
}

export function FitOverlay({ sheet, fitting, stopsBelowRimCm, lookAt, quiet = false }: Props) {
  const { left, floorY, scale, tankWidth, rimY } = sheet;
  // Objects beside the tank are drawn in the gap before the side view, however narrow.
  const x = (cm: number) => {
    const beyond = cm * scale - tankWidth;
    return left + (beyond > 0 ? tankWidth + 36 * (1 - Math.exp(-beyond / 60)) : cm * scale);
  };
  const body = fitting.parts.find((p) => p.role === "body");
  const intake = fitting.parts.find((p) => p.role === "intake");
  const y = (cm: number) => floorY - cm * scale;
  const at = { x, y };
  const clip = useId();
  const stopY = stopsBelowRimCm === undefined ? null : rimY + stopsBelowRimCm * scale;
  const hosed = fitting.runs.some((r) => r.role === "intake-hose");
  return (
    <g>
      <BehindTank sheet={sheet} id={clip} />
      {hosed && intake && (
        <path
          d={`M${x(intake.at.x_cm)} ${rimY - 4} V${y(intake.at.y_cm)}`}
          stroke="var(--ink)"
          strokeWidth={2.2}
          fill="none"
        />
      )}
      <Runs runs={fitting.runs} at={at} bendScale={scale} clip={clip} quiet={quiet} />
      {fitting.runs.length === 0 && body && intake && (
        <path
          d={`M${x(intake.at.x_cm)} ${y(body.at.y_cm)} V${y(intake.at.y_cm)}`}
          stroke="var(--ink)"
          strokeWidth={5}
        />
      )}
      {!quiet && (
        <path
          d={`M${left} ${y(fitting.evaporated_y_cm)} H${left + tankWidth}`}
          stroke="var(--water)"
          strokeWidth={1}
          strokeDasharray="3 5"
        />
      )}
      {stopY !== null && (
        <g className="figures">
          <path
            d={`M${left - 4} ${stopY} H${left + tankWidth + 4}`}
            stroke="var(--alarm)"
            strokeWidth={2}
            strokeDasharray="8 4"
          />
          <text x={left + tankWidth / 2} y={stopY - 6} textAnchor="middle" style={{ fill: "var(--alarm)" }}>
            the level stops here
          </text>
        </g>
      )}
      <Parts parts={fitting.parts} at={at} quiet={quiet} />
      {fitting.parts
        .filter((p) => p.role === lookAt)
        .map((p) => (
          <circle
            key={p.role}
            cx={x(p.at.x_cm)}
            cy={y(p.at.y_cm)}
            r={22}
            fill="none"
            stroke="var(--seed)"
            strokeWidth={3.5}
          />
        ))}
      {!quiet && <Faults faults={fitting.faults} at={at} />}
    </g>
  );
}

interface Placing {
  /** From cm of the plan to the drawing. */
  at: Record<"x" | "y", (cm: number) => number>;
  quiet: boolean;
}

interface RunsProps extends Placing {
  runs: FittingPlan["runs"];
  /** Of a bend's radius. */
  bendScale: number;
  clip: string;
}

/** Hoses and lines by their runs, with the length to cut. */
function Runs({ runs, at: { x, y }, bendScale, clip, quiet }: RunsProps) {
  return (
    <>
      {runs.map((run, i) => {
        const points = run.points.map((p): Point => [x(p.x_cm), y(p.y_cm)]);
        const d = rounded(points, run.bend_radius_cm * bendScale);
        const thin = run.role === "air-line";
        return (
          <g key={run.role} fill="none" strokeLinejoin="round">
            {run.role === "intake-hose" || run.role === "return-hose" ? (
              <Behind
                d={d}
                fill={run.role === "return-hose" ? "var(--water-deep)" : "var(--silt-deep)"}
                id={clip}
              />
            ) : (
              <>
                <path d={d} stroke="var(--ink)" strokeWidth={thin ? 1.6 : 8} />
                {!thin && <path d={d} stroke="var(--silt-deep)" strokeWidth={5.4} />}
              </>
            )}
            {!quiet && (
              <CutLabel
                points={points}
                text={
                  run.role === "drain" ? "drain" : `${run.name}: cut ${show(Math.ceil(run.cut_cm), "cm")}`
                }
                turn={i}
              />
            )}
          </g>
        );
      })}
    </>
  );
}

/** The marks of parts, with their names. */
function Parts({ parts, at: { x, y }, quiet }: Placing & { parts: FittingPlan["parts"] }) {
  return (
    <>
      {parts.map((p) =>
        ["body", "sump", "filter"].includes(p.role) || (quiet && p.role === "socket") ? null : (
          <g key={p.role} className="figures">
            <Mark name={p.role} x={x(p.at.x_cm)} y={y(p.at.y_cm)} />
            {!quiet && (
              <text
                {...beside(p.role, x(p.at.x_cm), y(p.at.y_cm))}
                className="small"
                data-free={p.role === "tap" ? OVER_THE_RIM : ""}
              >
                <Named part={p} x={beside(p.role, x(p.at.x_cm), y(p.at.y_cm)).x} />
              </text>
            )}
          </g>
        ),
      )}
    </>
  );
}

/** Faults, by their number in the list. */
function Faults({ faults, at: { x, y } }: Pick<Placing, "at"> & { faults: FittingPlan["faults"] }) {
  return (
    <>
      {faults.map((f, i) => (
        <g key={f.what} className="figures">
          <circle
            cx={x(f.at.x_cm)}
            cy={y(f.at.y_cm)}
            r={12}
            fill="var(--alarm-fill)"
            stroke="var(--alarm)"
            strokeWidth={2}
          />
          <text
            x={x(f.at.x_cm)}
            y={y(f.at.y_cm) + 5}
            textAnchor="middle"
            style={{ fill: "var(--alarm)", stroke: "none", fontWeight: 600 }}
          >
            {i + 1}
          </text>
        </g>
      ))}
    </>
  );
}

/** Regions hidden by the tank, its bed and the stand's top, and regions visible. */
function BehindTank({ sheet, id }: { sheet: Sheet; id: string }) {
  const { left, tankWidth, rimY, tankHeight, width, height, standHeight } = sheet;
  const hidden = `M${left - 2} ${rimY} h${tankWidth + 4} v${tankHeight + Math.min(9, standHeight)} h${-(tankWidth + 4)} z`;
  return (
    <defs>
      <clipPath id={`${id}hidden`}>
        <path d={hidden} />
      </clipPath>
      <clipPath id={`${id}seen`}>
        <path d={`M0 0 H${width} V${height} H0 z ${hidden}`} clipRule="evenodd" />
      </clipPath>
    </defs>
  );
}

/** A hose: solid where visible, dashed behind the tank. */
function Behind({ d, fill, id }: { d: string; fill: string; id: string }) {
  return (
    <>
      <g clipPath={`url(#${id}seen)`}>
        <path d={d} stroke="var(--ink)" strokeWidth={8} />
        <path d={d} stroke={fill} strokeWidth={5.4} />
      </g>
      <path
        d={d}
        clipPath={`url(#${id}hidden)`}
        stroke="var(--ink-soft)"
        strokeWidth={1.4}
        strokeDasharray="5 5"
        data-hidden=""
      />
    </>
  );
}

/** Longest shift of a name that stands over the rim: in the water it would name something else. */
const OVER_THE_RIM = 30;

/** Position of a part's name, clear of the hose and its neighbours. */
function beside(name: string, x: number, y: number) {
  if (name === "intake") return { x: x - 10, y: y + 5, textAnchor: "end" as const };
  if (name === "outlet") return { x: x + 36, y: y + 5 };
  if (name === "tap") return { x: x + 11, y: y + 2 };
  return { x, y: y + 22, textAnchor: "middle" as const };
}

type Point = [number, number];

/** A part's name and position: in one line over the rim, where two do not fit. */
function Named({ part, x }: { part: FittingPlan["parts"][number]; x: number }) {
  if (!part.stands) return part.name;
  const oneLine = part.role === "tap";
  return (
    <>
      {part.name}
      <tspan data-more="" x={oneLine ? undefined : x} dy={oneLine ? 0 : 14}>
        {oneLine ? `, ${part.stands}` : part.stands}
      </tspan>
    </>
  );
}

function Mark({ name, x, y }: { name: string; x: number; y: number }) {
  const common = { stroke: "var(--ink)", strokeWidth: 1.3, fill: "var(--field)", "data-line": "" };
  if (name === "intake") return <rect x={x - 5} y={y - 9} width={10} height={18} rx={2} {...common} />;
  if (name === "outlet") return <rect x={x - 4} y={y - 3} width={34} height={6} rx={2} {...common} />;
  if (name === "tap") return <path d={`M${x - 7} ${y - 5} l14 10 v-10 l-14 10 z`} {...common} />;
  if (name === "socket")
    return (
      <g>
        <rect x={x - 8} y={y - 8} width={16} height={16} rx={2} {...common} />
        <circle cx={x - 3} cy={y} r={1.6} fill="var(--ink)" />
        <circle cx={x + 3} cy={y} r={1.6} fill="var(--ink)" />
      </g>
    );
  return <circle cx={x} cy={y} r={5} {...common} />;
}

/** Written along the longest leg, so that two hoses side by side keep their labels apart. */
function CutLabel({ points, text, turn }: { points: Point[]; text: string; turn: number }) {
  const legs = points.slice(1).map((to, i) => {
    const from = points[i] ?? to;
    return { from, dx: to[0] - from[0], dy: to[1] - from[1], length: distance(from, to) };
  });
  const leg = legs.reduce((best, l) => (l.length > best.length ? l : best));
  const cx = leg.from[0] + leg.dx * 0.5;
  const cy = leg.from[1] + leg.dy * (turn % 2 ? 0.62 : 0.5);
  const upright = Math.abs(leg.dy) > Math.abs(leg.dx);
  return (
    <g className="figures">
      <text
        x={cx}
        y={upright ? cy : cy - 8}
        textAnchor="middle"
        className="strong"
        data-free=""
        transform={upright ? `rotate(-90 ${cx} ${cy}) translate(0 ${turn % 2 ? -9 : 18})` : undefined}
      >
        {text}
      </text>
    </g>
  );
}

/** A path through corners, each rounded as far as its legs allow. */
function rounded(points: Point[], radius: number): string {
  return points
    .map((p, i) => {
      const before = points[i - 1];
      const after = points[i + 1];
      if (!before || !after) return `${i ? "L" : "M"}${p[0].toFixed(1)} ${p[1].toFixed(1)}`;
      const r = Math.min(radius, distance(p, before) / 2, distance(p, after) / 2);
      return `L${toward(p, before, r)} Q${p[0].toFixed(1)} ${p[1].toFixed(1)} ${toward(p, after, r)}`;
    })
    .join(" ");
}
function distance(a: Point, b: Point): number {
  return Math.hypot(b[0] - a[0], b[1] - a[1]);
}
function toward(from: Point, to: Point, by: number): string {
  const k = by / (distance(from, to) || 1);
  return `${(from[0] + (to[0] - from[0]) * k).toFixed(1)} ${(from[1] + (to[1] - from[1]) * k).toFixed(1)}`;
}
