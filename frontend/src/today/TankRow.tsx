/** One tank on Today: what is to be done there, and the presses that log it. */
import { Link } from "react-router";
import { useTables } from "../api/tables";
import { useTank } from "../api/tanks";
import { useDone, useWrite } from "../api/entries";
import type { TodayRow } from "../api/schemas";
import { Button, InlineButton, ProblemNote } from "../kit";
import { DONE, entryOf } from "../shared/CycleActions";
import { about } from "../shared/cycleDates";
import { Section } from "../section/Section";
import { hanging } from "../shared/installedFilters";
import { LOCALE } from "../quantity/locale";

const STAGE_NAMES: Record<TodayRow["stage"], string> = {
  tank: "Tank",
  stock: "Stock",
  filter: "Filter",
  fit: "Fit",
  cycle: "Cycle",
  keep: "Keep",
};

export function TankRow({ row }: { row: TodayRow }) {
  const { tank } = row;
  const state = useTank(tank.id);
  const tables = useTables();
  const to = `/tanks/${tank.id}/${row.stage}`;
  const words = Object.fromEntries(tank.stages.map((s) => [s.stage, s.words]));
  return (
    <li data-urgent={row.urgent || undefined}>
      <div className="sketch">
        {state.data && (
          <Section
            plan={state.data.state.plans.tank}
            filters={hanging(state.data.state.plans.filter)}
            animals={state.data.state.plans.stock.animals}
            species={tables.data?.species}
            caption={`${tank.name}, drawn to scale.`}
          />
        )}
      </div>
      <div>
        <h2>
          <Link to={to}>{tank.name}</Link>
        </h2>
        <p className="where">
          {tank.of && `${tank.of}’s · `}
          {words.tank} · {words.stock} · {words.filter} · {words.cycle}
        </p>
        <p className="verdict">{row.verdict}</p>
        {row.way && <p className="where">{row.way}</p>}
      </div>
      <div>
        <WhatNow row={row} />
      </div>
      <div className="go">
        <OneTap row={row} />
        <Link to={to}>{row.stage === "cycle" ? "Log a test" : `To ${STAGE_NAMES[row.stage]}`}</Link>
      </div>
    </li>
  );
}

/** A stop, then the cycle's first action, then other tasks: the first present, with what is due beside it. */
function WhatNow({ row }: { row: TodayRow }) {
  const { advice, stop, illness } = row;
  const waiting = row.due.map((d) => (
    <p key={d.key}>
      <Link to={`/tanks/${row.tank.id}/${d.stage}`}>{d.title}</Link>{" "}
      <span className="where">{dueWords(d.at)}</span>
    </p>
  ));
  if (stop)
    return (
      <>
        <b>{stop.first}</b>
        {stop.steps.slice(0, 2).map((s) => (
          <p key={s}>{s}</p>
        ))}
        {waiting}
      </>
    );
  if (illness)
    return (
      <>
        <b>{illness.first}</b>
        {waiting}
      </>
    );
  if (advice)
    return (
      <>
        <b>{advice.first.title}</b>
        <p>{advice.first.detail}</p>
        {advice.coming_stalls.map((f) => (
          <p key={f.kind}>
            <b>
              {f.what} {about(new Date(row.cycle_started_at ?? Date.now()), f.day)}.
            </b>
          </p>
        ))}
        {advice.then[0] && <p className="where">Then: {advice.then[0].inside}.</p>}
        {waiting}
      </>
    );
  return (
    <>
      {waiting}
      <p className="where">Next in {STAGE_NAMES[row.stage]}.</p>
    </>
  );
}

/** The first action recorded with one tap, and undone with another. */
function OneTap({ row }: { row: TodayRow }) {
  const write = useDone(row.tank.id);
  const undo = useWrite(row.tank.id);
  const action = row.advice?.first;
  const body = action && row.net_l ? entryOf(action, row.net_l, row.growth_seen) : null;
  const written = write.data && write.data !== "held" ? write.data : null;
  return (
    <>
      {action && body && (
        <Button
          $quiet
          isDisabled={write.busy}
          aria-label={`${row.tank.name}: ${action.title}. ${DONE[action.do] ?? "Done"}`}
          onPress={() => {
            write.mutate({ body });
          }}
        >
          {DONE[action.do] ?? "Done"}
        </Button>
      )}
      {written && (
        <p role="status">
          Written.{" "}
          <InlineButton
            onPress={() => {
              undo.mutate(
                { body: { kind: "withdrawal" }, supersedes: written.id },
                {
                  onSuccess: () => {
                    write.reset();
                  },
                },
              );
            }}
          >
            Undo
          </InlineButton>
        </p>
      )}
      <ProblemNote problem={write.error ?? undo.error} />
    </>
  );
}

function dueWords(at: string): string {
  const late = Date.now() - new Date(at).getTime();
  if (late > 86_400_000) return `due ${Math.floor(late / 86_400_000)} days ago`;
  if (late > 0) return "due now";
  return `due ${new Date(at).toLocaleString(LOCALE, { weekday: "short", hour: "2-digit", minute: "2-digit" })}`;
}
