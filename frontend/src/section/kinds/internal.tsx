/** The internal: a small pump with its media inside the tank. */
import {
  highAnchors,
  inside,
  insideLabels,
  line,
  middleOf,
  stand,
  type KindDrawing,
  type PartProps,
} from "../parts";

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

const drawing: KindDrawing = {
  Part: Internal,
  anchors: highAnchors,
  labels: insideLabels,
};

export default drawing;
