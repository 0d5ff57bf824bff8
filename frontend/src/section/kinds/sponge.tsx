/** The sponge: foam round a lift tube. */
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

function Sponge({ sheet, filter, place, bare, bodyXCm }: PartProps) {
  const { left, bottomY, substrate, scale, sideLeft, sideWidth } = sheet;
  const w = filter.width_cm * scale;
  const h = filter.height_cm * scale;
  const x = left + inside(middleOf(bodyXCm, sheet, stand(0.92, 0.74, place)), w, sheet) - w / 2;
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
      {!bare && <AirLine sheet={sheet} from={[cx + 3, foot - h * 0.6]} />}
    </g>
  );
}

const drawing: KindDrawing = {
  Part: Sponge,
  anchors: standingAnchors,
  labels: insideLabels,
};

export default drawing;
