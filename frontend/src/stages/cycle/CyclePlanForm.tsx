/** Form of the cycle plan: method, resources, water, tap; checked as it is typed. */
import { useState } from "react";
import { useDraft, type Draft } from "../../api/drafts";
import { standing, useView } from "../../api/compute";
import { useBlanks, useLoadedTables } from "../../api/tables";
import type { CycleStartView, CyclePlan, MethodChoice, LogbookState, Tables } from "../../api/schemas";
import { Caution, Figure, InlineButton, Lead, PickOne, ProblemNote } from "../../kit";
import { SaveBar } from "../../shared/SaveBar";
import { Chooser, type Resources } from "./Chooser";
import { askedBy, MethodFields, type PlanFieldsProps } from "./MethodFields";
import { PlanJudged } from "./PlanCheck";
import { ProductFields } from "./ProductFields";
import { WaterFields } from "./WaterFields";

export function CyclePlanForm({ tankId, logbook }: { tankId: number; logbook: LogbookState }) {
  const form_defaults = useBlanks();
  const draft = useDraft<CyclePlan>(tankId, "cycle", logbook.plans.cycle, logbook.cycle_plan?.id ?? null);
  const plan = draft.value;
  const set = (change: Partial<CyclePlan>) => {
    draft.set((now) => ({ ...now, ...change }));
  };
  const first = logbook.cycle_plan == null;
  const tables = useLoadedTables();
  const [choosing, setChoosing] = useState(first);
  const [resources, setResources] = useState<Resources>({ ...form_defaults.resources, plants: plan.plants });
  const [animalsIn, setAnimalsIn] = useState(plan.method === "animals-in");
  const asked = useView(tankId, "begin", {
    cycle_plan: plan,
    ...(choosing ? { resources, animals_in: animalsIn } : {}),
  });
  const view = standing(asked);
  const take = (choice: MethodChoice) => {
    set(chosen(choice, resources, plan, tables));
    setChoosing(false);
  };
  return (
    <>
      {choosing ? (
        <Chooser
          methods={view?.methods ?? undefined}
          waiting={asked.isPending}
          onChoose={take}
          resources={resources}
          onResources={setResources}
          animalsIn={animalsIn}
          onAnimalsIn={setAnimalsIn}
        />
      ) : (
        <div>
          <InlineButton
            onPress={() => {
              setChoosing(true);
            }}
          >
            Compare the ways to cycle
          </InlineButton>
        </div>
      )}
      <MethodFields plan={plan} set={set} />
      {view?.dosed && <ProductFields plan={plan} set={set} />}
      <WaterFields plan={plan} set={set} view={view} />
      <ProblemNote problem={asked.error} />
      {view && <Judged plan={plan} set={set} view={view} />}
      <PlanBar tankId={tankId} draft={draft} first={first} begun={begunBefore(logbook)} />
      <Caution>{view?.caution}</Caution>
    </>
  );
}

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

/** The plan as judged: its conditions, what ppm means, and the first dose. */
function Judged({ plan, set, view }: PlanFieldsProps & { view: CycleStartView }) {
  return (
    <>
      <PlanJudged plan={plan} judged={view.judged} />
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
      <FirstDose view={view} />
    </>
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
      It will burn {dose.alkalinity_used_dkh.toFixed(1)} dKH and can make at most{" "}
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
  const now = () => (begun ? draft.value : { ...draft.value, started_at: new Date().toISOString() });
  return (
    <SaveBar
      tankId={tankId}
      draft={beginning ? { ...draft, dirty: true, value: now() } : draft}
      words={first && !begun ? "Begin the cycle" : "Save the plan"}
      describe={(b) =>
        `${b.method}, to ${b.target_ppm} ppm, begun ${new Date(b.started_at).toLocaleDateString()}`
      }
    />
  );
}
