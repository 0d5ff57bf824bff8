/** Head lost along the water path, as one stacked bar. */
import type { OperatingPoint } from "../api/schemas";
import { Term } from "../kit";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";
import { fixed, show } from "../quantity/format";

const TONES = [
  "var(--water)",
  "var(--reed)",
  "var(--seed)",
  "var(--sand)",
  "var(--stone)",
  "var(--water-deep)",
];

export function HeadBudget({ answer }: { answer: OperatingPoint }) {
  const small = usePhone();
  const W = small ? 372 : 640;
  const parts = answer.head_budget.filter((p) => p.head_m > 0.0005).sort((a, b) => b.head_m - a.head_m);
  const total = parts.reduce((sum, p) => sum + p.head_m, 0);
  if (total <= 0) return null;
  const costliest = parts[0];
  const sentence = `${show(total, "m", 2)} of head is spent at ${show(answer.delivered_lph, "L/h")}; the ${costliest?.part ?? ""} costs most, ${show(costliest?.head_m ?? 0, "m", 2)}.`;
  let at = 0;
  return (
    <ChartFrame
      title="Where the head goes"
      word={<Term of="head">what head is</Term>}
      sentence={sentence}
      columns={["Part", "Head, m"]}
      rows={parts.map((p) => [p.part, fixed(p.head_m, 3)])}
    >
      <svg viewBox={`0 0 ${W} 52`} role="img" aria-label={sentence}>
        {parts.map((p, i) => {
          const x = (at / total) * W;
          const w = (p.head_m / total) * W;
          at += p.head_m;
          return (
            <g key={p.part}>
              <rect
                x={x}
                y={2}
                width={Math.max(w - 1.5, 0.5)}
                height={22}
                fill={TONES[i % TONES.length]}
                opacity={0.85}
              />
              {w > p.part.length * 7 + 6 && (
                <text x={x + 2} y={42}>
                  {p.part}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </ChartFrame>
  );
}
