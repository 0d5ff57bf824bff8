/** The hang-on: a box on the rim that spills back. */
import { line, middleOf, stand, type KindDrawing, type PartProps } from "../parts";

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

const drawing: KindDrawing = {
  Part: HangOn,
  anchors: ({ left, tankWidth, waterY, rimY, scale }, filter) => {
    const x = left + tankWidth * 0.72 - (filter.width_cm * scale) / 2;
    return {
      outlet: [x + 6, waterY - 2],
      hose: [x, waterY + 40],
      body: [x + filter.width_cm * scale * 0.5, rimY - 2],
    };
  },
  labels: ({ left, tankWidth, floorY, standHeight }, spots) => ({
    outlet: [left + tankWidth * 0.2, spots.outlet[1] + 34],
    hose: [left + tankWidth * 0.2, spots.hose[1] + 30],
    body: [left + tankWidth * 0.2, floorY - standHeight * 0.5],
  }),
};

export default drawing;
