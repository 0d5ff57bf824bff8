/** Fields for the ammonia product: kind, strength, limit. */
import { range } from "../../api/range";
import { useBlanks } from "../../api/tables";
import type { CyclePlan } from "../../api/schemas";
import { Fields, Select } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import type { PlanFieldsProps } from "./MethodFields";

type Product = CyclePlan["product"];
type Label = Extract<Product, { form: "label" }>;

export function ProductFields({ plan, set }: PlanFieldsProps) {
  const form_defaults = useBlanks();
  const { product } = plan;
  return (
    <Fields $min={168}>
      <Select
        label="Ammonia is"
        value={plan.ammonia_source}
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
          set({ product: form_defaults.products.find((p) => p.form === form) ?? product });
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
          value={product.purity_percent}
          {...range("PowderProduct.purity_percent")}
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
            {...range("SolutionProduct.strength_percent_w_v")}
            onChange={(v) => {
              set({ product: { ...product, strength_percent_w_v: v } });
            }}
          />
          <NumberBox
            label="Drops in a mL"
            value={product.drops_per_ml}
            {...range("SolutionProduct.drops_per_ml")}
            onChange={(v) => {
              set({ product: { ...product, drops_per_ml: v } });
            }}
          />
        </>
      )}
      {product.form === "label" && (
        <LabelFields
          product={product}
          onChange={(next) => {
            set({ product: next });
          }}
        />
      )}
      <NumberBox
        label="Dose to, ppm"
        value={plan.target_ppm}
        {...range("CyclePlan.target_ppm")}
        onChange={(v) => {
          set({ target_ppm: v });
        }}
      />
    </Fields>
  );
}

/** Described only by its label. */
function LabelFields({ product, onChange }: { product: Label; onChange: (product: Label) => void }) {
  return (
    <>
      <NumberBox
        label="Amount"
        value={product.amount}
        {...range("LabelProduct.amount")}
        onChange={(v) => {
          onChange({ ...product, amount: v });
        }}
      />
      <Select
        label="of"
        value={product.amount_unit}
        onChange={(v) => {
          onChange({ ...product, amount_unit: v });
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
        {...range("LabelProduct.water")}
        onChange={(v) => {
          onChange({ ...product, water: v });
        }}
      />
      <Select
        label="water in"
        value={product.water_unit}
        onChange={(v) => {
          onChange({ ...product, water_unit: v });
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
        {...range("LabelProduct.raises_ppm")}
        onChange={(v) => {
          onChange({ ...product, raises_ppm: v });
        }}
      />
    </>
  );
}
