/** Fields for the cycling method and its helpers. */
import { range } from "../../api/range";
import { useBlanks } from "../../api/hooks";
import type { CyclePlan } from "../../api/schemas";
import { Fields, Select, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../quantity";
import { METHODS } from "./Chooser";

export interface PlanFieldsProps {
  plan: CyclePlan;
  set: (change: Partial<CyclePlan>) => void;
}

function isSeeded({ method, helpers }: CyclePlan): boolean {
  return method === "seeded-filter" || method === "side-by-side" || helpers.includes("seed-media");
}

export function MethodFields({ plan, set }: PlanFieldsProps) {
  const blank = useBlanks().donor;
  const helpers = plan.helpers;
  const seeded = isSeeded(plan);
  return (
    <>
      <Fields $min={168}>
        <Select
          label="Method"
          value={plan.method}
          onChange={(method) => {
            set({ method });
          }}
          options={METHODS}
        />
        {plan.method === "fish-food" && (
          <NumberBox
            label="Food, g a day"
            value={plan.food_g_day}
            {...range("CyclePlan.food_g_day")}
            onChange={(food_g_day) => {
              set({ food_g_day });
            }}
          />
        )}
        {plan.method === "mature-rock" && (
          <QuantityField
            label="Mature rock"
            unit="kg"
            value={plan.rock_kg ?? null}
            {...range("CyclePlan.rock_kg")}
            onChange={(rock_kg) => {
              set({ rock_kg });
            }}
            onClear={() => {
              set({ rock_kg: null });
            }}
            hint="empty: not weighed"
          />
        )}
        {seeded && (
          <>
            <NumberBox
              label="Film brought, % of its donor's"
              value={plan.seed_share * 100}
              {...range("CyclePlan.seed_share", 100)}
              onChange={(v) => {
                set({ seed_share: v / 100 });
              }}
            />
            <NumberBox
              label="The donor is fed, g a day"
              value={plan.donor?.food_g_day ?? null}
              {...range("SeedDonor.food_g_day")}
              onChange={(food_g_day) => {
                set({ donor: { ...blank, ...plan.donor, food_g_day } });
              }}
              onClear={() => {
                set({ donor: null });
              }}
              hint="empty: not known"
            />
            {plan.donor && (
              <NumberBox
                label="Days it ran there"
                value={plan.donor.age_days}
                {...range("SeedDonor.age_days")}
                onChange={(age_days) => {
                  set({ donor: { ...blank, ...plan.donor, age_days } });
                }}
              />
            )}
          </>
        )}
        {(plan.method === "planted" || helpers.includes("plants")) && (
          <Select
            label="Plants"
            value={plan.plants}
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
      {plan.method !== "animals-in" && <HelperFields plan={plan} set={set} />}
    </>
  );
}

function HelperFields({ plan, set }: PlanFieldsProps) {
  const helpers = plan.helpers;
  const help = (name: (typeof helpers)[number], on: boolean) => {
    set({ helpers: on ? [...new Set([...helpers, name])] : helpers.filter((h) => h !== name) });
  };
  return (
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
          if (on && plan.plants === "none") set({ plants: "some" });
        }}
      />
    </Fields>
  );
}
