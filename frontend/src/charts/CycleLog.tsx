/** Chart of a cycle: tests as marks, the forecast as bands, doses and changes along the bottom. */
import { useState } from "react";
import { scaleLinear } from "@visx/scale";
import { Area, LinePath } from "@visx/shape";
import { WATER_PARAMETERS, type WaterParameter } from "../api/waterParameters";
import type { DayBand } from "../api/schemas";
import { PickOne } from "../kit/choices";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";
import { DayMarks, H, Lines, PAD } from "./dayScale";
import type { CycleLogProps } from "./cycleLogProps";
import { Poisons } from "./Poisons";
import { fixed, short } from "../quantity/format";
import { loggedFigure, parameterFigure, parameterUnit } from "../quantity/waterParameters";

/** The two poisons together, or one parameter by its key. */
type Shown = "poisons" | WaterParameter["key"];

const BANDS: Partial<Record<Shown, (day: DayBand) => DayBand["ph"]>> = {
  nitrate: (b) => b.nitrate_mg_n_l,
  kh: (b) => b.kh_dkh,
  ph: (b) => b.ph,
};
/** What the forecast speaks of: offered before it was read. */
const ALWAYS: readonly Shown[] = ["nitrate", "kh", "ph"];
const POISONS: readonly Shown[] = ["ammonia", "nitrite"];

/** One line at a time, or the two poisons together. */
export function CycleLog(props: CycleLogProps) {
  const [shown, setShown] = useState<Shown>("poisons");
  const { log, share } = props;
  const offered = WATER_PARAMETERS.filter(
    (one) =>
      ALWAYS.includes(one.key) ||
      (!POISONS.includes(one.key) && log.readings.some((r) => loggedFigure(one, r, share) !== null)),
  );
  const one = offered.find(({ key }) => key === shown);
  return (
    <div>
      {one ? <OneLine key={one.key} {...props} one={one} /> : <Poisons {...props} />}
      <div className="screen-only">
        <PickOne
          label="Show"
          value={shown}
          onChange={setShown}
          options={[
            ["poisons", "ammonia, nitrite"] as const,
            ...offered.map(({ key, label, word }) => [key, word || label.toLowerCase()] as const),
          ]}
        />
      </div>
    </div>
  );
}

function OneLine({ log, forecast, share, dateOf, one }: CycleLogProps & { one: WaterParameter }) {
  const W = usePhone() ? 372 : 640;
  const tone = `var(--${one.tone})`;
  const unit = parameterUnit(one);
  const bandOf = BANDS[one.key];
  const figure = (value: number) => (one.ion ? value / share[one.key] : parameterFigure(one, value));
  const marks = log.readings.flatMap((r) => {
    const value = loggedFigure(one, r, share);
    return value === null ? [] : [{ day: r.day, value }];
  });
  const lastDay = Math.max(forecast.pass_day_p90 ?? log.day_now + 28, log.day_now + 10) + 5;
  const coming = bandOf
    ? forecast.bands
        .filter((b) => b.day <= lastDay)
        .map((b) => ({
          day: b.day,
          p10: figure(bandOf(b).p10),
          p50: figure(bandOf(b).p50),
          p90: figure(bandOf(b).p90),
        }))
    : [];
  const all = [...marks.map((m) => m.value), ...coming.flatMap((b) => [b.p10, b.p90])];
  const x = scaleLinear<number>({ domain: [0, lastDay], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({
    domain: domainOf(all, one.floor),
    range: [H - PAD.bottom, PAD.top],
    clamp: true,
  });
  const now = coming.find((b) => b.day >= log.day_now);
  const last = marks.at(-1);
  const read = last ? `last read ${short(last.value, 1)} ${unit}`.trim() : "not read yet";
  const band = bandOf
    ? `; the band holds four of five likely courses${now ? `, today ${fixed(now.p10, 1)} to ${fixed(now.p90, 1)}` : ""}`
    : "";
  const sentence = `${one.label}: ${read}${band}.`;
  return (
    <ChartFrame
      title={`${one.label}, read${bandOf ? " and to come" : ""}`}
      sentence={sentence}
      columns={bandOf ? ["When", "Low", "Middle", "High"] : ["When", unit || one.label]}
      rows={
        bandOf
          ? coming
              .filter((b) => b.day % 3 === 0)
              .map((b) => [dateOf(b.day), ...[b.p10, b.p50, b.p90].map((v) => fixed(v, 1))])
          : marks.map((m) => [dateOf(m.day), short(m.value, 2)])
      }
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        <Lines y={y} width={W} unit={unit} />
        <Area
          data={coming}
          x={(b) => x(b.day)}
          y0={(b) => y(b.p10)}
          y1={(b) => y(b.p90)}
          fill={`var(--${one.tone}-fill)`}
          opacity={0.7}
        />
        <LinePath
          data={coming}
          x={(b) => x(b.day)}
          y={(b) => y(b.p50)}
          stroke={tone}
          strokeWidth={1.4}
          strokeDasharray="5 4"
        />
        <LinePath data={marks} x={(m) => x(m.day)} y={(m) => y(m.value)} stroke={tone} strokeWidth={2.2} />
        {marks.map((m) => (
          <circle key={m.day} cx={x(m.day)} cy={y(m.value)} r={4.2} fill={tone} />
        ))}
        <DayMarks x={x} today={log.day_now} ticks={6} />
      </svg>
    </ChartFrame>
  );
}

/** Ends of the axis. floor: least height of an axis from zero; null for one that keeps near its figures. */
function domainOf(figures: number[], floor: number | null): [number, number] {
  if (floor !== null) return [0, Math.max(Math.max(...figures, 0) * 1.1, floor)];
  const low = Math.floor(Math.min(...figures) * 2) / 2;
  return [low, Math.max(Math.max(...figures) * 1.02, low + 0.5)];
}
