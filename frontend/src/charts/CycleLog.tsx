/** Chart of a cycle: tests as marks, the forecast as bands, doses and changes along the bottom. */
import { useState } from "react";
import { scaleLinear } from "@visx/scale";
import { Area, LinePath } from "@visx/shape";
import type { DayBand } from "../api/schemas";
import { PickOne } from "../kit/choices";
import { usePhone } from "../kit/usePhone";
import { ChartFrame } from "./frame";
import { DayMarks, H, Lines, PAD } from "./dayScale";
import type { CycleLogProps } from "./cycleLogProps";
import { Poisons } from "./Poisons";
import { fixed, short } from "../quantity/format";

type Shown = "poisons" | "nitrate" | "kh" | "ph";

/** One line at a time, or the two poisons together. */
export function CycleLog(props: CycleLogProps) {
  const [shown, setShown] = useState<Shown>("poisons");
  return (
    <div>
      {shown === "poisons" ? <Poisons {...props} /> : <OneLine {...props} shown={shown} />}
      <div className="screen-only">
        <PickOne
          label="Show"
          value={shown}
          onChange={setShown}
          options={[
            ["poisons", "ammonia, nitrite"],
            ["nitrate", "nitrate"],
            ["kh", "KH"],
            ["ph", "pH"],
          ]}
        />
      </div>
    </div>
  );
}

const LINES = {
  nitrate: { title: "Nitrate", unit: "ppm", tone: "var(--water)", fill: "var(--water-fill)" },
  kh: { title: "KH", unit: "dKH", tone: "var(--reed)", fill: "var(--reed-fill)" },
  ph: { title: "pH", unit: "", tone: "var(--seed)", fill: "var(--seed-fill)" },
} as const;

function OneLine({
  log,
  forecast,
  share,
  dateOf,
  shown,
}: CycleLogProps & { shown: Exclude<Shown, "poisons"> }) {
  const W = usePhone() ? 372 : 640;
  const line = LINES[shown];
  const per = shown === "nitrate" ? share.nitrate : 1;
  const bandOf = (b: DayBand) => (shown === "nitrate" ? b.nitrate_mg_n_l : shown === "kh" ? b.kh_dkh : b.ph);
  const marks = log.readings.flatMap((r) => {
    const value = shown === "nitrate" ? r.nitrate_mg_n_l : shown === "kh" ? r.kh_dkh : r.ph;
    return value == null ? [] : [{ day: r.day, value: value / per }];
  });
  const lastDay = Math.max(forecast.pass_day_p90 ?? log.day_now + 28, log.day_now + 10) + 5;
  const coming = forecast.bands.filter((b) => b.day <= lastDay);
  const all = [
    ...marks.map((m) => m.value),
    ...coming.map((b) => bandOf(b).p90 / per),
    ...coming.map((b) => bandOf(b).p10 / per),
  ];
  const low = shown === "ph" ? Math.floor(Math.min(...all) * 2) / 2 : 0;
  const x = scaleLinear<number>({ domain: [0, lastDay], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({
    domain: [low, Math.max(...all) * (shown === "ph" ? 1.02 : 1.1) + 0.01],
    range: [H - PAD.bottom, PAD.top],
    clamp: true,
  });
  const now = coming.find((b) => b.day >= log.day_now);
  const sentence = `${line.title}: ${marks.length ? `last read ${short(marks.at(-1)?.value ?? 0, 1)} ${line.unit}` : "not read yet"}; the band holds four of five likely courses${now ? `, today ${fixed(bandOf(now).p10 / per, 1)} to ${fixed(bandOf(now).p90 / per, 1)}` : ""}.`;
  return (
    <ChartFrame
      title={`${line.title}, read and to come`}
      sentence={sentence}
      columns={["When", "Low", "Middle", "High"]}
      rows={coming
        .filter((b) => b.day % 3 === 0)
        .map((b) => [
          dateOf(b.day),
          ...[bandOf(b).p10, bandOf(b).p50, bandOf(b).p90].map((v) => fixed(v / per, 1)),
        ])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        <Lines y={y} width={W} unit={line.unit} />
        <Area
          data={coming}
          x={(b) => x(b.day)}
          y0={(b) => y(bandOf(b).p10 / per)}
          y1={(b) => y(bandOf(b).p90 / per)}
          fill={line.fill}
          opacity={0.7}
        />
        <LinePath
          data={coming}
          x={(b) => x(b.day)}
          y={(b) => y(bandOf(b).p50 / per)}
          stroke={line.tone}
          strokeWidth={1.4}
          strokeDasharray="5 4"
        />
        <LinePath
          data={marks}
          x={(m) => x(m.day)}
          y={(m) => y(m.value)}
          stroke={line.tone}
          strokeWidth={2.2}
        />
        {marks.map((m) => (
          <circle key={m.day} cx={x(m.day)} cy={y(m.value)} r={4.2} fill={line.tone} />
        ))}
        <DayMarks x={x} today={log.day_now} ticks={6} />
      </svg>
    </ChartFrame>
  );
}
