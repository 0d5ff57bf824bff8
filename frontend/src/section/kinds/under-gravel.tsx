/** The under-gravel plate with its risers. */
import { AirLine, insideLabels, line, standingAnchors, type KindDrawing, type PartProps } from "../parts";

function UnderGravel({ sheet, filter, bare }: PartProps) {
  const { left, tankWidth, waterY, bottomY, scale, glass } = sheet;
  const w = Math.min(filter.width_cm * scale, tankWidth - 2 * glass - 6);
  const x = left + (tankWidth - w) / 2;
  const risers = [x + w * 0.06, x + w * 0.94];
  return (
    <g>
      <path d={`M${x} ${bottomY - 5} H${x + w}`} stroke="var(--ink)" strokeWidth={3} strokeDasharray="7 4" />
      {risers.map((r) => (
        <g key={r}>
          <rect
            x={r - 4}
            y={waterY + 2 * scale}
            width={8}
            height={bottomY - 5 - waterY - 2 * scale}
            {...line}
            fill="var(--field)"
          />
          {[0.2, 0.5].map((f) => (
            <circle
              key={f}
              className="moving"
              cx={r + 2}
              cy={waterY + 2 * scale - 6 - f * 10}
              r={2}
              {...line}
            />
          ))}
        </g>
      ))}
      {filter.air_l_min != null && !bare && <AirLine sheet={sheet} from={[risers[1] ?? x, bottomY - 12]} />}
    </g>
  );
}

const drawing: KindDrawing = {
  Part: UnderGravel,
  anchors: standingAnchors,
  labels: insideLabels,
};

export default drawing;
