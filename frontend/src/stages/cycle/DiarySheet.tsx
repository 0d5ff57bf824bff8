/** Printed cycle diary: plan, chart, every test and event in order, what comes next. */
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useCycle, useTank } from "../../api/tanks";
import { useTables } from "../../api/tables";
import type { CycleState, Entry, LogbookState, Tables } from "../../api/schemas";
import { Opening } from "../../shared/NotFetched";
import { Page } from "../../shared/Page";
import { CycleLog } from "../../charts/CycleLog";
import { Button, Lead, Verdict } from "../../kit";
import { kitPpm } from "../../quantity/ppm";
import { Bar } from "../../kit";
import { words } from "../../shared/entryWords";
import { cycleStart, dater } from "../../shared/cycleDates";
import { show } from "../../quantity/format";
import { LOCALE } from "../../quantity/locale";

export default function DiarySheet() {
  const tankId = Number(useParams().tankId);
  const tank = useTank(tankId);
  const tables = useTables();
  const cycle = useCycle(tankId);
  return (
    <Page name={tank.data?.tank.name}>
      <title>{`${tank.data?.tank.name ?? "Tank"}: cycle diary · Reedmace`}</title>
      <Opening asked={[tank, tables, cycle]}>Writing the diary…</Opening>
      {tank.data && tables.data && cycle.data && (
        <Sheet
          tankId={tankId}
          name={tank.data.tank.name}
          logbook={tank.data.state}
          tables={tables.data}
          state={cycle.data}
        />
      )}
    </Page>
  );
}

interface Props {
  tankId: number;
  name: string;
  logbook: LogbookState;
  tables: Tables;
  state: CycleState;
}

function Sheet({ tankId, name, logbook, tables, state }: Props) {
  const start = cycleStart(logbook);
  const dateOf = dater(start);
  const plan = logbook.cycle_plan?.body;
  if (plan?.kind !== "cycle-plan" || !state.log)
    return (
      <>
        <Verdict>Begin the cycle first: the diary is of its days.</Verdict>
        <Link to={`/tanks/${tankId}/cycle`}>To the Cycle stage</Link>
      </>
    );
  const days = daysOf(logbook, start, dateOf);
  return (
    <Paper>
      <Verdict $small>{name}: cycle diary</Verdict>
      <Bar className="screen-only">
        <Button
          onPress={() => {
            window.print();
          }}
        >
          Print
        </Button>
        <Link to={`/tanks/${tankId}/cycle`}>Back to Cycle</Link>
      </Bar>
      <Lead>
        {tables.methods.find((m) => m.method === plan.method)?.title}, begun{" "}
        {start.toLocaleDateString(LOCALE)}, at {show(plan.temperature_c, "°C")}, KH {plan.start_kh_dkh} dKH,
        pH {plan.start_ph}, in {show(state.log.net_l, "L")}. Today is day {Math.floor(state.log.day_now)}.
      </Lead>
      {state.forecast && (
        <CycleLog
          log={state.log}
          forecast={state.forecast}
          share={kitPpm(tables, state.log.kit)}
          passed={state.readiness?.ready}
          dateOf={dateOf}
        />
      )}
      <h2>Today</h2>
      {state.advice && <p>{state.advice.verdict}</p>}
      {state.advice && (
        <ol className="today">
          {[state.advice.first, ...state.advice.then].map((a) => (
            <li key={a.title}>
              <span className="tick" aria-hidden="true" /> <b>{a.title}.</b> {a.detail} {a.caution}
            </li>
          ))}
        </ol>
      )}
      <h2>What was done and read</h2>
      <dl className="days">
        {[...days].map(([day, entries]) => (
          <div key={day}>
            <dt>{day}</dt>
            <dd>{entries.map((e) => words(e.body, tables)).join(". ")}.</dd>
          </div>
        ))}
      </dl>
      {state.readiness && <p>{state.readiness.verdict}</p>}
    </Paper>
  );
}

function daysOf(logbook: LogbookState, start: Date, dateOf: (day: number) => string): Map<string, Entry[]> {
  const deeds = [
    ...logbook.readings,
    ...logbook.doses,
    ...logbook.alkalinity,
    ...logbook.changes,
    ...logbook.events,
  ]
    .filter((e) => new Date(e.at).getTime() >= start.getTime() - 86_400_000)
    .sort((a, b) => a.at.localeCompare(b.at));
  const days = new Map<string, Entry[]>();
  for (const e of deeds) {
    const day = Math.max(Math.floor((new Date(e.at).getTime() - start.getTime()) / 86_400_000), 0);
    const key = `Day ${day}, ${dateOf(day)}`;
    days.set(key, [...(days.get(key) ?? []), e]);
  }
  return days;
}

const Paper = styled.div`
  display: grid;
  gap: 10px;
  max-width: 860px;
  .days {
    columns: 2;
    column-gap: 28px;
    font-size: 0.9375rem;
  }
  .days div {
    break-inside: avoid;
    margin-bottom: 5px;
  }
  dt {
    font-weight: 600;
  }
  .tick {
    display: inline-block;
    width: 12px;
    height: 12px;
    border: 1.5px solid var(--ink-soft);
    margin-right: 4px;
    vertical-align: -1px;
  }
  @media (max-width: 45em) {
    .days {
      columns: 1;
    }
  }
  @media print {
    font-size: 0.7812rem;
    .days {
      font-size: 0.75rem;
    }
  }
`;
