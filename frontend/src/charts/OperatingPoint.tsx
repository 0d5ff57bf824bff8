/** Intersection of the pump's curve and the plumbing's, clean and dirty. */
import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import type { OperatingPoint as Answer, PlumbingHeads } from "../api/schemas";
import { ChartFrame } from "./frame";
import { bare, show, ticksOf, toHome, unitName } from "../quantity/format";

const W = 320;
const H = 206;
const PAD = { left: 30, right: 14, top: 20, bottom: 34 };
type Point = Answer["pump_curve"][number];

interface Props {
  answer: Answer;
  /** Ranges of the two flows, drawn through their points. Default: none. */
  heads?: PlumbingHeads | undefined;
}

export function OperatingPoint({ answer, heads }: Props) {
  const top = Math.max(...answer.pump_curve.map((p) => p.head_m), answer.head_m) * 1.12;
  const x = scaleLinear<number>({ domain: [0, answer.box_lph], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({ domain: [0, top], range: [H - PAD.bottom, PAD.top] });
  const at = (p: Point) => ({ x: x(p.flow_lph), y: y(p.head_m) });
  const headAt = (flow: number) => {
    const near = answer.pump_curve.findIndex((p) => p.flow_lph >= flow);
    const b = answer.pump_curve[Math.max(near, 1)];
    const a = answer.pump_curve[Math.max(near, 1) - 1];
    if (!a || !b) return answer.head_m;
    return a.head_m + ((b.head_m - a.head_m) * (flow - a.flow_lph)) / (b.flow_lph - a.flow_lph);
  };
  const budget = answer.head_budget.map((p) => `${p.part} ${show(p.head_m, "m", 2)}`).join(", ");
  const sentence =
    answer.status === "delivers"
      ? `Clean ${show(answer.delivered_lph, "L/h")} at ${show(answer.head_m, "m", 2)}; dirty ${bare(answer.dirty_lph, "L/h")}. The head goes to ${budget}.`
      : answer.verdict;
  return (
    <ChartFrame
      title="Where pump meets plumbing"
      sentence={sentence}
      quiet
      columns={["Part", `Head, ${unitName("m")}`]}
      rows={answer.head_budget.map((p) => [p.part, bare(p.head_m, "m", 3)])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        {ticksOf(top, "m", 4).map((t) => (
          <g key={t}>
            <path
              d={`M${PAD.left} ${y(toHome(t, "m"))} H${W - PAD.right}`}
              stroke="var(--line)"
              strokeWidth={0.7}
            />
            <text x={PAD.left - 6} y={y(toHome(t, "m")) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
        {ticksOf(answer.box_lph, "L/h", 4).map((t) => (
          <text key={t} x={x(toHome(t, "L/h"))} y={H - PAD.bottom + 17} textAnchor="middle" className="soft">
            {t}
          </text>
        ))}
        <text x={PAD.left - 26} y={12} className="soft">
          {unitName("m")} of head
        </text>
        <text x={W - PAD.right} y={H - 2} textAnchor="end" className="soft">
          {unitName("L/h")}
        </text>
        <LinePath
          data={answer.plumbing_dirty}
          x={(p) => at(p).x}
          y={(p) => at(p).y}
          stroke="var(--seed)"
          strokeWidth={2}
          strokeDasharray="4 4"
        />
        <LinePath
          data={answer.plumbing_clean}
          x={(p) => at(p).x}
          y={(p) => at(p).y}
          stroke="var(--seed)"
          strokeWidth={2}
        />
        <LinePath
          data={answer.pump_curve}
          x={(p) => at(p).x}
          y={(p) => at(p).y}
          stroke="var(--water)"
          strokeWidth={2.4}
        />
        {answer.status === "delivers" && heads && (
          <>
            <Range flow={heads.dirty} x={x} y={y(headAt(answer.dirty_lph))} />
            <Range flow={heads.clean} x={x} y={y(answer.head_m)} />
          </>
        )}
        {answer.status === "delivers" && (
          <>
            <circle
              cx={x(answer.dirty_lph)}
              cy={y(headAt(answer.dirty_lph))}
              r={4.5}
              fill="var(--paper)"
              stroke="var(--seed)"
              strokeWidth={2}
            />
            <circle cx={x(answer.delivered_lph)} cy={y(answer.head_m)} r={5} fill="var(--seed)" />
            <text x={x(answer.delivered_lph) + 9} y={y(answer.head_m) - 4} className="strong halo">
              {bare(answer.delivered_lph, "L/h")} clean
            </text>
            <text
              x={x(answer.dirty_lph) - 9}
              y={y(headAt(answer.dirty_lph)) - 5}
              textAnchor="end"
              className="halo"
            >
              {bare(answer.dirty_lph, "L/h")} dirty
            </text>
          </>
        )}
        <text
          x={x(answer.box_lph) - 2}
          y={y(top * 0.13)}
          textAnchor="end"
          className="halo"
          style={{ fill: "var(--water)" }}
        >
          pump
        </text>
      </svg>
    </ChartFrame>
  );
}

/** Range nine in ten such plumbings have, as a bar with two ends. */
function Range({ flow, x, y }: { flow: PlumbingHeads["clean"]; x: (lph: number) => number; y: number }) {
  const [low, high] = [x(flow.low_lph), Math.min(x(flow.high_lph), W - 4)];
  return (
    <>
      <rect x={low} y={y - 5} width={Math.max(high - low, 1)} height={10} fill="var(--seed)" opacity={0.18} />
      <path
        d={`M${low} ${y - 5} v10 M${low} ${y} H${high} M${high} ${y - 5} v10`}
        stroke="var(--seed)"
        strokeWidth={1.4}
        fill="none"
      />
    </>
  );
}
