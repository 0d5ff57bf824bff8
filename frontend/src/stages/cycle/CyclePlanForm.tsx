/** The cycle's plan: how, with what, in which water, from which tap; judged as it is typed. */
import { useMemo, useState } from "react";
import { useDraft } from "../../api/drafts";
import { useCompute, useTables } from "../../api/hooks";
import type { AmmoniaProduct, CyclePlan, MethodChoice, LogbookState } from "../../api/schemas";
import {
  Caution,
  Fields,
  Figure,
  InlineButton,
  Lead,
  NumberBox,
  PickOne,
  ProblemNote,
  Select,
  YesNo,
} from "../../kit";
import { QuantityField } from "../../quantity";
import { SaveBar, stockPlan, tankPlan } from "../shared";
import { Chooser, METHODS, NO_MEANS, type Means } from "./Chooser";
import { PlanJudged } from "./PlanJudged";

const PRODUCTS: Record<"ammonium-chloride" | "ammonia-solution" | "label", NonNullable<AmmoniaProduct>> = {
  "ammonium-chloride": { form: "ammonium-chloride", purity_percent: 99 },
  "ammonia-solution": { form: "ammonia-solution", strength_percent_w_v: 10, drops_per_ml: 20 },
  label: {
    form: "label",
    amount: 4,
    amount_unit: "drops",
    water: 1,
    water_unit: "US gal",
    raises_ppm: 2,
    basis: "ion",
    drops_per_ml: 20,
  },
};

function fresh(): CyclePlan {
  return {
    kind: "cycle-plan",
    started_at: new Date().toISOString(),
    method: "measured-ammonia",
    target_ppm: 2,
    product: PRODUCTS["ammonium-chloride"],
    temperature_c: 26,
    start_kh_dkh: 4,
    start_ph: 7.4,
    basis: "ion",
    tap: { chlorine: "unknown" },
  };
}

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
  const around = tankPlan(logbook).surroundings;
  const water = around?.water ?? "fresh";
  const bare = useMemo<CyclePlan>(
    () => ({ ...FRESH, salinity_g_kg: SALT[water], start_ph: around?.ph ?? (water === "salt" ? 8.1 : 7.4) }),
    [water, around?.ph],
  );
  const saved = logbook.cycle_plan?.body.kind === "cycle-plan" ? logbook.cycle_plan.body : bare;
  const draft = useDraft<CyclePlan>(tankId, "cycle", saved, logbook.cycle_plan?.id ?? null);
  const plan = draft.value;
  const product = plan.product ?? PRODUCTS["ammonium-chloride"];
  const dose = useCompute(
    "ammonia-dose",
    netL ? { net_l: netL, target_ppm: plan.target_ppm, basis: plan.basis, product } : null,
  );
  const set = (change: Partial<CyclePlan>) => {
    draft.set((now) => ({ ...now, ...change }));
  };
  const first = logbook.cycle_plan == null;
  const [choosing, setChoosing] = useState(first);
  const [means, setMeans] = useState<Means>({ ...NO_MEANS, plants: plan.plants ?? "none" });
  const stock = stockPlan(logbook);
  const tables = useTables();
  const load = useCompute(
    "waste-load",
    netL && stock.animals.length
      ? { net_l: netL, animals: stock.animals, own_species: stock.own_species, feed_g_day: stock.feed_g_day }
      : null,
  );
  const phosphate = logbook.readings
    ?.flatMap((e) =>
      e.body.kind === "reading" && e.body.phosphate_ppm != null ? [e.body.phosphate_ppm] : [],
    )
    .at(-1);
  const take = (choice: MethodChoice) => {
    set({
      method: choice.method,
      helpers: choice.helpers,
      seed_share: means.media_share,
      plants: choice.helpers.includes("plants") || choice.method === "planted" ? means.plants : plan.plants,
      bottle: { ...means.bottle_label, in_date: means.bottle !== "expired" },
    });
    setChoosing(false);
  };
  const tap = plan.tap ?? {};
  const setTap = (change: Partial<NonNullable<CyclePlan["tap"]>>) => {
    set({ tap: { ...tap, ...change } });
  };
  const helpers = plan.helpers ?? [];
  const help = (name: (typeof helpers)[number], on: boolean) => {
    set({ helpers: on ? [...new Set([...helpers, name])] : helpers.filter((h) => h !== name) });
  };
  const dosed = DOSED.includes(plan.method ?? "measured-ammonia");
  const salt = (plan.salinity_g_kg ?? 0) > 1;
  const nitrate = tables.data?.nitrogen_share.nitrate ?? 0.226;
  const ammonia = tables.data?.nitrogen_share.ammonia ?? 0.776;
  return (
    <>
      {choosing && netL ? (
        <Chooser
          plan={plan}
          netL={netL}
          loadMgNLDay={load.data?.ammonia_mg_n_l_day}
          onChoose={take}
          means={means}
          onMeans={setMeans}
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
      <Fields $min={168}>
        <Select
          label="Method"
          value={plan.method ?? "measured-ammonia"}
          onChange={(method) => {
            set({ method });
          }}
          options={METHODS}
        />
        {plan.method === "fish-food" && (
          <NumberBox
            label="Food, g a day"
            value={plan.food_g_day ?? 0}
            min={0}
            max={100}
            onChange={(food_g_day) => {
              set({ food_g_day });
            }}
          />
        )}
        {(plan.method === "seeded-filter" ||
          plan.method === "side-by-side" ||
          helpers.includes("seed-media")) && (
          <NumberBox
            label="Film brought, % of a filter's"
            value={(plan.seed_share ?? 1) * 100}
            min={0}
            max={100}
            onChange={(v) => {
              set({ seed_share: v / 100 });
            }}
          />
        )}
        {(plan.method === "planted" || helpers.includes("plants")) && (
          <Select
            label="Plants"
            value={plan.plants ?? "none"}
            onChange={(plants) => {
              set({ plants });
            }}
            options={[
              ["none", "none"],
              ["some", "some"],
              ["many", "in plenty"],
            ]}
          />
        )}
      </Fields>
      {plan.method !== "animals-in" && (
        <Fields $min={190}>
          <YesNo
            label="with seeded media"
            value={helpers.includes("seed-media")}
            onChange={(on) => {
              help("seed-media", on);
            }}
          />
          <YesNo
            label="with a bottled culture"
            value={helpers.includes("bottled-culture")}
            onChange={(on) => {
              help("bottled-culture", on);
            }}
          />
          <YesNo
            label="with plants"
            value={helpers.includes("plants")}
            onChange={(on) => {
              help("plants", on);
              if (on && (plan.plants ?? "none") === "none") set({ plants: "some" });
            }}
          />
        </Fields>
      )}
      {dosed && (
        <Fields $min={168}>
          <Select
            label="Ammonia is"
            value={plan.ammonia_source ?? "aquarium-grade"}
            onChange={(ammonia_source) => {
              set({ ammonia_source });
            }}
            options={[
              ["aquarium-grade", "aquarium grade"],
              ["plain", "plain, unscented"],
              ["household-cleaner", "a household cleaner"],
              ["unknown", "I do not know"],
            ]}
          />
          <Select
            label="Ammonia product"
            value={product.form}
            onChange={(form) => {
              set({ product: PRODUCTS[form] });
            }}
            options={[
              ["ammonium-chloride", "Ammonium chloride powder"],
              ["ammonia-solution", "Ammonia solution"],
              ["label", "By what its label promises"],
            ]}
          />
          {product.form === "ammonium-chloride" && (
            <NumberBox
              label="Purity, %"
              value={product.purity_percent ?? 99}
              min={1}
              max={100}
              onChange={(v) => {
                set({ product: { ...product, purity_percent: v } });
              }}
            />
          )}
          {product.form === "ammonia-solution" && (
            <>
              <NumberBox
                label="Strength, g in 100 mL"
                value={product.strength_percent_w_v}
                min={0.1}
                max={35}
                onChange={(v) => {
                  set({ product: { ...product, strength_percent_w_v: v } });
                }}
              />
              <NumberBox
                label="Drops in a mL"
                value={product.drops_per_ml ?? 20}
                min={10}
                max={60}
                onChange={(v) => {
                  set({ product: { ...product, drops_per_ml: v } });
                }}
              />
            </>
          )}
          {product.form === "label" && (
            <>
              <NumberBox
                label="Amount"
                value={product.amount}
                min={0.001}
                max={10000}
                onChange={(v) => {
                  set({ product: { ...product, amount: v } });
                }}
              />
              <Select
                label="of"
                value={product.amount_unit}
                onChange={(v) => {
                  set({ product: { ...product, amount_unit: v } });
                }}
                options={[
                  ["drops", "drops"],
                  ["mL", "mL"],
                  ["g", "grams"],
                ]}
              />
              <NumberBox
                label="in"
                value={product.water}
                min={0.1}
                max={10000}
                onChange={(v) => {
                  set({ product: { ...product, water: v } });
                }}
              />
              <Select
                label="water in"
                value={product.water_unit}
                onChange={(v) => {
                  set({ product: { ...product, water_unit: v } });
                }}
                options={[
                  ["US gal", "US gal"],
                  ["imp gal", "imperial gal"],
                  ["L", "litres"],
                ]}
              />
              <NumberBox
                label="gives ppm"
                value={product.raises_ppm}
                min={0.01}
                max={1000}
                onChange={(v) => {
                  set({ product: { ...product, raises_ppm: v } });
                }}
              />
            </>
          )}
          <NumberBox
            label="Dose to, ppm"
            value={plan.target_ppm ?? 2}
            min={0.1}
            max={8}
            step={0.1}
            onChange={(v) => {
              set({ target_ppm: v });
            }}
          />
        </Fields>
      )}
      <h2>The water, and the tap</h2>
      <Fields $min={168}>
        <QuantityField
          label="Water"
          kind="temperature"
          value={plan.temperature_c ?? 26}
          onChange={(v) => {
            set({ temperature_c: v });
          }}
        />
        <QuantityField
          label="KH at the start"
          kind="hardness"
          value={plan.start_kh_dkh ?? 4}
          onChange={(v) => {
            set({ start_kh_dkh: v });
          }}
        />
        <NumberBox
          label="pH at the start"
          value={plan.start_ph ?? 7.4}
          min={4}
          max={10}
          onChange={(v) => {
            set({ start_ph: v });
          }}
        />
        <NumberBox
          label="Salt, g/kg"
          value={plan.salinity_g_kg ?? 0}
          min={0}
          max={45}
          onChange={(salinity_g_kg) => {
            set({ salinity_g_kg });
          }}
        />
        <Select
          label="Tap is treated with"
          value={tap.chlorine ?? "unknown"}
          onChange={(chlorine) => {
            setTap({ chlorine });
          }}
          options={[
            ["unknown", "I do not know"],
            ["chlorine", "chlorine"],
            ["chloramine", "chloramine"],
            ["none", "nothing (own well)"],
          ]}
        />
        <NumberBox
          label="Tap ammonia, ppm"
          value={Number(((tap.ammonia_mg_n_l ?? 0) / ammonia).toFixed(2))}
          min={0}
          max={20}
          onChange={(v) => {
            setTap({ ammonia_mg_n_l: v * ammonia });
          }}
        />
        <NumberBox
          label="Tap nitrate, ppm"
          value={Number(((tap.nitrate_mg_n_l ?? 0) / nitrate).toFixed(1))}
          min={0}
          max={400}
          onChange={(v) => {
            setTap({ nitrate_mg_n_l: v * nitrate });
          }}
        />
      </Fields>
      {salt && (
        <YesNo
          label="A skimmer runs"
          value={plan.skimmer_running ?? false}
          onChange={(skimmer_running) => {
            set({ skimmer_running });
          }}
        />
      )}
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
        value={plan.basis ?? "ion"}
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
          `${b.method ?? "measured-ammonia"}, to ${b.target_ppm ?? 2} ppm, begun ${new Date(b.started_at).toLocaleDateString()}`
        }
      />
      <Caution>
        {plan.method === "animals-in" ? "Nothing is dosed while animals are in. " : ""}Aquarium-grade ammonia
        only, never household cleaner. Gloves; away from children; never together with bleach.
      </Caution>
    </>
  );
}

const FRESH = fresh();
/** Salt of each kind of water until it is measured, g/kg. */
const SALT = { fresh: 0, brackish: 10, salt: 35 } as const;
