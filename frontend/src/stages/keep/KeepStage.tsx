/** Keep: the logbook itself, the flow over time, and what it costs to run. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { useCompute, useEntries, useWrite } from "../../api/hooks";
import type { Body, Entry } from "../../api/schemas";
import { ProblemError } from "../../api/client";
import {
  Button,
  Figure,
  InlineButton,
  Lead,
  PickOne,
  ProblemNote,
  TextField,
  Verdict,
  Waiting,
} from "../../kit";
import { Section } from "../../section/Section";
import { Bar, Facts, filterPlan, stockPlan, tankPlan, TwoColumns, type StageProps } from "../shared";

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
      <NewEntry tankId={tankId} netL={volume.data?.net_l} />
      <Logbook tankId={tankId} species={tables.species} />
    </TwoColumns>
  );
}

function lph(body: { container_l: number; times_s: number[] }): number {
  return body.times_s.reduce((sum, t) => sum + (body.container_l * 3600) / t, 0) / body.times_s.length;
}

type Doing = "note" | "water-change" | "media" | "power";

function NewEntry({ tankId, netL }: { tankId: number; netL?: number }) {
  const [doing, setDoing] = useState<Doing>("note");
  const [text, setText] = useState("");
  const write = useWrite(tankId);
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    let body: Body = { kind: "note", text };
    if (doing === "water-change") {
      const litres = Number(text.replace(",", "."));
      if (!(litres > 0) || !netL) return;
      body = { kind: "water-change", share: Math.min(litres / netL, 1), litres };
    } else if (doing === "media") body = { kind: "media-work", what: "rinsed", text };
    else if (doing === "power") body = { kind: "outage", running: text.trim().toLowerCase() !== "off" };
    write.mutate(
      { body },
      {
        onSuccess: () => {
          setText("");
        },
      },
    );
  };
  const ask: Record<Doing, string> = {
    note: "What happened?",
    "water-change": "Litres changed",
    media: "What was cleaned?",
    power: "Filter now: type off or on",
  };
  return (
    <form onSubmit={submit} aria-label="Write in the logbook">
      <PickOne
        label="Write down"
        value={doing}
        onChange={setDoing}
        options={[
          ["note", "A note"],
          ["water-change", "A water change"],
          ["media", "Media cleaned"],
          ["power", "Filter off or on"],
        ]}
      />
      <Bar style={{ alignItems: "end" }}>
        <Grow>
          <TextField label={ask[doing]} value={text} onChange={setText} />
        </Grow>
        <Button type="submit" isDisabled={!text.trim() || write.isPending}>
          Write it
        </Button>
      </Bar>
      {write.data === "held" && <p role="status">Kept on this device; it will be sent later.</p>}
      <ProblemNote problem={write.error} />
    </form>
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
      <h2>Logbook, newest first</h2>
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

function words(body: Entry["body"], species: StageProps["tables"]["species"]): string {
  const name = (id: string) => species.find((s) => s.id === id)?.common_name ?? id;
  switch (body.kind) {
    case "tank-plan":
      return `Tank: ${body.tank.length_cm} × ${body.tank.width_cm ?? 30} × ${body.tank.height_cm} cm`;
    case "stock-plan":
      return `Animals planned: ${body.animals.map((a) => `${a.count} ${name(a.species_id)}`).join(", ") || "none"}`;
    case "filter-plan":
      return body.chosen ? `Filter chosen: ${body.chosen.name}` : "Filter: plumbing and priorities";
    case "cycle-plan":
      return `Cycle planned: ${body.method === "seeded-filter" ? "a moved filter" : `measured ammonia to ${body.target_ppm ?? 2} ppm`}`;
    case "step-done":
      return `Step ${body.done === false ? "unticked" : "done"}: ${body.step_id.replace(/^[a-z]+-/, "").replaceAll("-", " ")}${body.note ? ` (${body.note})` : ""}`;
    case "flow-test":
      return `Flow timed: ${lph(body).toFixed(0)} L/h`;
    case "timed-flow":
      return `Flow found by ${body.method === "transit" ? "a float" : body.method === "meter" ? "the meter" : "the level in the box"}: ${body.measured_lph.toFixed(0)} L/h`;
    case "fit-plan":
      return "Where the parts go";
    case "reading":
      return `Test: ${[
        body.ammonia_ppm == null ? "" : `ammonia ${body.ammonia_ppm}`,
        body.nitrite_ppm == null
          ? ""
          : `nitrite ${body.nitrite_ppm}${body.off_scale?.includes("nitrite") ? "+" : ""}`,
        body.nitrate_ppm == null ? "" : `nitrate ${body.nitrate_ppm}`,
        body.ph == null ? "" : `pH ${body.ph}`,
        body.kh_dkh == null ? "" : `KH ${body.kh_dkh}`,
        body.temperature_c == null ? "" : `${body.temperature_c} °C`,
      ]
        .filter(Boolean)
        .join(", ")}${body.basis === "N" ? " (as N)" : ""}`;
    case "dose":
      return `Ammonia dosed: ${body.amount == null ? "" : `${Number(body.amount.toPrecision(3))} ${body.amount_unit ?? ""}, `}${body.raise_mg_n_l.toFixed(2)} mg N/L`;
    case "alkalinity":
      return `Bicarbonate added: ${body.grams == null ? "" : `${body.grams.toFixed(0)} g, `}KH up ${body.raise_dkh.toFixed(1)} dKH`;
    case "water-change":
      return `Water changed: ${(body.share * 100).toFixed(0)} %`;
    case "outage":
      return body.running ? "Filter running again" : "Filter off";
    case "media-work":
      return `Media ${body.what.replace("-", " ")}${body.text ? `: ${body.text}` : ""}`;
    case "stocking":
      return `${body.count > 0 ? "Put in" : "Lost"}: ${Math.abs(body.count)} ${name(body.species_id)}`;
    case "note":
      return body.text;
    case "withdrawal":
      return "An entry was taken back";
  }
}

const Grow = styled.div`
  flex: 1 1 260px;
`;
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
