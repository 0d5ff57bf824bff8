/** Fit: the steps in order with cautions at the step, and the timed bucket. */
import { useState } from "react";
import { CheckboxButton, CheckboxField } from "react-aria-components";
import { Link } from "react-router";
import { styled } from "styled-components";
import { useCompute, useWrite } from "../../api/hooks";
import type { FittingStep } from "../../api/schemas";
import {
  Button,
  Caution,
  Fields,
  Figure,
  Lead,
  NumberBox,
  phone,
  ProblemNote,
  Verdict,
  Waiting,
} from "../../kit";
import { Section } from "../../section/Section";
import { Bar, filterPlan, stockPlan, tankPlan, TwoColumns, type StageProps } from "../shared";

export function FitStage({ tankId, standing, tables, rank }: StageProps) {
  const plan = tankPlan(standing);
  const choice = filterPlan(standing);
  const filter = choice.chosen ?? null;
  const { animals } = stockPlan(standing);
  const volume = useCompute("tank-volume", plan.tank);
  const v = volume.data;
  const known = [...(rank.own_species ?? []), ...tables.species];
  const guard = animals.some((a) => known.find((s) => s.id === a.species_id)?.needs_guard);
  const steps = useCompute(
    "fitting-steps",
    filter && v
      ? {
          kind: filter.kind,
          filter_height_cm: filter.height_cm,
          water_depth_cm: v.water_depth_cm,
          rim_to_water_cm: plan.tank.fill_below_rim_cm,
          media_l: filter.media_l,
          hose_bore_mm: choice.plumbing?.hose_bore_mm ?? filter.hose_bore_mm,
          hose_length_m: filter.kind === "canister" ? (choice.plumbing?.hose_length_m ?? 2.8) : null,
          needs_guard: guard && filter.air_l_min == null,
          behind_cm: plan.surroundings?.behind_cm,
        }
      : null,
  );
  const flow = useCompute(
    "filter-flow",
    filter
      ? {
          filter,
          room: rank.room,
          plumbing: choice.plumbing,
          media: choice.media,
          animals: rank.animals,
          own_species: rank.own_species,
        }
      : null,
  );
  const computed = (flow.data?.pumped ?? flow.data?.lifted)?.delivered_lph;
  const done = steps.data?.steps.filter((s) => s.id in (standing.steps_done ?? {})).length ?? 0;
  const all = steps.data?.steps ?? [];
  if (!filter)
    return (
      <TwoColumns drawing={<Section plan={plan} volume={v} caption="The tank, before a filter is chosen." />}>
        <Verdict>Choose a filter first: the steps are made for it.</Verdict>
        <Lead>
          <Link to={`/tanks/${tankId}/filter`}>To the Filter stage</Link>
        </Lead>
      </TwoColumns>
    );
  const next = all.find((s) => !(s.id in (standing.steps_done ?? {})));
  return (
    <TwoColumns
      drawing={
        <Section
          plan={plan}
          volume={v}
          filter={filter}
          second={choice.second}
          caption={`${filter.name} fitted to the tank, to scale.`}
          labels={computed ? [{ at: "outlet", lines: [`${computed.toFixed(0)} L/h computed`] }] : []}
        />
      }
      beside={
        <>
          <FlowTest tankId={tankId} standing={standing} computed={computed} />
        </>
      }
    >
      <Verdict>
        {next ? (
          <>
            Next: <em>{next.title.toLowerCase()}.</em> {done} of {all.length} steps done.
          </>
        ) : all.length ? (
          <>Fitted: all {all.length} steps are done.</>
        ) : (
          `Fitting the ${filter.name}`
        )}
      </Verdict>
      {steps.isPending && <Waiting>Laying out the steps…</Waiting>}
      <ProblemNote problem={steps.error} />
      <Steps>
        {all.map((s, i) => (
          <StepRow
            key={s.id}
            tankId={tankId}
            step={s}
            number={i + 1}
            done={s.id in (standing.steps_done ?? {})}
            next={s.id === next?.id}
          />
        ))}
      </Steps>
    </TwoColumns>
  );
}

function StepRow({
  tankId,
  step,
  number,
  done,
  next,
}: {
  tankId: number;
  step: FittingStep;
  number: number;
  done: boolean;
  next: boolean;
}) {
  const write = useWrite(tankId);
  const wait = step.wait_minutes ?? 0;
  const ticked = write.isPending
    ? write.variables.body.kind === "step-done" && (write.variables.body.done ?? true)
    : done;
  return (
    <li data-next={next || undefined} data-done={ticked || undefined}>
      <CheckboxField
        isSelected={ticked}
        onChange={(on) => {
          write.mutate({ body: { kind: "step-done", step_id: step.id, done: on } });
        }}
      >
        <Tick>
          <i aria-hidden="true">{ticked ? "✓" : number}</i>
          <b>{step.title}</b>
        </Tick>
      </CheckboxField>
      <div>
        <p>{step.detail}</p>
        {(next || !ticked) && (
          <>
            {step.caution && <Caution>{step.caution}</Caution>}
            {step.normal && (
              <p>
                <b>Normal:</b> {step.normal}
              </p>
            )}
            {step.fault && (
              <p>
                <b>Fault:</b> {step.fault}
              </p>
            )}
            {wait > 0 && (
              <p>
                Wait {wait >= 1440 ? "a day" : wait >= 60 ? "an hour" : `${wait} minutes`} before the next.
              </p>
            )}
          </>
        )}
        {write.data === "held" && <p role="status">Kept on this device; it will be sent later.</p>}
        <ProblemNote problem={write.error} />
      </div>
    </li>
  );
}

function FlowTest({
  tankId,
  standing,
  computed,
}: Pick<StageProps, "tankId" | "standing"> & { computed?: number }) {
  const [litres, setLitres] = useState(2);
  const [times, setTimes] = useState<(number | null)[]>([null, null, null]);
  const write = useWrite(tankId);
  const filled = times.filter((t): t is number => t !== null);
  const question = filled.length ? { container_l: litres, times_s: filled, computed_lph: computed } : null;
  const last = standing.flow_tests?.at(-1)?.body;
  const kept =
    last?.kind === "flow-test"
      ? { container_l: last.container_l, times_s: last.times_s, computed_lph: last.computed_lph }
      : null;
  const answer = useCompute("bucket-test", question ?? kept);
  const shown = (question ?? kept) && !answer.error ? answer.data : undefined;
  return (
    <Bucket>
      <h2>Prove the flow: fill a known container, time it, three times</h2>
      <Fields $min={104}>
        <NumberBox label="Container, L" value={litres} min={0.05} max={200} onChange={setLitres} />
        {times.map((t, i) => (
          <NumberBox
            key={i}
            label={`Fill ${i + 1}, s`}
            value={t}
            min={0.5}
            max={3600}
            onChange={(v) => {
              setTimes((now) => now.map((x, j) => (j === i ? v : x)));
            }}
          />
        ))}
      </Fields>
      <ProblemNote problem={answer.error ?? write.error} />
      {shown && (
        <p role="status">
          {!question && "Last test: "}
          <Figure title="Flow test" lines={shown.working}>
            {shown.verdict}
          </Figure>
        </p>
      )}
      {shown && shown.likely_causes.length > 0 && (
        <ol>
          {shown.likely_causes.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ol>
      )}
      <Bar>
        <Button
          isDisabled={!question || write.isPending}
          onPress={() => {
            if (!question) return;
            write.mutate(
              { body: { kind: "flow-test", ...question } },
              {
                onSuccess: () => {
                  setTimes([null, null, null]);
                },
              },
            );
          }}
        >
          Log the flow test
        </Button>
        <span>Repeat monthly: it is the only window into a closed canister.</span>
      </Bar>
    </Bucket>
  );
}

const Steps = styled.ol`
  > li {
    display: grid;
    gap: 2px;
    border-top: 1px solid var(--line);
    padding: 7px 0 7px 8px;
    border-left: 4px solid transparent;
  }
  > li[data-next] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  > li > div {
    padding-left: 42px;
    display: grid;
    gap: 4px;
    font-size: 15.5px;
  }
  > li[data-done] > div p {
    color: var(--ink-soft);
  }
  ${phone} {
    > li > div {
      padding-left: 8px;
    }
  }
`;
const Tick = styled(CheckboxButton)`
  display: flex;
  gap: 12px;
  align-items: center;
  cursor: pointer;
  min-height: 36px;
  ${phone} {
    min-height: 44px;
  }
  i {
    font-style: normal;
    width: 30px;
    height: 30px;
    border: 2px solid var(--ink-soft);
    border-radius: 15px;
    display: grid;
    place-items: center;
    flex: none;
    font-size: 15px;
  }
  &[data-selected] i {
    background: var(--reed);
    border-color: var(--reed);
    color: var(--on-ink);
  }
  &[data-focus-visible] {
    outline: 3px solid var(--seed);
    outline-offset: 2px;
  }
`;
const Bucket = styled.section`
  background: var(--silt);
  padding: 12px 14px;
  display: grid;
  gap: 10px;
  ol {
    list-style: decimal inside;
    font-size: 15px;
  }
`;
