/** Form of the cycle plan: method, resources, water, tap; checked as it is typed. */
import { nowDate } from "../../api/clock";
import { useState } from "react";
import { styled } from "styled-components";
import { useDraft, type Draft } from "../../api/drafts";
import { standing, useView } from "../../api/compute";
import { useBlanks, useLoadedTables } from "../../api/tables";
import type { CycleStartView, CyclePlan, MethodChoice, LogbookState, Tables } from "../../api/schemas";
import { Caution, Figure, Fold, InlineButton, Lead, PickOne, ProblemNote } from "../../kit";
import { SaveBar } from "../../shared/SaveBar";
import { Chooser, type Resources } from "./Chooser";
import { askedBy, MethodFields, type PlanFieldsProps } from "./MethodFields";
import { PlanJudged } from "./PlanCheck";
import { ProductFields } from "./ProductFields";
import { WaterFields } from "./WaterFields";
import { LOCALE } from "../../quantity/locale";
import { fixed } from "../../quantity/format";

export function CyclePlanForm({ tankId, logbook }: { tankId: number; logbook: LogbookState }) {
  const draft = useDraft<CyclePlan>(tankId, "cycle", logbook.plans.cycle, logbook.cycle_plan?.id ?? null);
  const plan = draft.value;
  const set = (change: Partial<CyclePlan>) => {
    draft.set((now) => ({ ...now, ...change }));
  };
  const first = logbook.cycle_plan == null;
  const tables = useLoadedTables();
  const choice = useChoice(plan, first);
  const asked = useView(tankId, "begin", { cycle_plan: plan, ...choice.asked });
  const view = standing(asked);
  const bar = <PlanBar tankId={tankId} draft={draft} first={first} begun={begunBefore(logbook)} />;
  return (
    <>
      {first && (
        <BeginBox>
          {view && <p>{inShort(plan, view, tables)}</p>}
          {bar}
        </BeginBox>
      )}
      <ChosenMethod
        choice={choice}
        methods={view?.methods ?? undefined}
        waiting={asked.isPending}
        onChoose={(method) => {
          set(chosen(method, choice.resources, plan, tables));
        }}
      />
      <Details plan={plan} set={set} view={view} open={!first} chosen={!choice.choosing} />
      <ProblemNote problem={asked.error} />
      {view && <Judged plan={plan} view={view} />}
      {!first && bar}
      <Caution>{view?.caution}</Caution>
    </>
  );
}

interface DetailsProps extends PlanFieldsProps {
  view: CycleStartView | undefined;
  /** Whether everything stands open: once the cycle has begun. */
  open: boolean;
  /** Whether a method was taken, whose questions are then asked. */
  chosen: boolean;
}

/** How the method is done, and in which water. */
function Details({ plan, set, view, open, chosen }: DetailsProps) {
  return (
    <>
      <Fold
        key={chosen ? "taken" : "choosing"}
        summary="How it is done: the method, what is dosed, how strong it is"
        open={open || chosen}
      >
        <MethodFields plan={plan} set={set} />
        {view?.dosed && <ProductFields plan={plan} set={set} />}
        <Basis plan={plan} set={set} />
      </Fold>
      <Fold summary="Your water and your tap: KH, pH, warmth, chlorine" open={open}>
        <WaterFields plan={plan} set={set} view={view} />
      </Fold>
    </>
  );
}

/** What the keeper has for the cycle, while a method is chosen by it. */
function useChoice(plan: CyclePlan, first: boolean) {
  const form_defaults = useBlanks();
  const [choosing, setChoosing] = useState(first);
  const [resources, setResources] = useState<Resources>({ ...form_defaults.resources, plants: plan.plants });
  const [animalsIn, setAnimalsIn] = useState(plan.method === "animals-in");
  const asked = choosing ? { resources, animals_in: animalsIn } : {};
  return { choosing, setChoosing, resources, setResources, animalsIn, setAnimalsIn, asked };
}

interface ChosenMethodProps {
  choice: ReturnType<typeof useChoice>;
  methods?: NonNullable<CycleStartView["methods"]>;
  waiting: boolean;
  onChoose: (method: MethodChoice) => void;
}

function ChosenMethod({ choice, methods, waiting, onChoose }: ChosenMethodProps) {
  if (!choice.choosing)
    return (
      <div>
        <InlineButton
          onPress={() => {
            choice.setChoosing(true);
          }}
        >
          Compare the ways to cycle
        </InlineButton>
      </div>
    );
  return (
    <Chooser
      methods={methods}
      waiting={waiting}
      onChoose={(method) => {
        onChoose(method);
        choice.setChoosing(false);
      }}
      resources={choice.resources}
      onResources={choice.setResources}
      animalsIn={choice.animalsIn}
      onAnimalsIn={choice.setAnimalsIn}
    />
  );
}

/** The plan in a sentence: its method, when it is likely ready, and the first dose. */
function inShort(plan: CyclePlan, view: CycleStartView, tables: Tables): string {
  const title = tables.methods.find((m) => m.method === plan.method)?.title ?? plan.method;
  return [`${title}.`, view.judged.verdict, view.dose?.verdict].filter(Boolean).join(" ");
}

const BeginBox = styled.section.attrs({ "aria-label": "Begin" })`
  display: grid;
  gap: 8px;
  background: var(--silt);
  border-left: 4px solid var(--seed);
  padding: 12px 14px;
`;

function chosen(
  { method, helpers }: MethodChoice,
  resources: Resources,
  plan: CyclePlan,
  tables: Tables,
): Partial<CyclePlan> {
  return {
    method,
    helpers,
    seed_share: resources.media_share,
    plants: askedBy({ method, helpers }, tables).has("plants") ? resources.plants : plan.plants,
    bottle: { ...resources.bottle_label, in_date: resources.bottle !== "expired" },
  };
}

/** The plan as judged: its conditions, and the first dose. */
function Judged({ plan, view }: { plan: CyclePlan; view: CycleStartView }) {
  return (
    <>
      <PlanJudged plan={plan} judged={view.judged} />
      <FirstDose view={view} />
    </>
  );
}

function Basis({ plan, set }: PlanFieldsProps) {
  return (
    <PickOne
      label="ppm means"
      value={plan.basis}
      onChange={(basis) => {
        set({ basis });
      }}
      options={[
        ["ion", "the ion (most kits)"],
        ["N", "nitrogen (N)"],
      ]}
    />
  );
}

function FirstDose({ view }: { view: CycleStartView }) {
  const { dose, dose_refused } = view;
  if (dose_refused != null) return <p role="alert">{dose_refused}</p>;
  if (!dose) return null;
  return (
    <Lead>
      The first dose:{" "}
      <Figure title="The dose" lines={dose.working}>
        {dose.verdict}
      </Figure>{" "}
      It will burn {fixed(dose.alkalinity_used_dkh, 1)} dKH and can make at most{" "}
      {dose.nitrate_made_ppm_ion.toFixed(0)} ppm of nitrate.
    </Lead>
  );
}

/** Whether the tank was added with a cycle or animals: the plan then begins on that day. */
function begunBefore({ situation }: LogbookState): boolean {
  const stands = situation?.body.kind === "situation" ? situation.body.stands : "empty";
  return stands === "cycling" || stands === "animals-in" || stands === "running";
}

interface PlanBarProps {
  tankId: number;
  draft: Draft<CyclePlan>;
  /** Whether saving begins the cycle with the plan as it is. */
  first: boolean;
  begun: boolean;
}

function PlanBar({ tankId, draft, first, begun }: PlanBarProps) {
  const beginning = first && !draft.dirty;
  const now = () => (begun ? draft.value : { ...draft.value, started_at: nowDate().toISOString() });
  return (
    <SaveBar
      tankId={tankId}
      draft={beginning ? { ...draft, dirty: true, value: now() } : draft}
      fresh={beginning}
      words={first && !begun ? "Begin the cycle" : "Save the plan"}
      describe={(b) =>
        `${b.method}, to ${b.target_ppm} ppm, begun ${new Date(b.started_at).toLocaleDateString(LOCALE)}`
      }
    />
  );
}
