/** The room, the stand, and the tank itself. */
import { ripple, type Sheet } from "./geometry";

export function Room({ sheet }: { sheet: Sheet }) {
  const {
    left,
    tankWidth,
    floorY,
    standHeight,
    sideLeft,
    sideWidth,
    wallX,
    rimY,
    tankHeight,
    width,
    height,
  } = sheet;
  const top = rimY + tankHeight;
  const shelf = (x: number, w: number) => (
    <g fill="var(--wood)" stroke="var(--wood-line)" strokeWidth={1}>
      <rect x={x - 5} y={top} width={w + 10} height={Math.min(9, standHeight)} />
      {standHeight > 24 && (
        <>
          <rect x={x} y={top + 9} width={13} height={standHeight - 9} data-edge="" />
          <rect x={x + w - 13} y={top + 9} width={13} height={standHeight - 9} data-edge="" />
          <rect x={x + 13} y={floorY - 8} width={w - 26} height={5} />
        </>
      )}
    </g>
  );
  return (
    <g>
      <rect x={6} y={6} width={width - 12} height={height - 12} fill="var(--silt)" />
      <rect
        x={wallX}
        y={18}
        width={9}
        height={floorY - 18}
        fill="url(#hatch)"
        stroke="var(--ink-soft)"
        strokeWidth={0.6}
      />
      <defs>
        <pattern id="hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0V6" stroke="var(--ink-soft)" strokeWidth="1.4" />
        </pattern>
        <pattern id="grains" width="7" height="5" patternUnits="userSpaceOnUse">
          <rect width="7" height="5" fill="var(--sand)" />
          <circle cx="2" cy="1.5" r=".8" fill="var(--wood-line)" />
          <circle cx="5.4" cy="3.8" r=".7" fill="var(--wood-line)" />
        </pattern>
      </defs>
      <path d={`M12 ${floorY} H${width - 12}`} stroke="var(--ink)" strokeWidth={1.6} />
      {shelf(left, tankWidth)}
      {shelf(sideLeft, sideWidth)}
    </g>
  );
}

interface EdgesProps {
  x: number;
  width: number;
  top: number;
  bottom: number;
  bed: number;
}

/** Lines that labels keep off where they can: glass, bed and foot of a view. */
function Edges({ x, width, top, bottom, bed }: EdgesProps) {
  return [
    `M${x} ${top} V${bottom}`,
    `M${x + width} ${top} V${bottom}`,
    `M${x} ${bed} H${x + width}`,
    `M${x} ${bottom} H${x + width}`,
  ].map((d) => <path key={d} d={d} fill="none" data-edge="" />);
}

interface GlasswareProps {
  sheet: Sheet;
  stones: boolean;
  plants: boolean;
}

export function Glassware({ sheet, stones, plants }: GlasswareProps) {
  const { left, tankWidth, rimY, bottomY, glass, waterY, substrate, sideLeft, sideWidth, tankHeight, scale } =
    sheet;
  const bed = bottomY - substrate;
  const inside = (x: number, w: number) => {
    const x0 = x + glass;
    const x1 = x + w - glass;
    return (
      <g>
        <rect x={x0} y={waterY} width={x1 - x0} height={bottomY - waterY} fill="var(--water-fill)" />
        <rect
          x={x0}
          y={waterY + (bottomY - waterY) * 0.55}
          width={x1 - x0}
          height={(bottomY - waterY) * 0.45}
          fill="var(--water-deep)"
          opacity={0.35}
        />
        {substrate > 0 && (
          <path
            d={`${ripple(x0, x1, bed, Math.min(substrate * 0.15, 3))} V${bottomY} H${x0} Z`}
            fill="url(#grains)"
          />
        )}
        <path d={`M${x0} ${waterY} H${x1}`} stroke="var(--water)" strokeWidth={1.8} />
        <rect
          x={x}
          y={rimY}
          width={w}
          height={tankHeight}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={Math.max(glass, 1.8)}
        />
        <Edges x={x} width={w} top={rimY} bottom={rimY + tankHeight} bed={bed} />
      </g>
    );
  };
  const blades = !plants ? [] : [0.19, 0.22, 0.26, 0.84, 0.87];
  return (
    <g>
      {inside(left, tankWidth)}
      {inside(sideLeft, sideWidth)}
      {stones && (
        <g fill="var(--stone)" stroke="var(--ink-soft)">
          <path
            d={`M${left + tankWidth * 0.5} ${bed + 1} q${6 * scale * 0.4} ${-9 * scale} ${8 * scale} ${-10 * scale} q${7 * scale} ${scale} ${9 * scale} ${10 * scale} z`}
          />
          <path
            d={`M${left + tankWidth * 0.44} ${bed + 1} q${2 * scale} ${-5 * scale} ${5 * scale} ${-5 * scale} q${4 * scale} 0 ${5 * scale} ${5 * scale} z`}
          />
        </g>
      )}
      <g stroke="var(--reed)" strokeWidth={2.6} fill="none" strokeLinecap="round" opacity={0.8}>
        {blades.map((f, i) => (
          <path
            key={f}
            d={`M${left + tankWidth * f} ${bed + 1} q${i % 2 ? 6 : -5} ${-(bottomY - waterY) * 0.2} ${i % 2 ? -2 : 3} ${-(bottomY - waterY) * (0.32 + 0.09 * i)}`}
          />
        ))}
      </g>
    </g>
  );
}
