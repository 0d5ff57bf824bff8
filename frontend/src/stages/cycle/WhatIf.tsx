/** What would move the date, how it has moved, and what the forecast rests on. */
import { useState } from "react";
import { useCompute } from "../../api/hooks";
import type { CycleForecast, CycleLog as Log } from "../../api/schemas";
import { DayRanges, type DayRange } from "../../charts/DayRanges";
import { Button, Fields, Figure, Lead, NumberBox, ProblemNote, Waiting } from "../../kit";
import { QuantityField } from "../../quantity";
import { Bar } from "../shared";

interface Props {
  log: Log;
  forecast: CycleForecast;
  dateOf: (day: number) => string;
}

interface Own {
  name: string;
  temperature_c: number;
  seed_share: number;
  dose_factor: number;
  hold_kh_dkh: number;
}

export function WhatIf({ log, forecast, dateOf }: Props) {
  const [own, setOwn] = useState<Own | null>(null);
  const usual = useCompute("cycle-what-if", { log });
  const mine = useCompute("cycle-what-if", own ? { log, changes: [own] } : null);
  const history = useCompute("cycle-history", log.day_now >= 7 ? { log } : null);
  const rows: DayRange[] = usual.data
    ? [
        {
          name: "As advised",
          low: usual.data.as_advised.pass_day_p10,
          middle: usual.data.as_advised.pass_day_p50,
          high: usual.data.as_advised.pass_day_p90,
          strong: true,
        },
        ...[...usual.data.changes, ...(own ? (mine.data?.changes ?? []) : [])].map((c) => ({
          name: c.name,
          low: c.pass_day_p10,
          middle: c.pass_day_p50,
          high: c.pass_day_p90,
          text: c.text,
        })),
      ]
    : [];
  const set = (change: Partial<Own>) => {
    setOwn((now) => (now ? { ...now, ...change } : now));
  };
  return (
    <>
      {usual.isPending && <Waiting>Running the courses…</Waiting>}
      <ProblemNote problem={usual.error ?? mine.error ?? history.error} />
      {usual.data && (
        <DayRanges
          title="If it were done otherwise from today"
          sentence={usual.data.verdict}
          ranges={rows}
          today={log.day_now}
          dateOf={dateOf}
        />
      )}
      {own ? (
        <>
          <Fields>
            <QuantityField
              label="Water from today"
              kind="temperature"
              value={own.temperature_c}
              onChange={(v) => {
                set({ temperature_c: v });
              }}
            />
            <NumberBox
              label="Seeded media, % of a filter's"
              value={own.seed_share * 100}
              min={0}
              max={100}
              onChange={(v) => {
                set({ seed_share: v / 100 });
              }}
            />
            <NumberBox
              label="Dose, % of the advised"
              value={own.dose_factor * 100}
              min={10}
              max={200}
              onChange={(v) => {
                set({ dose_factor: v / 100 });
              }}
            />
            <QuantityField
              label="KH held at"
              kind="hardness"
              value={own.hold_kh_dkh}
              onChange={(v) => {
                set({ hold_kh_dkh: v });
              }}
            />
          </Fields>
          <Bar>
            <Button
              $quiet
              onPress={() => {
                setOwn(null);
              }}
            >
              Leave it out
            </Button>
          </Bar>
        </>
      ) : (
        <Bar>
          <Button
            $quiet
            onPress={() => {
              setOwn({
                name: "Your own",
                temperature_c: log.temperature_c,
                seed_share: 0,
                dose_factor: 1,
                hold_kh_dkh: 4,
              });
            }}
          >
            Try a change of your own
          </Button>
        </Bar>
      )}
      {history.data && history.data.seen.length > 1 && (
        <DayRanges
          title="How the forecast has moved"
          sentence={history.data.verdict}
          ranges={history.data.seen.map((s, i) => ({
            name:
              i === history.data.seen.length - 1
                ? "As it stands today"
                : `As it stood on ${dateOf(s.on_day)}`,
            low: s.pass_day_p10,
            middle: s.pass_day_p50,
            high: s.pass_day_p90,
            strong: i === history.data.seen.length - 1,
          }))}
          today={Math.min(...history.data.seen.map((s) => s.on_day))}
          dateOf={dateOf}
        />
      )}
      {history.data?.pull && (
        <Lead>
          <Figure title="The newest test's pull" lines={history.data.working}>
            {history.data.pull}
          </Figure>
        </Lead>
      )}
      <Lead>
        <Figure title="The forecast" lines={forecast.working}>
          It rests on
        </Figure>{" "}
        {forecast.rests_on.join("; ")}.
      </Lead>
      {forecast.doubtful.length > 0 && (
        <ul>
          {forecast.doubtful.map((d) => (
            <li key={`${d.day}-${d.what}`}>
              <b>
                In doubt: {d.what} on {dateOf(d.day)}
              </b>
              , {d.reason}. Test again.
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
