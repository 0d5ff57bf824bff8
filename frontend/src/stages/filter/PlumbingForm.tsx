/** Hoses and fittings as planned. */
import type { Plumbing } from "../../api/schemas";
import { Fields, NumberBox } from "../../kit";
import { QuantityField } from "../../quantity";

type Fitting = NonNullable<Plumbing["fittings"]>[number];
const USUAL: Fitting[] = [
  { kind: "strainer", count: 1 },
  { kind: "entrance", count: 1 },
  { kind: "u-bend", count: 2 },
  { kind: "quick-valve", count: 1 },
  { kind: "spray-bar", count: 1 },
  { kind: "exit", count: 1 },
];
const COUNTED = [
  ["u-bend", "U-bends"],
  ["elbow", "Elbows"],
  ["quick-valve", "Valves"],
  ["spray-bar", "Spray bars"],
  ["guard", "Guard sponges"],
  ["check-valve", "Check valves"],
] as const;

interface Props {
  plumbing: Plumbing;
  onChange: (change: Partial<Plumbing>) => void;
}

export function PlumbingForm({ plumbing, onChange }: Props) {
  const all = plumbing.fittings ?? USUAL;
  const put = (kind: Fitting["kind"], count: number) => {
    const rest = all.filter((f) => f.kind !== kind);
    onChange({ fittings: count > 0 ? [...rest, { kind, count }] : rest });
  };
  return (
    <Fields>
      <QuantityField
        label="Both hoses together"
        kind="length"
        value={(plumbing.hose_length_m ?? 2.8) * 100}
        onChange={(cm) => {
          onChange({ hose_length_m: cm / 100 });
        }}
      />
      <NumberBox
        label="Hose bore, mm (0: the filter’s own)"
        value={plumbing.hose_bore_mm ?? 0}
        min={0}
        max={60}
        onChange={(mm) => {
          onChange({ hose_bore_mm: mm >= 6 ? mm : null });
        }}
      />
      <QuantityField
        label="Outlet above the water"
        kind="length"
        value={plumbing.outlet_above_water_cm ?? -2}
        onChange={(cm) => {
          onChange({ outlet_above_water_cm: cm });
        }}
        hint="below 0 it lies under water"
      />
      <NumberBox
        label="Pump speed, % of full"
        value={Math.round((plumbing.speed_share ?? 1) * 100)}
        min={20}
        max={100}
        onChange={(percent) => {
          onChange({ speed_share: percent / 100 });
        }}
        hint="for a pump that can be turned down"
      />
      {COUNTED.map(([kind, label]) => (
        <NumberBox
          key={kind}
          label={label}
          value={all.find((f) => f.kind === kind)?.count ?? 0}
          min={0}
          max={10}
          onChange={(n) => {
            put(kind, n);
          }}
        />
      ))}
    </Fields>
  );
}
