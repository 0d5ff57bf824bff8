/** Cycle: what to do today and why, the log as a chart, when it will be ready, whether it is. */
import { useState } from "react";
import { styled } from "styled-components";
import { useCompute, useCycle, useWrite } from "../../api/hooks";
import type { Action, Body, CycleLog as Log, CycleState, Entry } from "../../api/schemas";
import { ProblemError } from "../../api/client";
import { CycleLog } from "../../charts/CycleLog";
import { Button, Figure, InlineButton, Lead, phone, ProblemNote, Verdict, Waiting } from "../../kit";
import { Section } from "../../section/Section";
import { filterPlan, tankPlan, TwoColumns, type StageProps } from "../shared";
import { CsvTools } from "./CsvTools";
import { CyclePlanForm } from "./CyclePlanForm";
import { LogTest } from "./LogTest";

export function CycleStage(props: StageProps) {
  const { tankId, standing, tables } = props;
  const plan = tankPlan(standing);
  const volume = useCompute("tank-volume", plan.tank);
  const cycle = useCycle(tankId);
  const [planning, setPlanning] = useState(false);
  const filter = filterPlan(standing).chosen;
  const latest = standing.readings?.at(-1);
  const state = cycle.data;
  const begun = state?.log != null && state.advice != null && state.readiness != null;
  const start =
    standing.cycle_plan?.body.kind === "cycle-plan"
      ? new Date(standing.cycle_plan.body.started_at)
      : new Date();
  const dateOf = (day: number) =>
    new Date(start.getTime() + day * 86_400_000).toLocaleDateString(undefined, {
      day: "numeric",
      month: "short",
    });
  return (
    <TwoColumns
      drawing={
        <>
          <Section
            plan={plan}
            volume={volume.data}
            filter={filter}
            water={waterWords(latest)}
            caption={`What the water carries: ${waterWords(latest).join(", ") || "not tested yet"}.`}
          />
          <LogTest tankId={tankId} />
        </>
      }
      beside={begun && <Why state={state} />}
    >
      <ProblemNote problem={cycle.error instanceof ProblemError ? cycle.error : null} />
      {cycle.isPending && <Waiting>Running the forecast…</Waiting>}
      {state && !begun && (
        <>
          <Verdict>
            Nothing lives in the filter yet. Begin its cycle, and the tests will say when animals may come.
          </Verdict>
          <CyclePlanForm tankId={tankId} standing={standing} netL={volume.data?.net_l} />
        </>
      )}
      {begun && state.advice && state.readiness && state.log && (
        <>
          <Verdict>{state.advice.verdict}</Verdict>
          <First action={state.advice.first} log={state.log} tankId={tankId} lines={state.advice.working} />
          <Then>
            {state.advice.then.map((a) => (
              <li key={a.title}>
                <b>{a.title}</b>
                <span>{a.detail}</span>
              </li>
            ))}
            <li>
              <b>{state.readiness.ready ? "Animals: yes" : "Animals: not yet"}</b>
              <span>
                <Figure title="Ready or not" lines={state.readiness.working}>
                  {state.readiness.verdict}
                </Figure>
              </span>
            </li>
          </Then>
          {state.forecast && (
            <>
              <Lead>
                <Figure title="The forecast" lines={state.forecast.working}>
                  {state.forecast.verdict}
                </Figure>{" "}
                {state.forecast_left_alone?.outcome === "no-date" &&
                  state.forecast.outcome === "range" &&
                  "Without bicarbonate: no date at all. "}
                {state.forecast.pass_day_p10 != null &&
                  state.forecast.pass_day_p90 != null &&
                  !state.readiness.ready &&
                  `That is ${dateOf(state.forecast.pass_day_p10)} to ${dateOf(state.forecast.pass_day_p90)}.`}
              </Lead>
              <CycleLog
                log={state.log}
                forecast={state.forecast}
                share={tables.nitrogen_share}
                dateOf={dateOf}
              />
            </>
          )}
          <Standards state={state} />
          <div>
            <InlineButton
              onPress={() => {
                setPlanning(!planning);
              }}
            >
              {planning ? "Close the plan" : "Change the plan of this cycle"}
            </InlineButton>
          </div>
          {planning && <CyclePlanForm tankId={tankId} standing={standing} netL={volume.data?.net_l} />}
        </>
      )}
      <CsvTools tankId={tankId} count={standing.readings?.length ?? 0} />
    </TwoColumns>
  );
}

function waterWords(latest: Entry | undefined): string[] {
  if (latest?.body.kind !== "reading") return [];
  const r = latest.body;
  const off = r.off_scale ?? [];
  const words: string[] = [];
  const figure = (name: string, value: number | null | undefined, what: "ammonia" | "nitrite" | "nitrate") =>
    value == null ? null : `${name} ${value}${off.includes(what) ? " or more" : ""}`;
  // Large: whichever poison stands higher.
  const pair = [figure("ammonia", r.ammonia_ppm, "ammonia"), figure("nitrite", r.nitrite_ppm, "nitrite")];
  if ((r.nitrite_ppm ?? -1) > (r.ammonia_ppm ?? -1)) pair.reverse();
  const large = pair.find(Boolean);
  if (large) words.push(large);
  const rest = [
    pair[0] ? pair[1] : null,
    figure("nitrate", r.nitrate_ppm, "nitrate"),
    r.kh_dkh == null ? null : `KH ${r.kh_dkh}`,
    r.ph == null ? null : `pH ${r.ph}`,
    r.temperature_c == null ? null : `${r.temperature_c} °C`,
  ];
  const second = rest.filter(Boolean).join(" · ");
  if (second) words.push(second);
  words.push(
    `read ${new Date(latest.at).toLocaleString(undefined, { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit" })}`,
  );
  return words;
}

/** The entry a finished action makes, or null when a test is what it asks for. */
function entryOf(action: Action, log: Log): Body | null {
  if (action.do === "dose-ammonia") {
    const unit =
      action.amount_unit === "g" || action.amount_unit === "mL" || action.amount_unit === "drops"
        ? action.amount_unit
        : undefined;
    return action.raise_mg_n_l == null
      ? null
      : { kind: "dose", raise_mg_n_l: action.raise_mg_n_l, amount: action.amount, amount_unit: unit };
  }
  if (action.do === "raise-kh")
    return action.raise_dkh == null
      ? null
      : { kind: "alkalinity", raise_dkh: action.raise_dkh, grams: action.amount };
  if (action.do === "change-water" && action.amount != null)
    return { kind: "water-change", share: Math.min(action.amount / log.net_l, 1), litres: action.amount };
  if (action.do === "start-filter") return { kind: "outage", running: true };
  return null;
}

function First({
  action,
  log,
  tankId,
  lines,
}: {
  action: Action;
  log: Log;
  tankId: number;
  lines: Parameters<typeof Figure>[0]["lines"];
}) {
  const write = useWrite(tankId);
  const undo = useWrite(tankId);
  const body = entryOf(action, log);
  const written = write.data && write.data !== "held" ? write.data : null;
  return (
    <>
      <FirstBox>
        <p className="amount">
          <Figure title={action.title} lines={lines}>
            {action.title}
          </Figure>
        </p>
        <div>
          <p>{action.detail}</p>
          <p className="why">{action.reason}</p>
          {action.caution && <p className="why">{action.caution}</p>}
        </div>
        {body ? (
          <Button
            isDisabled={write.isPending}
            onPress={() => {
              write.mutate({ body });
            }}
          >
            Done
          </Button>
        ) : action.do === "test" ? (
          <Button
            onPress={() => {
              document.querySelector<HTMLInputElement>("[data-quick-entry] input")?.focus();
            }}
          >
            Log it
          </Button>
        ) : null}
      </FirstBox>
      {written && (
        <p role="status">
          Written in the logbook.{" "}
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

function Why({ state }: { state: CycleState }) {
  const { advice } = state;
  if (!advice || advice.causes.length === 0) return null;
  return (
    <Causes aria-label="Why it has stalled">
      <h2>Why it has stalled</h2>
      <ul>
        {advice.causes.map((c) => (
          <li key={c.title}>
            <b>{c.title}</b> {c.detail}
          </li>
        ))}
        {advice.ruled_out.length > 0 && (
          <li>
            <b>Not the cause:</b>{" "}
            {advice.ruled_out
              .map((c) => c.detail.replace(/\.$/, "").replace(/^[A-Z](?=[a-z])/, (l) => l.toLowerCase()))
              .join("; ")}
            .
          </li>
        )}
      </ul>
    </Causes>
  );
}

function Standards({ state }: { state: CycleState }) {
  return (
    <section aria-label="Standards of ready">
      <h2>
        Ready, by each standard (
        {state.readiness?.confidence === "none"
          ? "no tests yet"
          : `${state.readiness?.confidence} confidence from the tests so far`}
        )
      </h2>
      <Table>
        <tbody>
          {state.readiness?.standards.map((s) => (
            <tr key={s.standard}>
              <th scope="row">
                {s.title}
                {s.followed && <i> (followed here: it asks for the bacteria your animals need)</i>}
              </th>
              <td>
                {s.cleared} of {s.needed}
              </td>
              <td>{s.passes ? "passes" : s.missing}</td>
            </tr>
          ))}
        </tbody>
      </Table>
    </section>
  );
}

const FirstBox = styled.section.attrs({ "aria-label": "First, today" })`
  display: grid;
  grid-template-columns: minmax(130px, auto) minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  background: var(--silt);
  border-left: 4px solid var(--seed);
  padding: 12px 14px;
  .amount {
    font:
      600 21px/1.2 Vollkorn,
      serif;
    max-width: 210px;
  }
  .why {
    color: var(--ink-soft);
    font-size: 15px;
  }
  ${phone} {
    grid-template-columns: 1fr;
    .amount {
      max-width: none;
    }
  }
`;
const Then = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(136px, 1fr));
  gap: 6px 16px;
  li {
    border-top: 1px solid var(--line);
    padding-top: 4px;
  }
  b,
  span {
    display: block;
  }
  span {
    color: var(--ink-soft);
    font-size: 15px;
    line-height: 1.3;
  }
`;
const Causes = styled.section`
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
    gap: 6px 20px;
  }
  li {
    font-size: 15.5px;
  }
`;
const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 15px;
  th {
    font-weight: 400;
    text-align: left;
  }
  th,
  td {
    border-bottom: 1px solid var(--line);
    padding: 4px 12px 4px 0;
    vertical-align: top;
  }
  td:nth-child(2) {
    white-space: nowrap;
  }
`;
