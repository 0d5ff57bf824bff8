/** Fields for the ammonia product: kind, strength, limit. */
import { useBlanks } from "../../api/hooks";
import type { CyclePlan } from "../../api/schemas";
import { Fields, Select } from "../../kit";
import { NumberBox } from "../../quantity";
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
            value={product.drops_per_ml}
            min={10}
            max={60}
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
        min={0.1}
        max={8}
        step={0.1}
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
        min={0.001}
        max={10000}
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
        min={0.1}
        max={10000}
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
        min={0.01}
        max={1000}
        onChange={(v) => {
          onChange({ ...product, raises_ppm: v });
        }}
      />
    </>
  );
}
