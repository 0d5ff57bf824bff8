/** The cycle's log: tests as marks, what comes next as bands, doses and changes along the foot. */
import { useState } from "react";
import { scaleLinear } from "@visx/scale";
import { Area, LinePath } from "@visx/shape";
import type { CycleForecast, CycleLog as Log, DayBand } from "../api/schemas";
import { PickOne } from "../kit/choices";
import { usePhone } from "../kit/usePhone";
import type { Shares } from "../quantity/ppm";
import { ChartFrame } from "./frame";

interface Props {
  log: Log;
  forecast: CycleForecast;
  share: Shares;
  /** Whether it is ready already, so that no date stands ahead. Default: not. */
  passed?: boolean;
  dateOf: (day: number) => string;
}

const H = 250;
const PAD = { left: 30, right: 10, top: 30, bottom: 58 };

interface Mark {
  day: number;
  value: number;
  off: boolean;
}

type Shown = "poisons" | "nitrate" | "kh" | "ph";

/** One line at a time, or the two poisons together. */
export function CycleLog(props: Props) {
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

function OneLine({ log, forecast, share, dateOf, shown }: Props & { shown: Exclude<Shown, "poisons"> }) {
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
  const sentence = `${line.title}: ${marks.length ? `last read ${Number(marks.at(-1)?.value.toFixed(1))} ${line.unit}` : "not read yet"}; the band holds four of five likely courses${now ? `, today ${(bandOf(now).p10 / per).toFixed(1)} to ${(bandOf(now).p90 / per).toFixed(1)}` : ""}.`;
  return (
    <ChartFrame
      title={`${line.title}, read and to come`}
      sentence={sentence}
      columns={["When", "Low", "Middle", "High"]}
      rows={coming
        .filter((b) => b.day % 3 === 0)
        .map((b) => [
          dateOf(b.day),
          ...[bandOf(b).p10, bandOf(b).p50, bandOf(b).p90].map((v) => (v / per).toFixed(1)),
        ])}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        {y.ticks(5).map((t) => (
          <g key={t}>
            <path d={`M${PAD.left} ${y(t)} H${W - PAD.right}`} stroke="var(--line)" strokeWidth={0.8} />
            <text x={PAD.left - 6} y={y(t) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
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
        <path
          d={`M${x(log.day_now)} ${PAD.top - 6} V${H - PAD.bottom}`}
          stroke="var(--ink)"
          strokeWidth={1.4}
        />
        <text x={x(log.day_now) - 5} y={PAD.top - 12} textAnchor="end" className="halo">
          today
        </text>
        {x.ticks(6).map((t) => (
          <text key={t} x={x(t)} y={H - PAD.bottom + 17} textAnchor="middle" className="soft">
            {t === 0 ? "day 0" : t}
          </text>
        ))}
      </svg>
    </ChartFrame>
  );
}

function Poisons({ log, forecast, share, passed = false, dateOf }: Props) {
  const small = usePhone();
  const W = small ? 372 : 640;
  const marks = (field: "ammonia" | "nitrite" | "nitrate"): Mark[] =>
    log.readings.flatMap((r) => {
      const value = r[`${field}_mg_n_l`];
      return value == null
        ? []
        : [{ day: r.day, value: value / share[field], off: r.off_scale.includes(field) }];
    });
  const ammonia = marks("ammonia");
  const nitrite = marks("nitrite");
  const nitrate = marks("nitrate");
  const kh = log.readings.flatMap((r) => (r.kh_dkh == null ? [] : [{ day: r.day, value: r.kh_dkh }]));
  const lastDay = Math.max(forecast.pass_day_p90 ?? log.day_now + 28, log.day_now + 10) + 5;
  const coming = forecast.bands.filter((b) => b.day >= log.day_now - 1 && b.day <= lastDay);
  const highest = Math.max(
    ...coming.map((b) =>
      Math.max(b.nitrite_mg_n_l.p90 / share.nitrite, b.ammonia_mg_n_l.p90 / share.ammonia),
    ),
  );
  const most = Math.max(5, Math.min(highest, 25), ...[...ammonia, ...nitrite].map((m) => m.value)) * 1.08;
  const x = scaleLinear<number>({ domain: [0, lastDay], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({ domain: [0, most], range: [H - PAD.bottom, PAD.top], clamp: true });
  const band = (field: "ammonia_mg_n_l" | "nitrite_mg_n_l", per: number, fill: string) => (
    <Area
      data={coming}
      x={(b) => x(Math.max(b.day, log.day_now))}
      y0={(b) => y(b[field].p10 / per)}
      y1={(b) => y(b[field].p90 / per)}
      fill={fill}
      opacity={0.5}
    />
  );
  const ready = !passed && forecast.pass_day_p10 != null && forecast.pass_day_p90 != null;
  const sentence = `Lines are your tests in ppm, bands hold four of five likely courses. ${passed ? "It has passed: fed on as advised it goes like this." : forecast.verdict}`;
  const rows = log.readings.map((r) => [
    dateOf(r.day),
    ppm(r.ammonia_mg_n_l, share.ammonia),
    ppm(r.nitrite_mg_n_l, share.nitrite) + (r.off_scale.includes("nitrite") ? "+" : ""),
    ppm(r.nitrate_mg_n_l, share.nitrate),
    r.ph ?? "",
    r.kh_dkh ?? "",
  ]);
  return (
    <ChartFrame
      title="What the tests say, and where it goes from here"
      sentence={sentence}
      columns={["When", "Ammonia, ppm", "Nitrite, ppm", "Nitrate, ppm", "pH", "KH"]}
      rows={rows}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        {y.ticks(5).map((t) => (
          <g key={t}>
            <path d={`M${PAD.left} ${y(t)} H${W - PAD.right}`} stroke="var(--line)" strokeWidth={0.8} />
            <text x={PAD.left - 6} y={y(t) + 5} textAnchor="end" className="soft">
              {t}
            </text>
          </g>
        ))}
        {ready && (
          <>
            <rect
              x={x(forecast.pass_day_p10 ?? 0)}
              y={PAD.top - 26}
              width={Math.max(x(forecast.pass_day_p90 ?? 0) - x(forecast.pass_day_p10 ?? 0), 4)}
              height={H - PAD.bottom - PAD.top + 26}
              fill="var(--reed-fill)"
              opacity={0.55}
            />
            <text
              x={(x(forecast.pass_day_p10 ?? 0) + x(forecast.pass_day_p90 ?? 0)) / 2}
              y={PAD.top - 12}
              textAnchor="middle"
              className="strong halo"
            >
              ready {dateOf(forecast.pass_day_p10 ?? 0)} to {dateOf(forecast.pass_day_p90 ?? 0)}
            </text>
          </>
        )}
        {band("nitrite_mg_n_l", share.nitrite, "var(--band)")}
        {band("ammonia_mg_n_l", share.ammonia, "var(--seed-fill)")}
        <LinePath
          data={kh}
          x={(m) => x(m.day)}
          y={(m) => y(m.value)}
          stroke="var(--reed)"
          strokeWidth={1.8}
          strokeDasharray="5 4"
        />
        <LinePath
          data={nitrite}
          x={(m) => x(m.day)}
          y={(m) => y(m.value)}
          stroke="var(--water)"
          strokeWidth={2.2}
        />
        <LinePath
          data={ammonia}
          x={(m) => x(m.day)}
          y={(m) => y(m.value)}
          stroke="var(--seed)"
          strokeWidth={2.2}
        />
        {nitrite.map((m) =>
          m.off ? (
            <path key={m.day} d={`M${x(m.day) - 5} ${y(m.value) + 4} l5 -9 l5 9 z`} fill="var(--water)" />
          ) : (
            <rect key={m.day} x={x(m.day) - 4} y={y(m.value) - 4} width={8} height={8} fill="var(--water)" />
          ),
        )}
        {ammonia.map((m) => (
          <circle key={m.day} cx={x(m.day)} cy={y(m.value)} r={4.4} fill="var(--seed)" />
        ))}
        <Tag marks={ammonia} x={x} y={y} text="ammonia" pick={0} dy={-10} tone="var(--seed)" />
        <Tag
          marks={nitrite}
          x={x}
          y={y}
          text={nitrite.some((m) => m.off) ? "nitrite, ▲ off the scale" : "nitrite"}
          pick={nitrite.length - 1}
          dy={-12}
          tone="var(--water)"
          end
        />
        {kh.length > 0 && (
          <text
            x={x(kh.at(-1)?.day ?? 0) + 6}
            y={y(kh.at(-1)?.value ?? 0) + 5}
            className="halo"
            style={{ fill: "var(--reed)" }}
          >
            KH
          </text>
        )}
        <path
          d={`M${x(log.day_now)} ${PAD.top - 6} V${H - PAD.bottom}`}
          stroke="var(--ink)"
          strokeWidth={1.4}
        />
        <text x={x(log.day_now) - 5} y={PAD.top - 12} textAnchor="end" className="halo">
          today
        </text>
        {x.ticks(small ? 4 : 7).map((t) => (
          <text key={t} x={x(t)} y={H - PAD.bottom + 17} textAnchor="middle" className="soft">
            {t === 0 ? "day 0" : t}
          </text>
        ))}
        {log.doses.map((d) => (
          <path key={d.day} d={`M${x(d.day)} ${H - 36} v10`} stroke="var(--seed)" strokeWidth={2.6} />
        ))}
        {log.alkalinity.map((d) => (
          <path key={d.day} d={`M${x(d.day)} ${H - 36} v10`} stroke="var(--reed)" strokeWidth={2.6} />
        ))}
        {log.changes.map((d) => (
          <circle key={d.day} cx={x(d.day)} cy={H - 31} r={4} fill="var(--water)" />
        ))}
        {[...log.outages, ...log.media].map((d, i) => (
          <path
            key={i}
            d={`M${x(d.day)} ${H - 36} l4.5 9 h-9 z`}
            fill="none"
            stroke="var(--ink-soft)"
            strokeWidth={1.6}
          />
        ))}
        <text x={W - PAD.right} y={H - 6} textAnchor="end" className="soft">
          {[
            log.outages.length + log.media.length && "triangles: filter or media",
            log.doses.length && "brown bars: doses",
            log.alkalinity.length && "green: bicarbonate",
            log.changes.length && "dots: water changes",
          ]
            .filter(Boolean)
            .join(", ")}
        </text>
      </svg>
      {nitrate.length > 0 && <Nitrate last={nitrate[nitrate.length - 1]} />}
    </ChartFrame>
  );
}

function Nitrate({ last }: { last: Mark | undefined }) {
  return last ? <p>Nitrate last read {last.value.toFixed(0)} ppm.</p> : null;
}

interface TagProps {
  marks: Mark[];
  x: (v: number) => number;
  y: (v: number) => number;
  text: string;
  pick: number;
  dy: number;
  tone: string;
  end?: boolean;
}

function Tag({ marks, x, y, text, pick, dy, tone, end }: TagProps) {
  const mark = marks[pick];
  if (!mark) return null;
  return (
    <text
      x={x(mark.day) + (end ? 0 : 2)}
      y={y(mark.value) + dy}
      textAnchor={end ? "end" : "start"}
      className="halo"
      style={{ fill: tone }}
    >
      {text}
    </text>
  );
}

function ppm(value: number | null | undefined, share: number | undefined): string {
  return value == null ? "" : String(Number((value / (share ?? 1)).toFixed(2)));
}
