/** The canister: a sealed body under the tank, hoses over the rim. */
import { beneathLabels, Hose, line, middleOf, stand, type KindDrawing, type PartProps } from "../parts";

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

const drawing: KindDrawing = {
  Part: Canister,
  anchors: ({ left, tankWidth, tankHeight, waterY, rimY, floorY, scale, standHeight }, filter) => ({
    outlet: [left + tankWidth * 0.14, waterY + 6],
    hose: [
      left + tankWidth * 0.3,
      Math.max(
        floorY - 8 - Math.min(filter.height_cm * scale, standHeight - 6) - 22,
        rimY + tankHeight + 16,
      ) - 5,
    ],
    body: [left + tankWidth * 0.72, floorY - 4 - filter.height_cm * scale * 0.45],
  }),
  labels: beneathLabels,
  handles: ({ sheet, plan, footMostCm }) => [
    {
      name: "canister",
      label: "Foot of the canister, centimetres above the floor",
      words: "above the floor",
      value: plan.surroundings.canister_at_cm,
      least: 0,
      most: footMostCm,
      x: sheet.left + sheet.tankWidth * 0.72,
      y: sheet.floorY - 8 - sheet.canisterFoot,
      along: "y",
      perPixel: -1 / sheet.scale,
    },
  ],
};

export default drawing;
