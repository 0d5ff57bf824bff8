/** Filters driven by air, to scale: sponge, sheet, box and plate. */
import type { Sheet } from "./geometry";
import { inside, line, middleOf, stand, type PartProps } from "./parts";

export function Sponge({ sheet, filter, place, bare, bodyXCm }: PartProps) {
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

/** The air line of an air-driven filter: over the rim, check valve, pump. */
export function SheetWall({ sheet, filter, bare }: PartProps) {
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

export function Box({ sheet, filter, place, bare, bodyXCm }: PartProps) {
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

export function UnderGravel({ sheet, filter, bare }: PartProps) {
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

function AirLine({ sheet, from }: { sheet: Sheet; from: [number, number] }) {
  const { left, tankWidth, rimY, waterY } = sheet;
  const edge = left + tankWidth;
  return (
    <g>
      <path
        d={`M${from[0]} ${from[1]} C${from[0] + 10} ${waterY} ${edge - 14} ${rimY - 12} ${edge + 8} ${rimY - 8} V${rimY + 40}`}
        stroke="var(--ink)"
        strokeWidth={1.6}
        fill="none"
      />
      <rect x={edge + 2} y={rimY + 40} width={18} height={12} rx={3} {...line} fill="var(--field)" />
      <path d={`M${edge + 4} ${rimY + 18} h8 l-4 7 z`} fill="var(--ink)" />
    </g>
  );
}
