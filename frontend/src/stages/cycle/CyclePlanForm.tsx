/** The cycle's plan: method, ammonia product and its strength, the water it starts in. */
import { useDraft } from "../../api/drafts";
import { useCompute } from "../../api/hooks";
import type { AmmoniaProduct, CyclePlan, Standing } from "../../api/schemas";
import { Caution, Fields, Figure, Lead, NumberBox, PickOne, ProblemNote, Select } from "../../kit";
import { QuantityField } from "../../quantity";
import { SaveBar } from "../shared";

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
  };
}

export function CyclePlanForm({
  tankId,
  standing,
  netL,
}: {
  tankId: number;
  standing: Standing;
  netL?: number;
}) {
  const saved = standing.cycle_plan?.body.kind === "cycle-plan" ? standing.cycle_plan.body : FRESH;
  const draft = useDraft<CyclePlan>(tankId, "cycle", saved, standing.cycle_plan?.id ?? null);
  const plan = draft.value;
  const product = plan.product ?? PRODUCTS["ammonium-chloride"];
  const dose = useCompute(
    "ammonia-dose",
    netL ? { net_l: netL, target_ppm: plan.target_ppm, basis: plan.basis, product } : null,
  );
  const set = (change: Partial<CyclePlan>) => {
    draft.set((now) => ({ ...now, ...change }));
  };
  const first = standing.cycle_plan == null;
  return (
    <>
      <PickOne
        label="Method"
        value={plan.method ?? "measured-ammonia"}
        onChange={(method) => {
          set({ method });
        }}
        options={[
          ["measured-ammonia", "Measured ammonia (4 to 6 weeks)"],
          ["seeded-filter", "A filter moved from a running tank"],
        ]}
      />
      <Fields>
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
      </Fields>
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
      {dose.data && !dose.error && (
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
        Aquarium-grade ammonia only, never household cleaner. Gloves; away from children; never together with
        bleach.
      </Caution>
    </>
  );
}

const FRESH = fresh();
