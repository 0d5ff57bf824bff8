/** Flow between two cleanings, and the usual cleaning point. */
import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import type { OperatingPoint } from "../api/schemas";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";
import { bare, show, ticksOf, toHome, unitName } from "../quantity/format";

const H = 130;
const PAD = { left: 44, right: 12, top: 22, bottom: 26 };

export function Interval({ answer, serviceDay }: { answer: OperatingPoint; serviceDay: number }) {
  const W = usePhone() ? 372 : 640;
  const points = answer.interval;
  const last = points.at(-1);
  const clean = points[0]?.flow_lph ?? 0;
  if (!last || clean <= 0) return null;
  const x = scaleLinear<number>({ domain: [0, last.day], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({ domain: [0, clean * 1.08], range: [H - PAD.bottom, PAD.top] });
  const sentence = `From ${show(clean, "L/h")} clean it falls to ${bare(answer.dirty_lph, "L/h")} by day ${(last.day / 2).toFixed(0)}; here it is cleaned about every ${serviceDay.toFixed(0)} days.`;
  return (
    <ChartFrame
      title="Flow between cleanings"
      sentence={sentence}
      columns={["Day", unitName("L/h")]}
      rows={points.map((p) => [p.day.toFixed(0), bare(p.flow_lph, "L/h")])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        <text x={PAD.left - 6} y={13} textAnchor="end" className="soft">
          {unitName("L/h")}
        </text>
        {ticksOf(clean * 1.08, "L/h", 3).map((t) => (
          <g key={t}>
            <path
              d={`M${PAD.left} ${y(toHome(t, "L/h"))} H${W - PAD.right}`}
              stroke="var(--line)"
              strokeWidth={0.8}
            />
            <text x={PAD.left - 6} y={y(toHome(t, "L/h")) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
        {x.ticks(6).map((t) => (
          <text key={t} x={x(t)} y={H - 8} textAnchor="middle" className="soft">
            {t === 0 ? "day 0" : t}
          </text>
        ))}
        <LinePath
          data={points}
          x={(p) => x(p.day)}
          y={(p) => y(p.flow_lph)}
          stroke="var(--water)"
          strokeWidth={2.2}
        />
        {serviceDay <= last.day && (
          <>
            <path
              d={`M${x(serviceDay)} ${PAD.top} V${H - PAD.bottom}`}
              stroke="var(--seed)"
              strokeWidth={1.6}
              strokeDasharray="4 3"
            />
            <text x={x(serviceDay) + 5} y={H - PAD.bottom - 6} className="halo">
              clean
            </text>
          </>
        )}
      </svg>
    </ChartFrame>
  );
}
