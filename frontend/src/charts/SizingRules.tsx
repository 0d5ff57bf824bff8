/** The schools of sizing on one axis, with this candidate marked. */
import { scaleLinear } from "@visx/scale";
import type { Candidate, FlowRequirement } from "../api/schemas";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";

interface Props {
  requirement: FlowRequirement;
  netL: number;
  candidate?: Pick<Candidate, "name" | "box_lph" | "delivered_lph" | "dirty_lph" | "media_kg"> | null;
}

export function SizingRules({ requirement, netL, candidate }: Props) {
  const small = usePhone();
  const W = small ? 372 : 640;
  const NAME = small ? 132 : 150;
  const rows = requirement.sizing_rules.filter((s) => s.rule !== "label");
  const label = requirement.sizing_rules.find((s) => s.rule === "label");
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
  const end = x.range()[1] ?? W;
  const sentence = candidate
    ? `${candidate.name} delivers ${times(candidate.delivered_lph).toFixed(1)} times the tank an hour when clean and ${times(candidate.dirty_lph).toFixed(1)} in service; the box promises ${times(candidate.box_lph).toFixed(1)}.`
    : requirement.verdict;
  return (
    <ChartFrame
      title="What each school asks, and where this lands"
      sentence={sentence}
      quiet={Boolean(candidate)}
      columns={["School", "Asks", "L/h"]}
      rows={requirement.sizing_rules.map((s) => [
        s.title + (s.followed ? " (followed)" : ""),
        s.asks,
        span(s.low_lph, s.high_lph),
      ])}
    >
      <svg viewBox={`0 0 ${W} ${height}`} role="img" aria-label={sentence}>
        <text x={0} y={13} className="soft">
          {small ? "times an hour" : "times the tank, per hour"}
        </text>
        {ticks.map((t) => (
          <g key={t}>
            <path d={`M${x(t)} ${top - 4} V${height - 6}`} stroke="var(--line)" />
            <text x={x(t)} y={13} textAnchor="middle" className="soft">
              {t}
            </text>
          </g>
        ))}
        {rows.map((s, i) => {
          const y = top + i * rowHeight;
          const media = s.rule === "media";
          const share = media && candidate && s.media_kg ? Math.min(candidate.media_kg / s.media_kg, 1) : 0;
          const low = times(s.low_lph ?? 0);
          const high = s.high_lph ? times(s.high_lph) : (x.domain()[1] ?? 0);
          return (
            <g key={s.rule}>
              <text x={0} y={y + 20} className={s.followed ? "strong" : ""}>
                {s.title}
              </text>
              {media ? (
                <>
                  <rect
                    x={x(0)}
                    y={y + 8}
                    width={(end - x(0)) * 0.5}
                    height={14}
                    fill="none"
                    stroke="var(--ink-soft)"
                  />
                  <rect
                    x={x(0)}
                    y={y + 8}
                    width={(end - x(0)) * 0.5 * share}
                    height={14}
                    fill="var(--reed-fill)"
                    stroke="var(--reed)"
                  />
                  <text x={x(0) + (end - x(0)) * 0.5 + 8} y={y + 20} className="halo">
                    {candidate ? `${candidate.media_kg.toFixed(1)} of ` : ""}
                    {s.media_kg?.toFixed(1)} kg asked
                  </text>
                </>
              ) : (
                <>
                  <rect
                    x={x(low)}
                    y={y + 7}
                    width={Math.max(x(high) - x(low), 3)}
                    height={16}
                    rx={8}
                    fill="var(--reed-fill)"
                    stroke={s.followed ? "var(--reed)" : "none"}
                    strokeWidth={1.6}
                  />
                  {s.rule === "load" && (
                    <text x={x(low) + 8} y={y + 20}>
                      {low > 0 ? `${low.toFixed(2)} or more` : s.asks}
                    </text>
                  )}
                </>
              )}
              {candidate && s.basis === "box flow" && (
                <>
                  <path
                    d={`M${x(times(candidate.box_lph))} ${y + 2} v26`}
                    stroke="var(--ink)"
                    strokeWidth={2}
                    strokeDasharray="3 3"
                  />
                  <text
                    x={x(times(candidate.box_lph)) + (x(times(candidate.box_lph)) > W - 110 ? -6 : 6)}
                    y={y + 20}
                    textAnchor={x(times(candidate.box_lph)) > W - 110 ? "end" : "start"}
                    className="halo"
                  >
                    {times(candidate.box_lph).toFixed(1)} on the box
                  </text>
                </>
              )}
              {candidate && s.rule === "delivered" && (
                <>
                  <path
                    d={`M${x(times(candidate.dirty_lph))} ${y + 15} H${x(times(candidate.delivered_lph))}`}
                    stroke="var(--seed)"
                    strokeWidth={3}
                  />
                  <path
                    d={`M${x(times(candidate.delivered_lph))} ${y + 1} v28`}
                    stroke="var(--seed)"
                    strokeWidth={4}
                  />
                  <text
                    x={
                      x(times(candidate.delivered_lph)) +
                      (x(times(candidate.delivered_lph)) > W - 120 ? -8 : 8)
                    }
                    y={y + 20}
                    textAnchor={x(times(candidate.delivered_lph)) > W - 120 ? "end" : "start"}
                    className="strong halo"
                  >
                    {times(candidate.delivered_lph).toFixed(1)} delivered
                  </text>
                </>
              )}
            </g>
          );
        })}
      </svg>
      {label && (
        <p style={{ fontSize: 15 }}>
          <b>Tank size on the box:</b> {label.asks}.
        </p>
      )}
    </ChartFrame>
  );
}

function span(low?: number | null, high?: number | null): string {
  if (low == null) return "not a flow";
  return high == null ? `${low.toFixed(0)} or more` : `${low.toFixed(0)} to ${high.toFixed(0)}`;
}
