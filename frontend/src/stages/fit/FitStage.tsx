/** Fit stage: each filter's layout on the section, cut list, steps, flood risk, and flow tests. */
import { useState, type ComponentProps } from "react";
import { Link, useLocation } from "react-router";
import { styled } from "styled-components";
import { useDraft, type Draft } from "../../api/drafts";
import { standing, useView } from "../../api/compute";
import type { FitPlan, FittedView, FitView, Layout, TankPlan } from "../../api/schemas";
import { Caution, Figure, Fold, Lead, PickOne, ProblemNote, Verdict, WaitingPage } from "../../kit";
import { Section } from "../../section/Section";
import { DrawingHere, TwoColumns } from "../../shared/TwoColumns";
import { type StageProps } from "../../shared/stageProps";
import { Dangers } from "./FloodRisk";
import { Devices } from "../../shared/Devices";
import { FlowTests } from "./FlowTests";
import { Moving } from "../../shared/CurrentsLegend";
import { LayoutForm } from "./LayoutForm";
import { Network } from "./Network";
import { MoveFilter } from "./MoveFilter";
import { Steps, useTickedHere } from "../../shared/Steps";
import { TakeoverNote } from "../../shared/TakeoverNote";
import { show } from "../../quantity/format";
import { NextStep } from "../../shared/NextStep";

export default function FitStage({ tankId, logbook }: StageProps) {
  const draft = useDraft<FitPlan>(tankId, "fit", logbook.plans.fit, logbook.fit_plan?.id ?? null);
  const asked = useView(tankId, "fit", { fit_plan: draft.value });
  const view = standing(asked);
  const plan = logbook.plans.tank;
  if (view?.filters[0])
    return <Fitting tankId={tankId} logbook={logbook} draft={draft} view={view} first={view.filters[0]} />;
  return (
    <TwoColumns
      drawing={
        <>
          <Section plan={plan} volume={view?.volume} caption="The tank, before a filter is chosen." />
          <ProblemNote problem={asked.error} />
        </>
      }
    >
      {view ? (
        <>
          <Verdict>{view.verdict}</Verdict>
          <Lead>
            <Link to={`/tanks/${tankId}/filter`}>To the Filter stage</Link>
          </Lead>
          <DrawingHere />
        </>
      ) : (
        !asked.error && <WaitingPage>Laying out the steps…</WaitingPage>
      )}
    </TwoColumns>
  );
}

interface FittingProps extends Pick<StageProps, "tankId" | "logbook"> {
  draft: Draft<FitPlan>;
  view: FitView;
  first: FittedView;
}

function Fitting({ tankId, logbook, draft, view, first }: FittingProps) {
  const [picked, setPicked] = useState<string | null>(null);
  const [mishap, setMishap] = useState<string | null>(null);
  const one = view.filters.find((f) => f.installed.key === picked) ?? first;
  const { key, layout } = one.installed;
  const put = (change: Partial<Layout>) => {
    draft.set((now) => ({
      ...now,
      places: { ...now.places, [key]: { ...(now.places[key] ?? layout), ...change } },
    }));
  };
  const here = useTickedHere(tankId);
  const replacing = new URLSearchParams(useLocation().search).has("replace");
  const move = <Replacing view={view} open={replacing} />;
  return (
    <TwoColumns
      drawing={
        <>
          <FitDrawing plan={logbook.plans.tank} view={view} one={one} mishap={mishap} put={put} />
          {view.currents && <Moving currents={view.currents} />}
          <FaultList one={one} />
        </>
      }
      beside={
        <Beside
          tankId={tankId}
          one={one}
          filters={view.filters.map((f) => [f.installed.key, f.installed.filter.name])}
          takeover={view.takeover}
          mishap={mishap}
          onMishap={setMishap}
        />
      }
    >
      <Verdict $small>
        {view.verdict}
        {here > 0 && ` And ${here} ticked here, sent when there is a connection.`}
      </Verdict>
      <DrawingHere />
      {view.filters.length > 1 && <WhichFilter view={view} one={one} onPick={setPicked} />}
      <AsLaid tankId={tankId} one={one} />
      {view.done_count === view.steps_count && <NextStep tankId={tankId} />}
      {view.takeover && <TakeoverNote takeover={view.takeover} />}
      {replacing && move}
      <LayoutForm tankId={tankId} draft={draft} one={one} put={put} />
      {draft.dirty && (
        <Caution>The layout on the drawing is not saved yet; it is kept on this device.</Caution>
      )}
      <StepsAndFlow tankId={tankId} one={one} done={logbook.steps_done[key] ?? {}} here={here} />
      {!replacing && move}
    </TwoColumns>
  );
}

function Replacing({ view, open }: { view: FitView; open: boolean }) {
  if (view.filters.length < 2) return null;
  return (
    <Fold summary="Replacing one by the other, or moving the tank: when, and how" open={open}>
      <MoveFilter known={view.takeover?.question} />
    </Fold>
  );
}

interface StepsAndFlowProps {
  tankId: number;
  one: FittedView;
  done: ComponentProps<typeof Steps>["done"];
  /** Steps ticked on this device that are not sent yet. */
  here: number;
}

/** What is left to do first: the steps, or, once they are done, the proof of the flow. */
function StepsAndFlow({ tankId, one, done, here }: StepsAndFlowProps) {
  const { key } = one.installed;
  const folded = stepsFolded(one);
  const steps = <Steps key={key} tankId={tankId} filterKey={key} steps={one.steps} done={done} />;
  const flow = <FlowTests key={key} tankId={tankId} one={one} />;
  if (folded !== null)
    return (
      <>
        {flow}
        <Fold summary={folded}>{steps}</Fold>
      </>
    );
  const ticked = here > 0 && one.done_count + here >= one.steps.length;
  // A flow that was timed is looked at again.
  const open = ticked || one.last_test !== null;
  return (
    <>
      {steps}
      <Fold key={ticked ? "ticked" : "open"} summary="Prove the flow, once it runs" open={open}>
        {flow}
      </Fold>
    </>
  );
}

/** Name of the folded steps, where there is nothing left to do of them; null while there is. */
function stepsFolded(one: FittedView): string | null {
  if (one.ran_already) return "It hung and ran before it came in here; its steps, for another time";
  return one.done_count === one.steps.length
    ? `All ${one.steps.length} steps are done; to look at them again`
    : null;
}

interface DrawingProps {
  plan: TankPlan;
  view: FitView;
  /** The selected filter. */
  one: FittedView;
  mishap: string | null;
  put: (change: Partial<Layout>) => void;
}

function FitDrawing({ plan, view, one, mishap, put }: DrawingProps) {
  const moving = (key: "intake_x_cm" | "outlet_x_cm" | "body_x_cm") => (cm: number) => {
    put({ [key]: cm });
  };
  return (
    <Section
      plan={plan}
      volume={view.volume}
      filters={view.filters.map(({ installed }) => ({
        key: installed.key,
        filter: installed.filter,
        fitting: installed.plan,
      }))}
      working={one.installed.key}
      lookAt={one.steps.find((s) => s.id === one.next_step_id)?.look_at ?? undefined}
      stopsBelowRimCm={one.danger.mishaps.find((m) => m.code === mishap)?.stops_below_rim_cm}
      currents={view.currents ?? undefined}
      onMove={{ intake: moving("intake_x_cm"), outlet: moving("outlet_x_cm"), body: moving("body_x_cm") }}
      caption={`${one.installed.filter.name} fitted to the tank, to scale. ${one.installed.plan.verdict}`}
    />
  );
}

interface BesideProps {
  tankId: number;
  one: FittedView;
  /** Key and name of each installed filter. */
  filters: [string, string][];
  takeover: FitView["takeover"];
  mishap: string | null;
  onMishap: (code: string | null) => void;
}

function Beside({ tankId, one, filters, takeover, mishap, onMishap }: BesideProps) {
  return (
    <>
      <CutList one={one} />
      <Dangers answer={one.danger} shown={mishap} onShow={onMishap} />
      {filters.length < 2 && (
        <Fold summary="Replacing a filter, or moving the tank">
          <MoveFilter known={takeover?.question} />
        </Fold>
      )}
      <Fold summary="Devices: a flow meter, a smart plug">
        <Devices tankId={tankId} filters={filters} />
      </Fold>
      {one.installed.flow.pumped && (
        <Fold summary="For the engineer: heads along the way, and the plumbing as a network">
          <Network tankId={tankId} one={one} />
        </Fold>
      )}
    </>
  );
}

function WhichFilter({
  view,
  one,
  onPick,
}: {
  view: FitView;
  one: FittedView;
  onPick: (key: string) => void;
}) {
  return (
    <PickOne
      label="Which filter"
      value={one.installed.key}
      onChange={onPick}
      options={view.filters.map((f): [string, string] => [
        f.installed.key,
        `${f.installed.filter.name}: ${f.done_count} of ${f.steps.length}`,
      ])}
    />
  );
}

function AsLaid({ tankId, one }: { tankId: number; one: FittedView }) {
  const { installed } = one;
  return (
    <Lead>
      As laid out it moves{" "}
      <Figure title="Flow as fitted" lines={installed.flow.working} of="delivered_lph">
        {show(installed.flow.delivered_lph, "L/h")}
      </Figure>
      . <Link to={`/tanks/${tankId}/sheet`}>The fitting sheet, to print</Link>
      {" · "}
      <a href={`/api/tanks/${tankId}/calendar.ics`} download>
        Checks as a calendar
      </a>
    </Lead>
  );
}

function FaultList({ one }: { one: FittedView }) {
  const { faults } = one.installed.plan;
  if (faults.length === 0) return null;
  return (
    <Faults aria-label="Faults in the plan">
      {faults.map((f) => (
        <li key={f.what}>
          {f.what} <b>{f.remedy}</b>
        </li>
      ))}
    </Faults>
  );
}

function CutList({ one }: { one: FittedView }) {
  const { cuts, working } = one.installed.plan;
  if (cuts.length === 0) return null;
  return (
    <Cuts aria-label="Cut list">
      {cuts.map((c) => (
        <li key={c.item}>
          <b>
            <Figure title={c.item} lines={working}>
              {c.unit === "cm" ? show(c.amount, "cm") : `${c.amount.toFixed(0)} ×`}
            </Figure>{" "}
            {c.item}
          </b>
          <small>{c.how}</small>
        </li>
      ))}
    </Cuts>
  );
}

const Faults = styled.ol`
  list-style: decimal;
  padding-left: 24px;
  color: var(--alarm);
  font-size: 0.9688rem;
  display: grid;
  gap: 4px;
`;
const Cuts = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
  gap: 4px 18px;
  font-size: 0.9688rem;
  small {
    display: block;
    color: var(--ink-soft);
    font-size: 0.875rem;
  }
`;
