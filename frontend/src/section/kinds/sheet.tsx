/** The sheet: a wall of foam across the tank. */
import { AirLine, highAnchors, insideLabels, line, type KindDrawing, type PartProps } from "../parts";

function SheetWall({ sheet, filter, bare }: PartProps) {
  const { left, tankWidth, waterY, bottomY, scale, substrate, glass } = sheet;
  const thick = Math.max(filter.foam_depth_cm * scale, 6);
  const x = left + tankWidth - glass - 8 * scale - thick;
  const foot = bottomY - substrate * 0.2;
  return (
    <g>
      <rect x={x} y={waterY - 3} width={thick} height={foot - waterY} {...line} fill="var(--sand)" />
      <path
        d={`M${x + thick / 2} ${waterY + 8} V${foot - 6}`}
        stroke="var(--wood-line)"
        strokeDasharray="3 4"
        strokeWidth={1.2}
      />
      <path
        d={`M${x + thick + 3 * scale} ${foot - 8} V${waterY + 12} H${x - 10}`}
        {...line}
        strokeWidth={5}
      />
      <path
        d={`M${x + thick + 3 * scale} ${foot - 8} V${waterY + 12} H${x - 10}`}
        stroke="var(--field)"
        strokeWidth={3}
        fill="none"
      />
      <path
        className="moving"
        d={`M${x - 12} ${waterY + 12} q-14 2 -26 14`}
        stroke="var(--water)"
        strokeWidth={1.5}
        fill="none"
      />
      {filter.air_l_min != null && !bare && (
        <AirLine sheet={sheet} from={[x + thick + 3 * scale, foot - 12]} />
      )}
    </g>
  );
}

const drawing: KindDrawing = {
  Part: SheetWall,
  anchors: highAnchors,
  labels: insideLabels,
};

export default drawing;
