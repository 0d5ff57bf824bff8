/** Effect of changes on the date, history of the forecast, and its evidence. */
import { range } from "../../api/range";
import { useState } from "react";
import { useCompute } from "../../api/compute";
import type { CycleForecast, CycleHistory, CycleLog as Log, CycleWhatIf } from "../../api/schemas";
import { DayRanges, type DayRange } from "../../charts/DayRanges";
import { Button, Fields, Figure, Lead, ProblemNote, Waiting } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { Bar } from "../../kit";

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
          ranges={rangesOf(usual.data, own ? mine.data : undefined)}
          today={log.day_now}
          dateOf={dateOf}
        />
      )}
      {own ? (
        <OwnChange
          own={own}
          set={set}
          onLeave={() => {
            setOwn(null);
          }}
        />
      ) : (
        <TryOwn
          onTry={() => {
            setOwn({
              name: "Your own",
              temperature_c: log.temperature_c,
              seed_share: 0,
              dose_factor: 1,
              hold_kh_dkh: 4,
            });
          }}
        />
      )}
      {history.data && <Moved history={history.data} dateOf={dateOf} />}
      <RestsOn forecast={forecast} dateOf={dateOf} />
    </>
  );
}

function rangesOf({ as_advised, changes }: CycleWhatIf, mine?: CycleWhatIf): DayRange[] {
  return [
    {
      name: "As advised",
      low: as_advised.pass_day_p10,
      middle: as_advised.pass_day_p50,
      high: as_advised.pass_day_p90,
      strong: true,
    },
    ...[...changes, ...(mine?.changes ?? [])].map((c) => ({
      name: c.name,
      low: c.pass_day_p10,
      middle: c.pass_day_p50,
      high: c.pass_day_p90,
      text: c.text,
    })),
  ];
}

function OwnChange({
  own,
  set,
  onLeave,
}: {
  own: Own;
  set: (change: Partial<Own>) => void;
  onLeave: () => void;
}) {
  return (
    <>
      <Fields>
        <QuantityField
          label="Water from today"
          unit="°C"
          value={own.temperature_c}
          onChange={(v) => {
            set({ temperature_c: v });
          }}
        />
        <NumberBox
          label="Seeded media, % of a filter's"
          value={own.seed_share * 100}
          {...range("WhatIfChange.seed_share", 100)}
          onChange={(v) => {
            set({ seed_share: v / 100 });
          }}
        />
        <NumberBox
          label="Dose, % of the advised"
          value={own.dose_factor * 100}
          {...range("WhatIfChange.dose_factor", 100)}
          onChange={(v) => {
            set({ dose_factor: v / 100 });
          }}
        />
        <QuantityField
          label="KH held at"
          unit="dKH"
          value={own.hold_kh_dkh}
          onChange={(v) => {
            set({ hold_kh_dkh: v });
          }}
        />
      </Fields>
      <Bar>
        <Button $quiet onPress={onLeave}>
          Leave it out
        </Button>
      </Bar>
    </>
  );
}

/** History of the forecast, and the effect of the newest test. */
function Moved({ history, dateOf }: { history: CycleHistory; dateOf: (day: number) => string }) {
  const last = history.seen.length - 1;
  return (
    <>
      {last > 0 && (
        <DayRanges
          title="How the forecast has moved"
          sentence={history.verdict}
          ranges={history.seen.map((s, i) => ({
            name: i === last ? "As it stands today" : `As it stood on ${dateOf(s.on_day)}`,
            low: s.pass_day_p10,
            middle: s.pass_day_p50,
            high: s.pass_day_p90,
            strong: i === last,
          }))}
          today={Math.min(...history.seen.map((s) => s.on_day))}
          dateOf={dateOf}
        />
      )}
      {history.pull && (
        <Lead>
          <Figure title="The newest test's pull" lines={history.working}>
            {history.pull}
          </Figure>
        </Lead>
      )}
    </>
  );
}

function RestsOn({ forecast, dateOf }: Pick<Props, "forecast" | "dateOf">) {
  return (
    <>
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

function TryOwn({ onTry }: { onTry: () => void }) {
  return (
    <Bar>
      <Button $quiet onPress={onTry}>
        Try a change of your own
      </Button>
    </Bar>
  );
}
