/** Shared by all charts over the days of a cycle: margins, grid, days and today. */
import type { scaleLinear } from "@visx/scale";

export type Scale = ReturnType<typeof scaleLinear<number>>;

export const H = 250;
export const PAD = { left: 30, right: 10, top: 30, bottom: 58 };

/** unit: of the figures at the lines. */
export function Lines({ y, width, unit }: { y: Scale; width: number; unit: string }) {
  return (
    <>
      <text x={PAD.left - 6} y={13} textAnchor="end" className="soft">
        {unit}
      </text>
      {y.ticks(5).map((t) => (
        <g key={t}>
          <path d={`M${PAD.left} ${y(t)} H${width - PAD.right}`} stroke="var(--line)" strokeWidth={0.8} />
          <text x={PAD.left - 6} y={y(t) + 5} textAnchor="end" className="soft">
            {t}
          </text>
        </g>
      ))}
    </>
  );
}

export function DayMarks({ x, today, ticks }: { x: Scale; today: number; ticks: number }) {
  return (
    <>
      <path d={`M${x(today)} ${PAD.top - 6} V${H - PAD.bottom}`} stroke="var(--ink)" strokeWidth={1.4} />
      <text x={x(today) - 5} y={PAD.top - 12} textAnchor="end" className="halo">
        today
      </text>
      {x.ticks(ticks).map((t) => (
        <text key={t} x={x(t)} y={H - PAD.bottom + 17} textAnchor="middle" className="soft">
          {t === 0 ? "day 0" : t}
        </text>
      ))}
    </>
  );
}
