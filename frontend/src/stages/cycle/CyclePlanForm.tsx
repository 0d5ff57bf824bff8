/** The cycle's plan: how, with what, in which water, from which tap; judged as it is typed. */
import { useState } from "react";
import { useDraft } from "../../api/drafts";
import { useBlanks, useCompute } from "../../api/hooks";
import type { CyclePlan, MethodChoice, LogbookState } from "../../api/schemas";
import { Caution, Figure, InlineButton, Lead, PickOne, ProblemNote } from "../../kit";
import { SaveBar } from "../shared";
import { Chooser, type Resources } from "./Chooser";
import { MethodFields } from "./MethodFields";
import { PlanJudged } from "./PlanJudged";
import { ProductFields } from "./ProductFields";
import { WaterFields } from "./WaterFields";

const DOSED: CyclePlan["method"][] = ["measured-ammonia", "seeded-filter", "side-by-side", "mature-rock"];

export function CyclePlanForm({
  tankId,
  logbook,
  netL,
}: {
  tankId: number;
  logbook: LogbookState;
  netL?: number;
}) {
  const blanks = useBlanks();
  const draft = useDraft<CyclePlan>(tankId, "cycle", logbook.plans.cycle, logbook.cycle_plan?.id ?? null);
  const plan = draft.value;
  const { product } = plan;
  const dose = useCompute(
    "ammonia-dose",
    netL ? { net_l: netL, target_ppm: plan.target_ppm, basis: plan.basis, product } : null,
  );
  const set = (change: Partial<CyclePlan>) => {
    draft.set((now) => ({ ...now, ...change }));
  };
  const first = logbook.cycle_plan == null;
  const [choosing, setChoosing] = useState(first);
  const [resources, setResources] = useState<Resources>({ ...blanks.resources, plants: plan.plants });
  const stock = logbook.plans.stock;
  const load = useCompute(
    "waste-load",
    netL && stock.animals.length
      ? { net_l: netL, animals: stock.animals, own_species: stock.own_species, feed_g_day: stock.feed_g_day }
      : null,
  );
  const phosphate = logbook.readings
    .flatMap((e) => (e.body.kind === "reading" && e.body.phosphate_ppm != null ? [e.body.phosphate_ppm] : []))
    .at(-1);
  const take = (choice: MethodChoice) => {
    set({
      method: choice.method,
      helpers: choice.helpers,
      seed_share: resources.media_share,
      plants:
        choice.helpers.includes("plants") || choice.method === "planted" ? resources.plants : plan.plants,
      bottle: { ...resources.bottle_label, in_date: resources.bottle !== "expired" },
    });
    setChoosing(false);
  };
  const dosed = DOSED.includes(plan.method);
  return (
    <>
      {choosing && netL ? (
        <Chooser
          plan={plan}
          netL={netL}
          loadMgNLDay={load.data?.ammonia_mg_n_l_day}
          onChoose={take}
          resources={resources}
          onResources={setResources}
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
      {dosed && <ProductFields plan={plan} set={set} />}
      <WaterFields plan={plan} set={set} />
      {netL && (
        <PlanJudged
          plan={plan}
          netL={netL}
          phosphatePpm={phosphate}
          loadMgNLDay={load.data?.ammonia_mg_n_l_day}
          animals={{ low: load.data?.temperature_low_c, high: load.data?.temperature_high_c }}
        />
      )}
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
      <ProblemNote problem={dose.error} />
      {dosed && dose.data && !dose.error && (
        <Lead>
          The first dose:{" "}
          <Figure title="The dose" lines={dose.data.working}>
            {dose.data.verdict}
          </Figure>{" "}
          It will burn {dose.data.alkalinity_used_dkh.toFixed(1)} dKH and can make at most{" "}
          {dose.data.nitrate_made_ppm_ion.toFixed(0)} ppm of nitrate.
        </Lead>
      )}
      <SaveBar
        tankId={tankId}
        draft={
          first && !draft.dirty
            ? { ...draft, dirty: true, value: { ...plan, started_at: new Date().toISOString() } }
            : draft
        }
        words={first ? "Begin the cycle" : "Save the plan"}
        describe={(b) =>
          `${b.method}, to ${b.target_ppm} ppm, begun ${new Date(b.started_at).toLocaleDateString()}`
        }
      />
      <Caution>
        {plan.method === "animals-in" ? "Nothing is dosed while animals are in. " : ""}Aquarium-grade ammonia
        only, never household cleaner. Gloves; away from children; never together with bleach.
      </Caution>
    </>
  );
}
