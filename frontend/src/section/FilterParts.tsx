/** The chosen filter in both views, to scale, with the water's path. */
import type { Filter } from "../api/schemas";
import type { Sheet } from "./geometry";

const line = { stroke: "var(--ink)", strokeWidth: 1.3, fill: "none" } as const;

interface Props {
  sheet: Sheet;
  filter: Filter;
}

/** Where a label may point, in the front view. */
export function anchors({ sheet, filter }: Props): {
  outlet: [number, number];
  body: [number, number];
  hose: [number, number];
} {
  const { left, tankWidth, waterY, scale, floorY, bottomY, rimY } = sheet;
  if (filter.kind === "canister") {
    const x = left + tankWidth * 0.72;
    return {
      outlet: [left + tankWidth * 0.14, waterY + 6],
      hose: [
        left + tankWidth * 0.3,
        Math.max(
          floorY - 8 - Math.min(filter.height_cm * scale, sheet.standHeight - 6) - 22,
          rimY + sheet.tankHeight + 16,
        ) - 5,
      ],
      body: [x, floorY - 4 - filter.height_cm * scale * 0.45],
    };
  }
  if (filter.kind === "hang-on") {
    const x = left + tankWidth * 0.66;
    return {
      outlet: [x + 6, waterY - 2],
      hose: [x, waterY + 40],
      body: [x + filter.width_cm * scale * 0.5, rimY - 2],
    };
  }
  const x = left + tankWidth * 0.88;
  const foot = bottomY - sheet.substrate;
  return {
    outlet: [x, foot - filter.height_cm * scale],
    hose: [x, waterY],
    body: [x, foot - filter.height_cm * scale * 0.3],
  };
}

export function FilterParts({ sheet, filter }: Props) {
  if (filter.kind === "canister") return <Canister sheet={sheet} filter={filter} />;
  if (filter.kind === "hang-on") return <HangOn sheet={sheet} filter={filter} />;
  return <Sponge sheet={sheet} filter={filter} />;
}

function Hose({ d, out }: { d: string; out?: boolean }) {
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

function Canister({ sheet, filter }: Props) {
  const { left, tankWidth, rimY, waterY, bottomY, floorY, scale, substrate } = sheet;
  const w = filter.width_cm * scale;
  const h = Math.min(filter.height_cm * scale, sheet.standHeight - 6);
  const x = left + tankWidth * 0.72 - w / 2;
  const y = floorY - 8 - h;
  const inX = left + tankWidth - 26;
  const outX = left + 22;
  const intakeFoot = bottomY - substrate - 18;
  const over = rimY - 10;
  const right = left + tankWidth + 12;
  const below = rimY + sheet.tankHeight + 16;
  // A tall body leaves little room under the tank: the hoses then run level just over it.
  const run = Math.max(y - 22, below);
  return (
    <g>
      <Hose
        d={`M${inX} ${intakeFoot} V${over + 6} Q${inX} ${over} ${inX + 6} ${over} H${right - 6} Q${right} ${over} ${right} ${over + 6} V${run - 14} Q${right} ${run} ${right - 14} ${run} H${x + w * 0.72 + 8} Q${x + w * 0.72} ${run} ${x + w * 0.72} ${run + 8} V${y}`}
      />
      <Hose
        out
        d={`M${x + w * 0.28} ${y} V${run + 8} Q${x + w * 0.28} ${run} ${x + w * 0.28 - 8} ${run} L${left} ${run - 8} Q${left - 14} ${run - 10} ${left - 14} ${run - 22} V${over + 6} Q${left - 14} ${over} ${left - 8} ${over} H${outX - 6} Q${outX} ${over} ${outX} ${over + 6} V${waterY + 4}`}
      />
      <rect x={inX - 5} y={intakeFoot - 4} width={10} height={18} rx={2} {...line} fill="var(--field)" />
      <rect
        x={outX - 4}
        y={waterY + 3}
        width={Math.max(tankWidth * 0.2, 30)}
        height={5}
        rx={2}
        {...line}
        fill="var(--field)"
      />
      {[0.06, 0.1, 0.14, 0.18].map((f) => (
        <path
          key={f}
          className="moving"
          d={`M${outX + tankWidth * f} ${waterY + 9} q10 16 26 20`}
          stroke="var(--water)"
          strokeWidth={1.3}
          fill="none"
        />
      ))}
      <rect x={x} y={y} width={w} height={h} rx={4} {...line} fill="var(--field)" />
      <rect x={x} y={y} width={w} height={h * 0.17} rx={4} {...line} fill="var(--seed-fill)" />
      {[0.24, 0.42, 0.6, 0.78].map((f, i) => (
        <rect
          key={f}
          x={x + 4}
          y={y + h * f}
          width={w - 8}
          height={h * 0.15}
          fill={i > 1 ? "var(--sand)" : "var(--silt)"}
          stroke="var(--ink-soft)"
          strokeWidth={0.7}
        />
      ))}
      <rect
        x={sheet.sideLeft + sheet.sideWidth * 0.3}
        y={y}
        width={filter.depth_cm * scale}
        height={h}
        rx={4}
        {...line}
        fill="var(--field)"
      />
    </g>
  );
}

function HangOn({ sheet, filter }: Props) {
  const { left, tankWidth, rimY, waterY, scale, sideLeft, sideWidth } = sheet;
  const w = filter.width_cm * scale;
  const h = filter.height_cm * scale;
  const x = left + tankWidth * 0.66;
  const top = rimY - 3 * scale;
  const stem = x + w * 0.78;
  const depth = (sheet.bottomY - waterY) * 0.6;
  const back = sideLeft + sideWidth;
  return (
    <g>
      <rect x={x} y={top} width={w} height={h * 0.72} rx={3} {...line} fill="var(--silt)" opacity={0.9} />
      <path d={`M${x + 4} ${top + h * 0.28} H${x + w - 4}`} {...line} strokeDasharray="3 3" />
      <path d={`M${stem} ${top + 4} V${waterY + depth}`} stroke="var(--ink)" strokeWidth={6} />
      <path d={`M${stem} ${top + 4} V${waterY + depth}`} stroke="var(--silt-deep)" strokeWidth={3.6} />
      <rect x={stem - 4} y={waterY + depth - 2} width={8} height={12} rx={2} {...line} fill="var(--field)" />
      {[0.1, 0.3, 0.5].map((f) => (
        <path
          key={f}
          className="moving"
          d={`M${x + w * f} ${rimY + 2} q2 ${(waterY - rimY) * 0.7} 6 ${waterY - rimY + 12}`}
          stroke="var(--water)"
          strokeWidth={1.5}
          fill="none"
        />
      ))}
      <path
        d={`M${back - 6} ${top + 4} H${back + 3} V${top} H${back + filter.depth_cm * scale} V${top + h * 0.8} H${back + 3} V${top + 4}`}
        {...line}
        fill="var(--silt)"
      />
      <path d={`M${back - 9} ${top + 4} V${waterY + depth}`} stroke="var(--ink)" strokeWidth={3} />
    </g>
  );
}

function Sponge({ sheet, filter }: Props) {
  const { left, tankWidth, bottomY, substrate, scale, rimY, waterY, sideLeft, sideWidth } = sheet;
  const w = filter.width_cm * scale;
  const h = filter.height_cm * scale;
  const x = left + tankWidth * 0.88 - w / 2;
  const foot = bottomY - substrate;
  const cx = x + w / 2;
  const sx = sideLeft + sideWidth * 0.78;
  return (
    <g>
      {[
        [cx, w],
        [sx, filter.depth_cm * scale],
      ].map(([c = 0, wide = 0]) => (
        <g key={c}>
          <rect
            x={c - wide / 2}
            y={foot - h * 0.55}
            width={wide}
            height={h * 0.55}
            rx={5}
            {...line}
            fill="var(--sand)"
          />
          <path
            d={`M${c - wide / 2 + 4} ${foot - h * 0.36} h${wide - 8} M${c - wide / 2 + 4} ${foot - h * 0.18} h${wide - 8}`}
            stroke="var(--wood-line)"
            strokeDasharray="2 3"
          />
          <rect x={c - 3.5} y={foot - h} width={7} height={h * 0.5} {...line} fill="var(--field)" />
        </g>
      ))}
      {[0.2, 0.5, 0.8, 1.1].map((f) => (
        <circle
          key={f}
          className="moving"
          cx={cx + (f % 0.4) * 12 - 3}
          cy={foot - h - f * 12}
          r={2}
          {...line}
          strokeWidth={0.9}
        />
      ))}
      <path
        d={`M${cx + 3} ${foot - h * 0.6} C${cx + 16} ${waterY} ${cx + 8} ${rimY - 12} ${left + tankWidth + 8} ${rimY - 8} V${rimY + 40}`}
        stroke="var(--ink)"
        strokeWidth={1.6}
        fill="none"
      />
      <rect
        x={left + tankWidth + 2}
        y={rimY + 40}
        width={18}
        height={12}
        rx={3}
        {...line}
        fill="var(--field)"
      />
      <path d={`M${left + tankWidth + 4} ${rimY + 18} h8 l-4 7 z`} fill="var(--ink)" />
    </g>
  );
}
