/** Nitrate between water changes, against its limit. */
import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import type { components } from "../api/types";
import { useTables } from "../api/tables";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";

const H = 150;
const PAD = { left: 44, right: 14, top: 22, bottom: 26 };

export function NitrateSaw({ answer }: { answer: components["schemas"]["NitrateRhythmAnswer"] }) {
  const W = usePhone() ? 372 : 640;
  const share = useTables().data?.nitrogen_share.nitrate;
  if (share === undefined) return null;
  // Kits read the ion; the core uses nitrogen.
  const points = answer.course.map((p) => ({ day: p.day, ppm: p.nitrate_mg_n_l / share }));
  const target = answer.target_mg_n_l / share;
  const most = Math.max(target, ...points.map((p) => p.ppm)) * 1.12;
  const last = points.at(-1)?.day ?? 1;
  const x = scaleLinear<number>({ domain: [0, last], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({ domain: [0, most], range: [H - PAD.bottom, PAD.top] });
  return (
    <ChartFrame
      title="Nitrate between changes"
      sentence={answer.verdict}
      columns={["Day", "Nitrate, ppm"]}
      rows={points.map((p) => [p.day.toFixed(0), p.ppm.toFixed(0)])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={answer.verdict}>
        <text x={PAD.left - 6} y={13} textAnchor="end" className="soft">
          ppm
        </text>
        {y.ticks(3).map((t) => (
          <g key={t}>
            <path d={`M${PAD.left} ${y(t)} H${W - PAD.right}`} stroke="var(--line)" strokeWidth={0.8} />
            <text x={PAD.left - 6} y={y(t) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
        {x.ticks(6).map((t) => (
          <text key={t} x={x(t)} y={H - 8} textAnchor="middle" className="soft">
            {t === 0 ? "today" : `${t} d`}
          </text>
        ))}
        <path d={`M${PAD.left} ${y(target)} H${W - PAD.right}`} stroke="var(--seed)" strokeWidth={1.4} />
        <text x={W - PAD.right - 4} y={y(target) - 5} textAnchor="end" className="halo">
          not over {target.toFixed(0)} ppm
        </text>
        <LinePath
          data={points}
          x={(p) => x(p.day)}
          y={(p) => y(p.ppm)}
          stroke="var(--water)"
          strokeWidth={2.2}
        />
      </svg>
    </ChartFrame>
  );
}
