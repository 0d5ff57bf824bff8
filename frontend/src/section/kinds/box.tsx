/** The box: a plastic box of floss, lifted by air. */
import {
  AirLine,
  inside,
  insideLabels,
  line,
  middleOf,
  stand,
  standingAnchors,
  type KindDrawing,
  type PartProps,
} from "../parts";

function Box({ sheet, filter, place, bare, bodyXCm }: PartProps) {
  const { left, bottomY, substrate, scale } = sheet;
  const w = filter.width_cm * scale;
  const h = filter.height_cm * scale;
  const x = left + inside(middleOf(bodyXCm, sheet, stand(0.92, 0.74, place)), w, sheet) - w / 2;
  const foot = bottomY - substrate;
  return (
    <g>
      <rect x={x} y={foot - h} width={w} height={h} rx={2} {...line} fill="var(--field)" opacity={0.75} />
      <rect x={x + 2} y={foot - h * 0.85} width={w - 4} height={h * 0.4} fill="var(--silt-deep)" />
      <rect x={x + 2} y={foot - h * 0.45} width={w - 4} height={h * 0.42} fill="var(--stone)" />
      <rect x={x + w * 0.42} y={foot - h * 1.12} width={w * 0.16} height={h} {...line} fill="var(--field)" />
      {[0.2, 0.5, 0.8].map((f) => (
        <circle
          key={f}
          className="moving"
          cx={x + w / 2 + f * 6 - 3}
          cy={foot - h * 1.15 - f * 16}
          r={2}
          {...line}
        />
      ))}
      {!bare && <AirLine sheet={sheet} from={[x + w * 0.5, foot - h * 0.7]} />}
    </g>
  );
}

const drawing: KindDrawing = {
  Part: Box,
  anchors: standingAnchors,
  labels: insideLabels,
};

export default drawing;
