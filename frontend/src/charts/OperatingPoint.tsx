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
        <Axes top={top} most={answer.box_lph} x={x} y={y} />
        <Curve data={answer.plumbing_dirty} x={x} y={y} stroke="var(--seed)" dash="4 4" />
        <Curve data={answer.plumbing_clean} x={x} y={y} stroke="var(--seed)" />
        <Curve data={answer.pump_curve} x={x} y={y} stroke="var(--water)" width={2.4} />
        {answer.status === "delivers" && <Crossings answer={answer} heads={heads} x={x} y={y} />}
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

type Scale = ReturnType<typeof scaleLinear<number>>;
interface Scales {
  x: Scale;
  y: Scale;
}

function Axes({ top, most, x, y }: Scales & { top: number; most: number }) {
  return (
    <>
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
      {ticksOf(most, "L/h", 4).map((t) => (
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
    </>
  );
}

interface CurveProps extends Scales {
  data: Point[];
  stroke: string;
  width?: number;
  dash?: string;
}

function Curve({ data, x, y, stroke, width = 2, dash }: CurveProps) {
  return (
    <LinePath
      data={data}
      x={(p) => x(p.flow_lph)}
      y={(p) => y(p.head_m)}
      stroke={stroke}
      strokeWidth={width}
      strokeDasharray={dash}
    />
  );
}

/** Head of the pump at a flow, between the points of its curve. */
function headAt({ pump_curve, head_m }: Answer, flow: number): number {
  const near = Math.max(
    pump_curve.findIndex((p) => p.flow_lph >= flow),
    1,
  );
  const [a, b] = [pump_curve[near - 1], pump_curve[near]];
  if (!a || !b) return head_m;
  return a.head_m + ((b.head_m - a.head_m) * (flow - a.flow_lph)) / (b.flow_lph - a.flow_lph);
}

/** Where the curves meet, clean and dirty, with the range of each. */
function Crossings({ answer, heads, x, y }: Scales & Props) {
  const dirty = { x: x(answer.dirty_lph), y: y(headAt(answer, answer.dirty_lph)) };
  const clean = { x: x(answer.delivered_lph), y: y(answer.head_m) };
  return (
    <>
      {heads && (
        <>
          <Range flow={heads.dirty} x={x} y={dirty.y} />
          <Range flow={heads.clean} x={x} y={clean.y} />
        </>
      )}
      <circle cx={dirty.x} cy={dirty.y} r={4.5} fill="var(--paper)" stroke="var(--seed)" strokeWidth={2} />
      <circle cx={clean.x} cy={clean.y} r={5} fill="var(--seed)" />
      <text x={clean.x + 9} y={clean.y - 4} className="strong halo">
        {bare(answer.delivered_lph, "L/h")} clean
      </text>
      <text x={dirty.x - 9} y={dirty.y - 5} textAnchor="end" className="halo">
        {bare(answer.dirty_lph, "L/h")} dirty
      </text>
    </>
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
