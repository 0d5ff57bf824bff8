/** Fields for the cycling method and its helpers. */
import { range } from "../../api/range";
import { useBlanks, useLoadedTables } from "../../api/tables";
import type { CyclePlan, Tables } from "../../api/schemas";
import { Fields, Select, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { PlantsField } from "./PlantsField";

export interface PlanFieldsProps {
  plan: CyclePlan;
  set: (change: Partial<CyclePlan>) => void;
}

type Asked = Tables["methods"][number]["asks"][number];

/** What the method and its helpers ask for. */
export function askedBy(
  plan: Pick<CyclePlan, "method" | "helpers">,
  { methods, helpers }: Tables,
): Set<Asked> {
  return new Set([
    ...methods.filter((m) => m.method === plan.method).flatMap((m) => m.asks),
    ...helpers.filter((h) => plan.helpers.includes(h.helper)).flatMap((h) => h.asks),
  ]);
}

export function MethodFields({ plan, set }: PlanFieldsProps) {
  const tables = useLoadedTables();
  const asked = askedBy(plan, tables);
  return (
    <>
      <Fields $min={168}>
        <Select
          label="Method"
          value={plan.method}
          onChange={(method) => {
            set({ method });
          }}
          options={tables.methods.map((m) => [m.method, m.title] as const)}
        />
        {asked.has("food") && (
          <NumberBox
            label="Food, g a day"
            value={plan.food_g_day}
            {...range("CyclePlan.food_g_day")}
            onChange={(food_g_day) => {
              set({ food_g_day });
            }}
          />
        )}
        {asked.has("rock") && (
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
        {asked.has("seed") && <SeedFields plan={plan} set={set} />}
        {asked.has("plants") && (
          <PlantsField
            value={plan.plants}
            onChange={(plants) => {
              set({ plants });
            }}
          />
        )}
      </Fields>
      {asked.has("helpers") && <HelperFields plan={plan} set={set} />}
    </>
  );
}

/** Film brought along, and the tank it comes from. */
function SeedFields({ plan, set }: PlanFieldsProps) {
  const blank = useBlanks().donor;
  return (
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
  );
}

function HelperFields({ plan, set }: PlanFieldsProps) {
  const helpers = plan.helpers;
  const help = (name: (typeof helpers)[number], on: boolean) => {
    set({ helpers: on ? [...new Set([...helpers, name])] : helpers.filter((h) => h !== name) });
  };
  return (
    <Fields $min={190}>
      {useLoadedTables().helpers.map(({ helper, title }) => (
        <YesNo
          key={helper}
          label={title}
          value={helpers.includes(helper)}
          onChange={(on) => {
            help(helper, on);
            if (on && helper === "plants" && plan.plants === "none") set({ plants: "some" });
          }}
        />
      ))}
    </Fields>
  );
}
