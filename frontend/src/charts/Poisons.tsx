/** Ammonia and nitrite, read and forecast, KH beside them, events along the bottom. */
import { scaleLinear } from "@visx/scale";
import { Area, LinePath } from "@visx/shape";
import { WATER_PARAMETERS, type WaterParameter } from "../api/waterParameters";
import type { CycleForecast, CycleLog as Log, DayBand } from "../api/schemas";
import { usePhone } from "../kit/usePhone";
import { short } from "../quantity/format";
import type { KitPpm } from "../quantity/ppm";
import { loggedFigure, parameterLabel } from "../quantity/waterParameters";
import type { CycleLogProps } from "./cycleLogProps";
import { DayMarks, H, Lines, PAD, type Scale } from "./dayScale";
import { ChartFrame } from "./frame";

interface Mark {
  day: number;
  value: number;
  off: boolean;
}

type Analyte = "ammonia" | "nitrite" | "nitrate";

export function Poisons({ log, forecast, share, passed = false, dateOf }: CycleLogProps) {
  const small = usePhone();
  const W = small ? 372 : 640;
  const ammonia = marksOf(log, "ammonia", share);
  const nitrite = marksOf(log, "nitrite", share);
  const nitrate = marksOf(log, "nitrate", share).at(-1);
  const lastDay = Math.max(forecast.pass_day_p90 ?? log.day_now + 28, log.day_now + 10) + 5;
  const coming = forecast.bands.filter((b) => b.day >= log.day_now - 1 && b.day <= lastDay);
  const x = scaleLinear<number>({ domain: [0, lastDay], range: [PAD.left, W - PAD.right] });
  const y = scaleLinear<number>({
    domain: [0, highest(coming, share, [...ammonia, ...nitrite])],
    range: [H - PAD.bottom, PAD.top],
    clamp: true,
  });
  const read = WATER_PARAMETERS.filter((one) =>
    log.readings.some((r) => loggedFigure(one, r, share) !== null),
  );
  const sentence = `Lines are your tests in ppm, bands hold four of five likely courses. ${passed ? "It has passed: fed on as advised it goes like this." : forecast.verdict}`;
  return (
    <ChartFrame
      title="What the tests say, and where it goes from here"
      sentence={sentence}
      columns={["When", ...read.map((one) => (one.ion ? `${one.label}, ppm` : parameterLabel(one)))]}
      rows={rowsOf(log, read, share, dateOf)}
    >
      <svg viewBox={`0 0 ${W} ${H}`} role="img" aria-label={sentence}>
        <Lines y={y} width={W} unit="ppm" />
        {!passed && <ReadyBand forecast={forecast} x={x} dateOf={dateOf} />}
        <Band
          days={coming}
          now={log.day_now}
          x={x}
          y={y}
          of={(b) => b.nitrite_mg_n_l}
          per={share.nitrite}
          fill="var(--band)"
        />
        <Band
          days={coming}
          now={log.day_now}
          x={x}
          y={y}
          of={(b) => b.ammonia_mg_n_l}
          per={share.ammonia}
          fill="var(--seed-fill)"
        />
        <Hardness log={log} x={x} y={y} />
        <Read marks={nitrite} x={x} y={y} tone="var(--water)" />
        <Read marks={ammonia} x={x} y={y} tone="var(--seed)" />
        {nitrite.map((m) => (
          <NitriteMark key={m.day} mark={m} x={x} y={y} />
        ))}
        {ammonia.map((m) => (
          <circle key={m.day} cx={x(m.day)} cy={y(m.value)} r={4.4} fill="var(--seed)" />
        ))}
        <Tag mark={ammonia[0]} x={x} y={y} text="ammonia" dy={-10} tone="var(--seed)" />
        <Tag
          mark={nitrite.at(-1)}
          x={x}
          y={y}
          text={nitrite.some((m) => m.off) ? "nitrite, ▲ off the scale" : "nitrite"}
          dy={-12}
          tone="var(--water)"
          end
        />
        <DayMarks x={x} today={log.day_now} ticks={small ? 4 : 7} />
        <Deeds log={log} x={x} />
        <text x={W - PAD.right} y={H - 6} textAnchor="end" className="soft">
          {legend(log)}
        </text>
      </svg>
      {nitrate && <p>Nitrate last read {nitrate.value.toFixed(0)} ppm.</p>}
    </ChartFrame>
  );
}

function marksOf(log: Log, field: Analyte, share: KitPpm): Mark[] {
  return log.readings.flatMap((r) => {
    const value = r[`${field}_mg_n_l`];
    return value == null
      ? []
      : [{ day: r.day, value: value / share[field], off: r.off_scale.includes(field) }];
  });
}

function highest(coming: DayBand[], share: KitPpm, marks: Mark[]): number {
  const bands = coming.flatMap((b) => [
    b.nitrite_mg_n_l.p90 / share.nitrite,
    b.ammonia_mg_n_l.p90 / share.ammonia,
  ]);
  return Math.max(5, Math.min(Math.max(...bands), 25), ...marks.map((m) => m.value)) * 1.08;
}

function rowsOf(
  log: Log,
  read: WaterParameter[],
  share: KitPpm,
  dateOf: (day: number) => string,
): string[][] {
  return log.readings.map((r) => [
    dateOf(r.day),
    ...read.map((one) => {
      const value = loggedFigure(one, r, share);
      if (value === null) return "";
      return one.ion ? short(value, 2) + (r.off_scale.includes(one.key) ? "+" : "") : short(value, 1);
    }),
  ]);
}

interface ScaledProps {
  x: Scale;
  y: Scale;
}

function ReadyBand({
  forecast,
  x,
  dateOf,
}: {
  forecast: CycleForecast;
  x: Scale;
  dateOf: (day: number) => string;
}) {
  const { pass_day_p10: low, pass_day_p90: high } = forecast;
  if (low == null || high == null) return null;
  return (
    <>
      <rect
        x={x(low)}
        y={PAD.top - 26}
        width={Math.max(x(high) - x(low), 4)}
        height={H - PAD.bottom - PAD.top + 26}
        fill="var(--reed-fill)"
        opacity={0.55}
      />
      <text x={(x(low) + x(high)) / 2} y={PAD.top - 12} textAnchor="middle" className="strong halo">
        ready {dateOf(low)} to {dateOf(high)}
      </text>
    </>
  );
}

interface BandProps extends ScaledProps {
  days: DayBand[];
  now: number;
  of: (day: DayBand) => DayBand["nitrite_mg_n_l"];
  /** Nitrogen in one ppm of this kit. */
  per: number;
  fill: string;
}

function Band({ days, now, x, y, of, per, fill }: BandProps) {
  return (
    <Area
      data={days}
      x={(b) => x(Math.max(b.day, now))}
      y0={(b) => y(of(b).p10 / per)}
      y1={(b) => y(of(b).p90 / per)}
      fill={fill}
      opacity={0.5}
    />
  );
}

function Read({ marks, x, y, tone }: ScaledProps & { marks: Mark[]; tone: string }) {
  return <LinePath data={marks} x={(m) => x(m.day)} y={(m) => y(m.value)} stroke={tone} strokeWidth={2.2} />;
}

function NitriteMark({ mark, x, y }: ScaledProps & { mark: Mark }) {
  return mark.off ? (
    <path d={`M${x(mark.day) - 5} ${y(mark.value) + 4} l5 -9 l5 9 z`} fill="var(--water)" />
  ) : (
    <rect x={x(mark.day) - 4} y={y(mark.value) - 4} width={8} height={8} fill="var(--water)" />
  );
}

function Hardness({ log, x, y }: ScaledProps & { log: Log }) {
  const marks = log.readings.flatMap((r) => (r.kh_dkh == null ? [] : [{ day: r.day, value: r.kh_dkh }]));
  const last = marks.at(-1);
  if (!last) return null;
  return (
    <>
      <LinePath
        data={marks}
        x={(m) => x(m.day)}
        y={(m) => y(m.value)}
        stroke="var(--reed)"
        strokeWidth={1.8}
        strokeDasharray="5 4"
      />
      <text x={x(last.day) + 6} y={y(last.value) + 5} className="halo" style={{ fill: "var(--reed)" }}>
        KH
      </text>
    </>
  );
}

function Deeds({ log, x }: { log: Log; x: Scale }) {
  return (
    <>
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
    </>
  );
}

function legend(log: Log): string {
  const told: [number, string][] = [
    [log.outages.length + log.media.length, "triangles: filter or media"],
    [log.doses.length, "brown bars: doses"],
    [log.alkalinity.length, "green: bicarbonate"],
    [log.changes.length, "dots: water changes"],
  ];
  return told.flatMap(([count, words]) => (count ? [words] : [])).join(", ");
}

interface TagProps extends ScaledProps {
  mark: Mark | undefined;
  text: string;
  dy: number;
  tone: string;
  end?: boolean;
}

function Tag({ mark, x, y, text, dy, tone, end }: TagProps) {
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
