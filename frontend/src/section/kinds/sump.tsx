/** The sump: a second tank below, fed by an overflow. */
import { beneathLabels, Hose, line, type KindDrawing, type PartProps } from "../parts";

function Sump({ sheet, filter, bare, sump }: PartProps) {
  const { left, tankWidth, rimY, waterY, floorY, scale, tankHeight, standHeight } = sheet;
  const w = Math.min((sump?.length_cm ?? filter.width_cm) * scale, tankWidth - 30);
  const h = Math.min((sump?.height_cm ?? filter.height_cm) * scale, standHeight - 14);
  const x = left + (tankWidth - w) / 2;
  const y = floorY - 8 - h;
  const level = sump ? y + h * (1 - Math.min(sump.level_cm / sump.height_cm, 0.96)) : y + h * 0.42;
  const drainX = left + tankWidth - 18;
  const returnX = left + 14;
  const drains = sump?.drains ?? [{ emergency: false }];
  const apart = 13;
  const under = rimY + tankHeight;
  return (
    <g>
      <rect
        x={drainX - 9 - apart * (drains.length - 1)}
        y={waterY - 2}
        width={18 + apart * (drains.length - 1)}
        height={tankHeight * 0.5}
        {...line}
        fill="var(--silt)"
      />
      {!bare && (
        <>
          {drains.map((drain, i) => {
            // The dry one stands a finger above the others.
            const mouth = waterY + (drain.emergency ? 8 : 20);
            const at = drainX - i * apart;
            const path = `M${at} ${mouth} V${under + 14 - i * 6} H${x + w - 14 - i * apart} V${level - 6}`;
            return drain.emergency ? (
              <path key={i} d={path} {...line} fill="none" strokeDasharray="5 4">
                <title>emergency drain, dry</title>
              </path>
            ) : (
              <Hose key={i} out={false} d={path} />
            );
          })}
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

const drawing: KindDrawing = {
  Part: Sump,
  anchors: ({ left, tankWidth, waterY, rimY, floorY }) => ({
    outlet: [left + 16, waterY + 8],
    hose: [left - 12, rimY + 30],
    body: [left + tankWidth * 0.5, floorY - 30],
  }),
  labels: beneathLabels,
};

export default drawing;
