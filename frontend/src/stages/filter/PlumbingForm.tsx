/** Hoses and fittings as planned. */
import { range } from "../../api/range";
import { useBlanks } from "../../api/tables";
import type { Plumbing } from "../../api/schemas";
import { Fields } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { show } from "../../quantity/format";

type Fitting = NonNullable<Plumbing["fittings"]>[number];
const COUNTED = [
  ["u-bend", "U-bends"],
  ["elbow", "Elbows"],
  ["quick-valve", "Valves"],
  ["spray-bar", "Spray bars"],
  ["flared-pipe", "Flared outlets"],
  ["guard", "Guard sponges"],
  ["check-valve", "Check valves"],
] as const;

interface Props {
  plumbing: Plumbing;
  /** Drawn length of the hoses, which is then changed on Fit. */
  laidM?: number;
  onChange: (change: Partial<Plumbing>) => void;
}

export function PlumbingForm({ plumbing, laidM, onChange }: Props) {
  const form_defaults = useBlanks();
  const all = plumbing.fittings;
  const put = (kind: Fitting["kind"], count: number) => {
    const rest = all.filter((f) => f.kind !== kind);
    onChange({ fittings: count > 0 ? [...rest, { ...form_defaults.fitting, kind, count }] : rest });
  };
  return (
    <Fields>
      {laidM !== undefined && <p>{show(laidM, "m", 2)} of hose as laid out; Fit is where it is moved.</p>}
      <QuantityField
        label="Hose bore (0: the filter’s own)"
        unit="mm"
        value={plumbing.hose_bore_mm ?? 0}
        min={0}
        max={60}
        onChange={(mm) => {
          onChange({ hose_bore_mm: mm >= 6 ? mm : null });
        }}
      />
      <NumberBox
        label="Pump speed, % of full"
        value={Math.round(plumbing.speed_share * 100)}
        {...range("Plumbing.speed_share", 100)}
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
          {...range("Fitting.count")}
          onChange={(n) => {
            put(kind, n);
          }}
        />
      ))}
    </Fields>
  );
}
