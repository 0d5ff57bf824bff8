/** Hoses and fittings as planned. */
import type { Plumbing } from "../../api/schemas";
import { Fields, NumberBox } from "../../kit";

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
  /** Hoses as they are laid out: then that is their length, and Fit is where it changes. */
  laidM?: number;
  onChange: (change: Partial<Plumbing>) => void;
}

export function PlumbingForm({ plumbing, laidM, onChange }: Props) {
  const all = plumbing.fittings ?? USUAL;
  const put = (kind: Fitting["kind"], count: number) => {
    const rest = all.filter((f) => f.kind !== kind);
    onChange({ fittings: count > 0 ? [...rest, { kind, count }] : rest });
  };
  return (
    <Fields>
      {laidM !== undefined && <p>{laidM.toFixed(2)} m of hose as laid out; Fit is where it is moved.</p>}
      <NumberBox
        label="Hose bore, mm (0: the filter’s own)"
        value={plumbing.hose_bore_mm ?? 0}
        min={0}
        max={60}
        onChange={(mm) => {
          onChange({ hose_bore_mm: mm >= 6 ? mm : null });
        }}
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
