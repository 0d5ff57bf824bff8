/** Length of a brood over the days ahead, with when they leave and when their tank is too small. */
import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import type { components } from "../api/types";
import { bare, digits, show, ticksOf, toHome, unitName } from "../quantity/format";
import { ChartFrame } from "./frame";

const W = 372;
const H = 150;
const PAD = { left: 34, right: 14, top: 22, bottom: 26 };
/** How far the curve goes past the day they leave, as a multiple. */
const BEYOND = 1.15;
type Answer = components["schemas"]["BroodAnswer"];

interface Props {
  answer: Answer;
  /** The day from now on which their tank is too small, where that comes before they leave. */
  smallInDays: number | null;
}

export function BroodCurve({ answer, smallInDays }: Props) {
  const last = Math.max(answer.sale_in_days * BEYOND, 7);
  const points = answer.course.filter((p) => p.day <= last);
  const top = Math.max(answer.sale_cm, ...points.map((p) => p.length_cm)) * 1.1;
  const x = scaleLinear<number>({ domain: [0, last], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({ domain: [0, top], range: [H - PAD.bottom, PAD.top] });
  const leave = `leave at ${show(answer.sale_cm, "cm", 1)}`;
  return (
    <ChartFrame
      title="Length"
      sentence={answer.verdict}
      quiet
      columns={["Day", `Length, ${unitName("cm")}`, "mg N a day"]}
      rows={points.map((p) => [p.day.toFixed(0), bare(p.length_cm, "cm", 1), digits(p.load_mg_n_day, 2)])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={answer.verdict}>
        <text x={PAD.left - 6} y={13} textAnchor="end" className="soft">
          {unitName("cm")}
        </text>
        {ticksOf(top, "cm", 3).map((t) => (
          <g key={t}>
            <path
              d={`M${PAD.left} ${y(toHome(t, "cm"))} H${W - PAD.right}`}
              stroke="var(--line)"
              strokeWidth={0.8}
            />
            <text x={PAD.left - 6} y={y(toHome(t, "cm")) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
        {x.ticks(4).map((t) => (
          <text key={t} x={x(t)} y={H - 8} textAnchor="middle" className="soft">
            {t === 0 ? "today" : `${t} d`}
          </text>
        ))}
        <Day at={x(answer.sale_in_days)} words={leave} tone="var(--reed)" />
        {smallInDays !== null && (
          <Day at={x(Math.max(smallInDays, 0))} words="tank too small" tone="var(--alarm)" low />
        )}
        <LinePath
          data={points}
          x={(p) => x(p.day)}
          y={(p) => y(p.length_cm)}
          stroke="var(--water)"
          strokeWidth={2.2}
        />
      </svg>
    </ChartFrame>
  );
}

interface DayProps {
  at: number;
  words: string;
  tone: string;
  /** A line of text lower, clear of the other day's. */
  low?: boolean;
}

/** A day of the curve, as a line with its words on the side that has room. */
function Day({ at, words, tone, low = false }: DayProps) {
  const end = at > W / 2;
  return (
    <>
      <path
        d={`M${at} ${low ? 24 : 14} V${H - PAD.bottom}`}
        stroke={tone}
        strokeWidth={1.4}
        strokeDasharray="4 4"
      />
      <text x={at + (end ? -5 : 5)} y={low ? 34 : 15} textAnchor={end ? "end" : "start"} className="halo">
        {words}
      </text>
    </>
  );
}
