/** Keep: the logbook itself, the flow over time, and what it costs to run. */
import { styled } from "styled-components";
import { useCompute, useEntries, useWrite } from "../../api/hooks";
import { ProblemError } from "../../api/client";
import { Figure, InlineButton, Lead, ProblemNote, Verdict, Waiting } from "../../kit";
import { Section } from "../../section/Section";
import { NewEntry } from "./NewEntry";
import { Seeds } from "./Seeds";
import { lph, words } from "./words";
import { Facts, filterPlan, stockPlan, tankPlan, TwoColumns, type StageProps } from "../shared";

export function KeepStage({ tankId, standing, tables }: StageProps) {
  const plan = tankPlan(standing);
  const choice = filterPlan(standing);
  const volume = useCompute("tank-volume", plan.tank);
  const cost = useCompute(
    "running-cost",
    choice.chosen
      ? {
          watts: choice.chosen.watts,
          price_per_kwh: choice.price_per_kwh,
          purchase_price: choice.chosen.price,
        }
      : null,
  );
  const tests = (standing.flow_tests ?? []).flatMap((e) =>
    e.body.kind === "flow-test" ? [{ at: e.at, body: e.body }] : [],
  );
  const last = tests.at(-1);
  const flow = useCompute(
    "bucket-test",
    last
      ? {
          container_l: last.body.container_l,
          times_s: last.body.times_s,
          computed_lph: tests[0] && tests.length > 1 ? lph(tests[0].body) : last.body.computed_lph,
        }
      : null,
  );
  const days = last ? Math.floor((Date.now() - new Date(last.at).getTime()) / 86_400_000) : null;
  const first = tests[0];
  const share = last && first && tests.length > 1 ? lph(last.body) / lph(first.body) : null;
  return (
    <TwoColumns
      drawing={
        <Section
          plan={plan}
          volume={volume.data}
          filter={choice.chosen}
          animals={stockPlan(standing).animals}
          species={tables.species}
          caption="The tank as it stands."
        />
      }
    >
      <Verdict>
        {share != null && share < 0.85 ? (
          <>
            The flow has fallen to <em>{(share * 100).toFixed(0)} % of what it was.</em> Clean the filter,
            then time it again.
          </>
        ) : days == null ? (
          "The logbook. Time the flow once a month, and write down what you do."
        ) : days > 30 ? (
          <>The flow was last timed {days} days ago: time it again.</>
        ) : (
          <>
            Running: the flow was timed {days === 0 ? "today" : days === 1 ? "yesterday" : `${days} days ago`}
            .
          </>
        )}
      </Verdict>
      <Facts>
        {flow.data && last && (
          <div>
            <dt>Flow, last timed {new Date(last.at).toLocaleDateString()}</dt>
            <dd>
              <Figure title="Measured flow" lines={flow.data.working}>
                {flow.data.measured_lph.toFixed(0)} L/h
              </Figure>
              {flow.data.plus_minus_lph != null && <small> ± {flow.data.plus_minus_lph.toFixed(0)}</small>}
            </dd>
          </div>
        )}
        {cost.data && (
          <>
            <div>
              <dt>Energy</dt>
              <dd>
                <Figure title="Energy" lines={cost.data.working}>
                  {cost.data.kwh_year.toFixed(0)} kWh a year
                </Figure>
              </dd>
            </div>
            <div>
              <dt>Costs to run</dt>
              <dd>
                <Figure title="Running cost" lines={cost.data.working}>
                  {cost.data.money_year.toFixed(2)} a year
                </Figure>
                <small> {cost.data.money_month.toFixed(2)} a month</small>
              </dd>
            </div>
          </>
        )}
      </Facts>
      {tests.length > 1 && (
        <Lead>
          Flow tests:{" "}
          {tests
            .map((t) => `${new Date(t.at).toLocaleDateString()} ${lph(t.body).toFixed(0)} L/h`)
            .join(", ")}
          .
        </Lead>
      )}
      <Seeds tankId={tankId} />
      <NewEntry tankId={tankId} netL={volume.data?.net_l} standing={standing} tables={tables} />
      <Logbook tankId={tankId} species={tables.species} />
    </TwoColumns>
  );
}

function Logbook({ tankId, species }: { tankId: number; species: StageProps["tables"]["species"] }) {
  const entries = useEntries(tankId);
  const write = useWrite(tankId);
  if (entries.isPending) return <Waiting>Opening the logbook…</Waiting>;
  if (entries.error)
    return <ProblemNote problem={entries.error instanceof ProblemError ? entries.error : null} />;
  const replaced = new Map(
    entries.data.entries.filter((e) => e.supersedes != null).map((e) => [e.supersedes, e]),
  );
  return (
    <section aria-label="Logbook">
      <h2>Logbook, last written first</h2>
      {entries.data.entries.length === 0 && <Lead>Nothing is written yet.</Lead>}
      <Lines>
        {entries.data.entries.map((e) => {
          const gone = replaced.get(e.id);
          return (
            <li key={e.id} data-gone={gone ? true : undefined}>
              <time dateTime={e.at}>
                {new Date(e.at).toLocaleString(undefined, {
                  day: "numeric",
                  month: "short",
                  hour: "2-digit",
                  minute: "2-digit",
                })}
              </time>
              <span>
                {gone ? <s>{words(e.body, species)}</s> : words(e.body, species)}
                {gone && (gone.body.kind === "withdrawal" ? " (taken back)" : " (corrected)")}
              </span>
              {!gone && e.body.kind !== "withdrawal" && !e.body.kind.endsWith("-plan") && (
                <InlineButton
                  aria-label={`Take back: ${words(e.body, species)}`}
                  onPress={() => {
                    write.mutate({ body: { kind: "withdrawal" }, supersedes: e.id });
                  }}
                >
                  Take back
                </InlineButton>
              )}
            </li>
          );
        })}
      </Lines>
      <ProblemNote problem={write.error} />
    </section>
  );
}

const Lines = styled.ul`
  max-height: 380px;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: 118px minmax(0, 1fr) auto;
    gap: 10px;
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
    align-items: baseline;
  }
  time {
    color: var(--ink-soft);
    font-size: 15px;
  }
  li[data-gone] {
    color: var(--ink-soft);
  }
`;
