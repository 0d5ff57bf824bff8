/** How many plants grow in the tank. */
import type { CyclePlan } from "../../api/schemas";
import { Select } from "../../kit";

type Plants = CyclePlan["plants"];

const AMOUNTS: readonly (readonly [Plants, string])[] = [
  ["none", "none"],
  ["some", "some"],
  ["many", "in plenty"],
];

export function PlantsField(props: { value: Plants; onChange: (plants: Plants) => void }) {
  return <Select label="Plants" value={props.value} onChange={props.onChange} options={AMOUNTS} />;
}
