/** A filter in both views, to scale, with its water path: the drawing of its kind. */
import type { ReactNode } from "react";
import type { Filter } from "../api/schemas";
import { Box, SheetWall, Sponge, UnderGravel } from "./AirParts";
import { inside, line, middleOf, stand, type PartProps } from "./parts";

export function anchors({ sheet, filter }: PartProps): {
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
    const x = left + tankWidth * 0.72 - (filter.width_cm * scale) / 2;
    return {
      outlet: [x + 6, waterY - 2],
      hose: [x, waterY + 40],
      body: [x + filter.width_cm * scale * 0.5, rimY - 2],
    };
  }
  const foot = bottomY - sheet.substrate;
  if (filter.kind === "sump")
    return {
      outlet: [left + 16, waterY + 8],
      hose: [left - 12, rimY + 30],
      body: [left + tankWidth * 0.5, floorY - 30],
    };
  if (filter.kind === "internal" || filter.kind === "sheet") {
    const at: [number, number] = [left + tankWidth * 0.78, waterY + 16];
    return { outlet: at, hose: at, body: at };
  }
  const x = left + tankWidth * 0.88;
  return {
    outlet: [x, foot - filter.height_cm * scale],
    hose: [x, waterY],
    body: [x, foot - filter.height_cm * scale * 0.3],
  };
}

const PARTS: Record<Filter["kind"], (props: PartProps) => ReactNode> = {
  canister: Canister,
  "hang-on": HangOn,
  sponge: Sponge,
  sheet: SheetWall,
  internal: Internal,
  sump: Sump,
  box: Box,
  "under-gravel": UnderGravel,
};

export function FilterParts(props: PartProps) {
  const Part = PARTS[props.filter.kind];
  return <Part {...props} />;
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

function Canister({ sheet, filter, place, bare, bodyXCm }: PartProps) {
  const { left, tankWidth, rimY, waterY, bottomY, floorY, scale, substrate } = sheet;
  const w = filter.width_cm * scale;
  const h = Math.min(filter.height_cm * scale, sheet.standHeight - 6);
  const middle = middleOf(bodyXCm, sheet, stand(0.72, 0.38, place));
  const x = left + middle - w / 2;
  const y = floorY - 8 - h - Math.min(sheet.canisterFoot, Math.max(sheet.standHeight - h - 6, 0));
  const inX = left + tankWidth - 26;
  const outX = left + 22;
  const intakeFoot = bottomY - substrate - 18;
  const over = rimY - 10;
  const right = left + tankWidth + 12;
  const below = rimY + sheet.tankHeight + 16;
  // A tall body leaves little space under the tank: the hoses then run level just over it.
  const run = Math.max(y - 22, below);
  return (
    <g>
      {!bare && (
        <>
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
        </>
      )}
      <rect x={x} y={y} width={w} height={h} rx={4} {...line} fill="var(--field)" />
      <rect data-head="" x={x} y={y} width={w} height={h * 0.17} rx={4} {...line} fill="var(--seed-fill)" />
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

function HangOn({ sheet, filter, place, bare, bodyXCm }: PartProps) {
  const { left, rimY, waterY, scale, sideLeft, sideWidth } = sheet;
  const w = filter.width_cm * scale;
  const h = filter.height_cm * scale;
  const x = left + middleOf(bodyXCm, sheet, stand(0.72, 0.52, place)) - w / 2;
  const top = rimY - 3 * scale;
  const stem = x + w * 0.78;
  const depth = (sheet.bottomY - waterY) * 0.6;
  const back = sideLeft + sideWidth;
  return (
    <g>
      <rect x={x} y={top} width={w} height={h * 0.72} rx={3} {...line} fill="var(--silt)" opacity={0.9} />
      <path d={`M${x + 4} ${top + h * 0.28} H${x + w - 4}`} {...line} strokeDasharray="3 3" />
      {!bare && (
        <>
          <path d={`M${stem} ${top + 4} V${waterY + depth}`} stroke="var(--ink)" strokeWidth={6} />
          <path d={`M${stem} ${top + 4} V${waterY + depth}`} stroke="var(--silt-deep)" strokeWidth={3.6} />
          <rect
            x={stem - 4}
            y={waterY + depth - 2}
            width={8}
            height={12}
            rx={2}
            {...line}
            fill="var(--field)"
          />
        </>
      )}
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

function Internal({ sheet, filter, place, bodyXCm }: PartProps) {
  const { left, waterY, bottomY, substrate, scale } = sheet;
  const w = filter.width_cm * scale;
  const h = Math.min(filter.height_cm * scale, bottomY - substrate - waterY - 6);
  const x = left + inside(middleOf(bodyXCm, sheet, stand(0.92, 0.76, place)), w, sheet) - w / 2;
  const y = Math.min(waterY + 3 * scale, bottomY - substrate - h);
  return (
    <g>
      <rect x={x} y={y} width={w} height={h} rx={4} {...line} fill="var(--silt)" />
      <rect x={x} y={y} width={w} height={h * 0.3} rx={4} {...line} fill="var(--field)" />
      {[0.42, 0.52, 0.62, 0.72, 0.82].map((f) => (
        <path key={f} d={`M${x + 4} ${y + h * f} h${w - 8}`} stroke="var(--ink-soft)" />
      ))}
      {[0, 8].map((d) => (
        <path
          key={d}
          className="moving"
          d={`M${x - 2} ${y + h * 0.14 + d * 0.4} q-18 ${d - 4} -34 ${d}`}
          stroke="var(--water)"
          strokeWidth={1.5}
          fill="none"
        />
      ))}
    </g>
  );
}

function Sump({ sheet, filter, bare, sump }: PartProps) {
  const { left, tankWidth, rimY, waterY, floorY, scale, tankHeight, standHeight } = sheet;
  const w = Math.min((sump?.length_cm ?? filter.width_cm) * scale, tankWidth - 30);
  const h = Math.min((sump?.height_cm ?? filter.height_cm) * scale, standHeight - 14);
  const x = left + (tankWidth - w) / 2;
  const y = floorY - 8 - h;
  const level = sump ? y + h * (1 - Math.min(sump.level_cm / sump.height_cm, 0.96)) : y + h * 0.42;
  const drainX = left + tankWidth - 18;
  const returnX = left + 14;
  const under = rimY + tankHeight;
  return (
    <g>
      <rect x={drainX - 9} y={waterY - 2} width={18} height={tankHeight * 0.5} {...line} fill="var(--silt)" />
      {!bare && (
        <>
          <Hose out={false} d={`M${drainX} ${waterY + 20} V${under + 14} H${x + w - 14} V${level - 6}`} />
          <Hose
            out
            d={`M${x + 14} ${level + 10} V${under + 20} H${left - 12} V${rimY - 8} H${returnX} V${waterY + 6}`}
          />
        </>
      )}
      <rect x={x} y={level} width={w} height={y + h - level} fill="var(--water-fill)" />
      <Chambers x={x} y={y} w={w} h={h} level={level} order={sump?.chambers} />
      <rect x={x} y={y} width={w} height={h} {...line} strokeWidth={1.8} />
      <path
        className="moving"
        d={`M${returnX} ${waterY + 10} q14 8 30 10`}
        stroke="var(--water)"
        fill="none"
        strokeWidth={1.5}
      />
    </g>
  );
}

type Chamber = NonNullable<PartProps["sump"]>["chambers"][number];

/** Water height in each chamber, and its tone. */
const HELD: Record<Chamber, [number, string]> = {
  socks: [0.75, "var(--paper)"],
  foam: [0.9, "var(--silt-deep)"],
  media: [0.7, "var(--sand)"],
  heater: [0.8, "var(--seed)"],
  skimmer: [1.15, "var(--silt)"],
  return: [0.4, "var(--ink-soft)"],
};

interface ChambersProps extends Record<"x" | "y" | "w" | "h" | "level", number> {
  /** In the order the water meets them. Default: the usual ones. */
  order?: Chamber[];
}

/** The drain enters at the right, the return leaves at the left: chambers stand from right to left. */
function Chambers({
  x,
  y,
  w,
  h,
  level,
  order = ["socks", "foam", "media", "heater", "return"],
}: ChambersProps) {
  const each = w / Math.max(order.length, 1);
  const deep = y + h - level;
  return order.map((chamber, i) => {
    const [share, fill] = HELD[chamber];
    const at = x + w - (i + 1) * each;
    const inset = chamber === "heater" ? each * 0.42 : each * 0.2;
    return (
      <g key={`${chamber}${i}`}>
        {i > 0 && <path d={`M${at + each} ${y + h * 0.2} V${y + h - (i % 2 ? 0 : h * 0.12)}`} {...line} />}
        <rect
          x={at + inset}
          y={y + h - 3 - deep * share}
          width={each - 2 * inset}
          height={deep * share}
          fill={fill}
          stroke="var(--ink-soft)"
          strokeWidth={0.7}
        >
          <title>{chamber}</title>
        </rect>
      </g>
    );
  });
}
