/** The sizing rules on one axis, with this candidate marked. */
import { scaleLinear } from "@visx/scale";
import type { Candidate, FlowRequirement } from "../api/schemas";
import { Term } from "../kit";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";
import { bare, fixed, show, unitName } from "../quantity/format";

interface Props {
  requirement: FlowRequirement;
  netL: number;
  candidate?: Pick<Candidate, "name" | "box_lph" | "delivered_lph" | "dirty_lph" | "media_kg"> | null;
}

/** Rules without a flow or a mass, which have no place on the scale. */
const WORDED: string[] = ["label", "count"];

export function SizingRules({ requirement, netL, candidate }: Props) {
  const small = usePhone();
  const W = small ? 372 : 640;
  const NAME = small ? 132 : 150;
  const rows = requirement.sizing_rules.filter((s) => !WORDED.includes(s.rule));
  const worded = requirement.sizing_rules.filter((s) => WORDED.includes(s.rule));
  const times = (lph: number) => lph / netL;
  const most = Math.max(
    ...rows.flatMap((s) => [s.high_lph ?? 0, s.low_lph ?? 0].map(times)),
    candidate ? times(candidate.box_lph) : 0,
    6,
  );
  const x = scaleLinear<number>({ domain: [0, Math.ceil(most * 1.12)], range: [NAME, W - 12] });
  const rowHeight = 31;
  const top = 24;
  const height = top + rows.length * rowHeight + 6;
  const ticks = x.ticks(small ? 4 : 8);
  const sentence = candidate
    ? `${candidate.name} delivers ${fixed(times(candidate.delivered_lph), 1)} times the tank an hour when clean and ${fixed(times(candidate.dirty_lph), 1)} in service; the box promises ${fixed(times(candidate.box_lph), 1)}.`
    : requirement.verdict;
  return (
    <ChartFrame
      title="What each sizing rule asks, and where this lands"
      word={<Term of="turnover">what turnover is</Term>}
      sentence={sentence}
      quiet={Boolean(candidate)}
      columns={["Rule", "Asks", unitName("L/h")]}
      rows={requirement.sizing_rules.map((s) => [
        s.title + (s.followed ? " (followed)" : ""),
        s.asks,
        span(s.low_lph, s.high_lph),
      ])}
    >
      <svg viewBox={`0 0 ${W} ${height}`} role="img" aria-label={sentence}>
        <text x={0} y={13} className="soft">
          {small ? "times an hour" : "tank volumes an hour"}
        </text>
        {ticks.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} ${top - 4} V${height - 6}`} stroke="var(--line)" />
            <text x={x(t)} y={13} textAnchor="middle" className="soft">
              {t}
            </text>
          </g>
        ))}
        {rows.map((rule, i) => (
          <Row
            key={rule.rule}
            rule={rule}
            x={x}
            y={top + i * rowHeight}
            times={times}
            candidate={candidate ?? null}
          />
        ))}
      </svg>
      <p>
        {worded.map((s) => (
          <span key={s.rule}>
            <b>{s.title}:</b> {s.asks}.{" "}
          </span>
        ))}
      </p>
    </ChartFrame>
  );
}

type Scale = ReturnType<typeof scaleLinear<number>>;
type Rule = FlowRequirement["sizing_rules"][number];
type Marked = NonNullable<Props["candidate"]>;

interface RowProps {
  x: Scale;
  /** Top of the row. */
  y: number;
}

interface RuleRowProps extends RowProps {
  rule: Rule;
  times: (lph: number) => number;
  candidate: Marked | null;
}

function Row({ rule, x, y, times, candidate }: RuleRowProps) {
  return (
    <g>
      <text x={0} y={y + 20} className={rule.followed ? "strong" : ""}>
        {rule.title}
      </text>
      {rule.rule === "media" ? (
        <MediaBar rule={rule} x={x} y={y} candidate={candidate} />
      ) : (
        <AskedBar rule={rule} x={x} y={y} times={times} />
      )}
      {candidate && rule.basis === "box flow" && (
        <BoxMark x={x} y={y} turnovers={times(candidate.box_lph)} bar={barOf(rule, x, times)} />
      )}
      {candidate && rule.rule === "delivered" && (
        <DeliveredMark
          x={x}
          y={y}
          clean={times(candidate.delivered_lph)}
          dirty={times(candidate.dirty_lph)}
          bar={barOf(rule, x, times)}
        />
      )}
    </g>
  );
}

function endOf(x: Scale): number {
  return x.range()[1] ?? 0;
}

function MediaBar({ rule, x, y, candidate }: RowProps & { rule: Rule; candidate: Marked | null }) {
  const width = (endOf(x) - x(0)) * 0.5;
  const share = candidate && rule.media_kg ? Math.min(candidate.media_kg / rule.media_kg, 1) : 0;
  const bar = { x: x(0), y: y + 8, height: 14 };
  return (
    <>
      <rect {...bar} width={width} fill="none" stroke="var(--ink-soft)" />
      <rect {...bar} width={width * share} fill="var(--reed-fill)" stroke="var(--reed)" />
      <text x={x(0) + width + 8} y={y + 20} className="halo">
        {candidate ? `${bare(candidate.media_kg, "kg", 1)} of ` : ""}
        {show(rule.media_kg ?? 0, "kg", 1)} asked
      </text>
    </>
  );
}

function AskedBar({ rule, x, y, times }: RowProps & { rule: Rule; times: (lph: number) => number }) {
  const low = times(rule.low_lph ?? 0);
  const high = rule.high_lph ? times(rule.high_lph) : (x.domain()[1] ?? 0);
  return (
    <>
      <rect
        x={x(low)}
        y={y + 7}
        width={Math.max(x(high) - x(low), 3)}
        height={16}
        rx={8}
        fill="var(--reed-fill)"
        stroke={rule.followed ? "var(--reed)" : "none"}
        strokeWidth={1.6}
      />
      {rule.rule === "load" && (
        <text x={x(low) + 8} y={y + 20}>
          {low > 0 ? `${fixed(low, 2)} or more` : rule.asks}
        </text>
      )}
    </>
  );
}

/** Room a label takes, in the drawing's units. */
const LABEL_WIDTH = 108;

interface Bar {
  from: number;
  to: number;
}

/** The bar that a rule asks for, as it is drawn. */
function barOf(rule: Rule, x: Scale, times: (lph: number) => number): Bar {
  const to = rule.high_lph ? x(times(rule.high_lph)) : endOf(x);
  return { from: x(times(rule.low_lph ?? 0)), to };
}

/** Label beside a mark and clear of the bar, on whichever side has space. */
function Beside({
  at,
  end,
  y,
  gap,
  text,
  strong,
  bar,
}: Record<"at" | "end" | "y" | "gap", number> & { text: string; strong?: boolean; bar: Bar }) {
  const rightOf = at + gap + LABEL_WIDTH > bar.from && at < bar.to ? bar.to : at;
  const left = rightOf > end - LABEL_WIDTH;
  const leftOf = at - gap - LABEL_WIDTH < bar.to && at > bar.from ? bar.from : at;
  return (
    <text
      x={left ? leftOf - gap : rightOf + gap}
      y={y}
      textAnchor={left ? "end" : "start"}
      className={strong ? "strong halo" : "halo"}
    >
      {text}
    </text>
  );
}

function BoxMark({ x, y, turnovers, bar }: RowProps & { turnovers: number; bar: Bar }) {
  return (
    <>
      <path d={`M${x(turnovers)} ${y + 2} v26`} stroke="var(--ink)" strokeWidth={2} strokeDasharray="3 3" />
      <Beside
        at={x(turnovers)}
        end={endOf(x)}
        y={y + 20}
        gap={6}
        text={`${fixed(turnovers, 1)} on the box`}
        bar={bar}
      />
    </>
  );
}

function DeliveredMark({ x, y, clean, dirty, bar }: RowProps & { clean: number; dirty: number; bar: Bar }) {
  return (
    <>
      <path d={`M${x(dirty)} ${y + 15} H${x(clean)}`} stroke="var(--seed)" strokeWidth={3} />
      <path d={`M${x(clean)} ${y + 1} v28`} stroke="var(--seed)" strokeWidth={4} />
      <Beside
        at={x(clean)}
        end={endOf(x)}
        y={y + 20}
        gap={8}
        text={`${fixed(clean, 1)} delivered`}
        strong
        bar={bar}
      />
    </>
  );
}

function span(low?: number | null, high?: number | null): string {
  if (low == null) return "not a flow";
  return high == null ? `${bare(low, "L/h")} or more` : `${bare(low, "L/h")} to ${bare(high, "L/h")}`;
}
