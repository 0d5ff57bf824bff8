/** Ranges of days side by side on one axis: the effect of each change, or the history of a forecast. */
import { scaleLinear } from "@visx/scale";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";

export interface DayRange {
  name: string;
  low?: number | null;
  middle?: number | null;
  high?: number | null;
  text?: string;
  strong?: boolean;
}

interface Props {
  title: string;
  sentence: string;
  ranges: DayRange[];
  today: number;
  dateOf: (day: number) => string;
}

const ROW = 29;
const TOP = 22;

export function DayRanges({ title, sentence, ranges, today, dateOf }: Props) {
  const small = usePhone();
  const W = small ? 372 : 640;
  const NAME = small ? 138 : 236;
  const END = small ? 10 : 150;
  const days = ranges.flatMap((r) => [r.low, r.middle, r.high].filter((d): d is number => d != null));
  const most = Math.max(today + 7, ...days) + 2;
  const x = scaleLinear<number>({ domain: [Math.max(today - 3, 0), most], range: [NAME, W - END] });
  const H = TOP + ranges.length * ROW + 6;
  return (
    <ChartFrame
      title={title}
      sentence={sentence}
      columns={["", "Earliest", "Likely", "Latest", ""]}
      rows={ranges.map((r) => [
        r.name,
        ...[r.low, r.middle, r.high].map((d) => day(d, dateOf)),
        r.text ?? "",
      ])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        {x.ticks(small ? 3 : 5).map((t) => (
          <g key={t}>
            <path d={`M${x(t)} ${TOP - 4} V${H - 4}`} stroke="var(--line)" />
            <text x={x(t)} y={12} textAnchor="middle" className="soft">
              {dateOf(t)}
            </text>
          </g>
        ))}
        {ranges.map((r, i) => {
          const y = TOP + i * ROW + ROW / 2;
          return (
            <g key={r.name + String(i)}>
              <text x={0} y={y + 5} className={r.strong ? "strong" : undefined}>
                {small && r.name.length > 21 ? `${r.name.slice(0, 20)}…` : r.name}
              </text>
              {r.middle != null && (
                <>
                  <rect
                    x={x(r.low ?? r.middle)}
                    y={y - 6}
                    width={Math.max(x(r.high ?? most) - x(r.low ?? r.middle), 3)}
                    height={12}
                    fill={r.strong ? "var(--reed-fill)" : "var(--water-fill)"}
                  />
                  <path d={`M${x(r.middle)} ${y - 9} v18`} stroke="var(--ink)" strokeWidth={2.2} />
                </>
              )}
              {small && r.middle == null && (
                <text x={NAME + 4} y={y + 5} className="soft">
                  no date
                </text>
              )}
              {!small && (
                <text x={W} y={y + 5} textAnchor="end" className="soft">
                  {r.text}
                </text>
              )}
            </g>
          );
        })}
      </svg>
    </ChartFrame>
  );
}

function day(value: number | null | undefined, dateOf: (day: number) => string): string {
  return value == null ? "none" : dateOf(value);
}
