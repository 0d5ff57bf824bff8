/** The truth of a practice tank as lines, what was read as marks, and animals that died along the bottom. */
import { useState } from "react";
import { scaleLinear } from "@visx/scale";
import { LinePath } from "@visx/shape";
import type { EndOfLesson } from "../api/practice";
import { PickOne } from "../kit/choices";
import { usePhone } from "../kit/usePhone";
import type { kitPpm } from "../quantity/ppm";
import { ChartFrame } from "./frame";

const H = 260;
const PAD = { left: 42, right: 96, top: 24, bottom: 30 };

type Point = EndOfLesson["truth"][number];
type Read = EndOfLesson["read"][number];
type Share = ReturnType<typeof kitPpm>;
interface Line {
  name: string;
  tone: string;
  dash?: string;
  true: (p: Point) => number;
  read?: (r: Read) => number | null;
}
type Shown = "poisons" | "nitrate" | "film" | "water" | "animals";

/** Figures in ppm as the ion, in which kits read. share: of nitrogen in each. */
const linesOf = (share: Share): Record<Shown, { title: string; unit: string; lines: Line[] }> => ({
  poisons: {
    title: "Ammonia and nitrite",
    unit: "ppm as the ion",
    lines: [
      {
        name: "ammonia",
        tone: "var(--seed)",
        true: (p) => p.ammonia_mg_n_l / share.ammonia,
        read: (r) => (r.ammonia_mg_n_l == null ? null : r.ammonia_mg_n_l / share.ammonia),
      },
      {
        name: "nitrite",
        tone: "var(--water)",
        dash: "6 3",
        true: (p) => p.nitrite_mg_n_l / share.nitrite,
        read: (r) => (r.nitrite_mg_n_l == null ? null : r.nitrite_mg_n_l / share.nitrite),
      },
    ],
  },
  nitrate: {
    title: "Nitrate",
    unit: "ppm as the ion",
    lines: [
      {
        name: "nitrate",
        tone: "var(--water)",
        true: (p) => p.nitrate_mg_n_l / share.nitrate,
        read: (r) => (r.nitrate_mg_n_l == null ? null : r.nitrate_mg_n_l / share.nitrate),
      },
    ],
  },
  film: {
    title: "What the filter bacteria could clear",
    unit: "mg N/L a day",
    lines: [{ name: "clears", tone: "var(--reed)", true: (p) => p.clears_mg_n_l_day }],
  },
  water: {
    title: "KH and pH",
    unit: "dKH, pH",
    lines: [
      { name: "KH", tone: "var(--reed)", true: (p) => p.kh_dkh },
      { name: "pH", tone: "var(--seed)", dash: "6 3", true: (p) => p.ph },
    ],
  },
  animals: {
    title: "Animals alive",
    unit: "animals",
    lines: [{ name: "alive", tone: "var(--ink)", true: (p) => p.alive_count }],
  },
});

/** A course as it was, and as it was read. */
export type TrueCourse = Pick<EndOfLesson, "truth" | "read">;

export function Truth({ page, share }: { page: TrueCourse; share: Share }) {
  const [shown, setShown] = useState<Shown>("poisons");
  return (
    <div>
      <Drawn page={page} lines={linesOf(share)[shown]} />
      <div className="screen-only">
        <PickOne
          label="Show"
          value={shown}
          onChange={setShown}
          options={[
            ["poisons", "ammonia, nitrite"],
            ["nitrate", "nitrate"],
            ["film", "bacteria"],
            ["water", "KH, pH"],
            ["animals", "animals"],
          ]}
        />
      </div>
    </div>
  );
}

type Drawing = ReturnType<typeof linesOf>[Shown];

function Drawn({ page, lines: { title, unit, lines } }: { page: TrueCourse; lines: Drawing }) {
  const W = usePhone() ? 372 : 640;
  const last = page.truth.at(-1);
  if (!last) return null;
  const values = page.truth.flatMap((p) => lines.map((l) => l.true(p)));
  const read = page.read.flatMap((r) => lines.map((l) => l.read?.(r) ?? 0));
  const x = scaleLinear<number>({ domain: [0, Math.max(last.day, 1)], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({
    domain: [0, Math.max(...values, ...read, 0.5) * 1.08],
    range: [H - PAD.bottom, PAD.top],
  });
  const ends = apart(lines.map((l) => y(l.true(last))));
  const most = lines.map((l) => `${l.name} at most ${Math.max(...page.truth.map(l.true)).toFixed(1)}`);
  const sentence = `The lines are the truth, the rings what was read: ${most.join(", ")} ${unit}.`;
  return (
    <ChartFrame
      title={title}
      sentence={sentence}
      columns={["Day", ...lines.map((l) => `${l.name}, ${unit}`)]}
      rows={page.truth
        .filter((_, i) => i % 4 === 0)
        .map((p) => [p.day.toFixed(0), ...lines.map((l) => l.true(p).toFixed(2))])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        <text x={4} y={14} className="soft">
          {unit}
        </text>
        {y.ticks(4).map((t) => (
          <g key={t}>
            <path d={`M${PAD.left} ${y(t)} H${W - PAD.right}`} stroke="var(--line)" strokeWidth={0.8} />
            <text x={PAD.left - 6} y={y(t) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
        {x.ticks(W > 400 ? 7 : 4).map((t) => (
          <text key={t} x={x(t)} y={H - 10} textAnchor="middle" className="soft">
            {t}
          </text>
        ))}
        <text x={W - PAD.right + 24} y={H - 10} className="soft">
          day
        </text>
        {lines.map((l, i) => (
          <g key={l.name}>
            <LinePath
              data={page.truth}
              x={(p) => x(p.day)}
              y={(p) => y(l.true(p))}
              stroke={l.tone}
              strokeWidth={2.2}
              strokeDasharray={l.dash}
            />
            {l.read &&
              page.read.map((r, n) => {
                const value = l.read?.(r);
                return value == null ? null : (
                  <circle
                    key={n}
                    cx={x(r.day)}
                    cy={y(value)}
                    r={3.4}
                    fill="var(--paper)"
                    stroke={l.tone}
                    strokeWidth={1.6}
                  />
                );
              })}
            <text x={W - PAD.right + 8} y={(ends[i] ?? 0) + 5} fill={l.tone}>
              {l.name}
            </text>
          </g>
        ))}
      </svg>
    </ChartFrame>
  );
}

/** Heights of labels, moved so that none covers another. */
function apart(heights: number[]): number[] {
  const order = heights.map((h, i) => [h, i] as const).sort((a, b) => a[0] - b[0]);
  const found = [...heights];
  let least = -Infinity;
  for (const [height, i] of order) {
    const at = Math.max(height, least + 18);
    found[i] = at;
    least = at;
  }
  // The lowest stays clear of the days below.
  const over = Math.max(least - (H - PAD.bottom - 6), 0);
  return found.map((at) => at - over);
}
