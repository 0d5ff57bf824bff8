/** A filter's flow over time: tests, cleanings, the cleaning limit, and the fitted fade. */
import { scaleLinear, scaleTime } from "@visx/scale";
import { LinePath } from "@visx/shape";
import type { KeepView } from "../api/schemas";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";
import { bare, show, ticksOf, toHome, unitName } from "../quantity/format";
import { LOCALE } from "../quantity/locale";

const H = 150;
const PAD = { left: 44, right: 14, top: 22, bottom: 26 };
const DAY_MS = 86_400_000;

type Kept = KeepView["filters"][number];

/** The fitted fade since the last cleaning, in the keeper's unit. */
function courseOf({ fade, since }: Kept): { at: number; lph: number }[] {
  if (!fade || !since) return [];
  const start = new Date(since).getTime();
  return fade.course.map((p) => ({ at: start + p.day * DAY_MS, lph: toHome(p.flow_lph, "L/h") }));
}

export function FlowHistory({ filter, many }: { filter: Kept; many: boolean }) {
  const [first] = filter.flows;
  const last = filter.flows.at(-1);
  if (!first || !last || filter.flows.length < 2) return null;
  return <Drawn filter={filter} many={many} first={first} last={last} />;
}

type Seen = Kept["flows"][number];

function Drawn({ filter, many, first, last }: { filter: Kept; many: boolean; first: Seen; last: Seen }) {
  const W = usePhone() ? 372 : 640;
  const { flows, fade, cleanings } = filter;
  const course = courseOf(filter);
  const most = Math.max(...flows.map((f) => f.flow_lph), fade?.clean_lph ?? 0) * 1.08;
  const end = Math.max(new Date(last.at).getTime(), course.at(-1)?.at ?? 0);
  const x = scaleTime<number>({
    domain: [new Date(first.at), new Date(end)],
    range: [PAD.left, W - PAD.right],
  });
  const y = scaleLinear<number>({ domain: [0, toHome(most, "L/h")], range: [H - PAD.bottom, PAD.top] });
  const limit = fade ? y(toHome(fade.limit_lph, "L/h")) : null;
  const sentence = `${flows.length} flow tests, from ${show(first.flow_lph, "L/h")} to ${show(last.flow_lph, "L/h")}.${fade ? ` ${fade.verdict}` : ""}`;
  return (
    <ChartFrame
      title={many ? `Flow of ${filter.name}` : "Flow over time"}
      sentence={sentence}
      columns={["Day", unitName("L/h")]}
      rows={flows.map((f) => [new Date(f.at).toLocaleDateString(LOCALE), bare(f.flow_lph, "L/h")])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        <text x={PAD.left - 6} y={13} textAnchor="end" className="soft">
          {unitName("L/h")}
        </text>
        {ticksOf(most, "L/h", 3).map((t) => (
          <g key={t}>
            <path d={`M${PAD.left} ${y(t)} H${W - PAD.right}`} stroke="var(--line)" strokeWidth={0.8} />
            <text x={PAD.left - 6} y={y(t) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
        {x.ticks(W > 400 ? 5 : 3).map((t) => (
          <text key={t.getTime()} x={x(t)} y={H - 8} textAnchor="middle" className="soft">
            {t.toLocaleDateString(LOCALE, { day: "numeric", month: "short" })}
          </text>
        ))}
        {cleanings
          .filter((at) => new Date(at) >= new Date(first.at))
          .map((at) => (
            <path
              key={at}
              d={`M${x(new Date(at))} ${PAD.top} V${H - PAD.bottom}`}
              stroke="var(--reed)"
              strokeWidth={1.4}
              strokeDasharray="3 3"
            />
          ))}
        {limit !== null && (
          <>
            <path d={`M${PAD.left} ${limit} H${W - PAD.right}`} stroke="var(--seed)" strokeWidth={1.4} />
            <text x={PAD.left + 6} y={limit - 5} className="halo">
              clean it here
            </text>
          </>
        )}
        <LinePath
          data={course}
          x={(p) => x(new Date(p.at))}
          y={(p) => y(p.lph)}
          stroke="var(--water)"
          strokeWidth={1.6}
          strokeDasharray="5 4"
        />
        {flows.map((f) => (
          <circle
            key={f.at}
            cx={x(new Date(f.at))}
            cy={y(toHome(f.flow_lph, "L/h"))}
            r={4}
            fill="var(--water)"
          />
        ))}
      </svg>
    </ChartFrame>
  );
}
