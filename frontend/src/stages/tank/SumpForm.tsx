/** The sump below the tank: its inside sizes, its level, its drains, in the order the water meets them. */
import type { Sump } from "../../api/schemas";
import { Fields, NumberBox, YesNo } from "../../kit";
import { QuantityField } from "../../quantity";

interface Props {
  sump: Sump | null;
  /** Water it holds while it runs, of the tank's net litres. */
  heldL?: number;
  freeL?: number;
  onChange: (sump: Sump | null) => void;
}

/** Sizes to begin with, all to be measured over. */
const START: Sump = { length_cm: 60, width_cm: 35, height_cm: 40, level_cm: 20 };

export function SumpForm({ sump, heldL, freeL, onChange }: Props) {
  const put = (change: Partial<Sump>) => {
    onChange({ ...START, ...sump, ...change });
  };
  const drains = sump?.drains ?? [];
  return (
    <>
      <YesNo
        label="A sump below it, measured inside"
        value={sump !== null}
        onChange={(on) => {
          onChange(on ? START : null);
        }}
      />
      {sump && (
        <>
          <Fields>
            <QuantityField
              label="Sump length"
              kind="length"
              value={sump.length_cm}
              onChange={(v) => {
                put({ length_cm: v });
              }}
            />
            <QuantityField
              label="Sump width"
              kind="length"
              value={sump.width_cm}
              onChange={(v) => {
                put({ width_cm: v });
              }}
            />
            <QuantityField
              label="Sump height"
              kind="length"
              value={sump.height_cm}
              onChange={(v) => {
                put({ height_cm: v });
              }}
            />
            {sump.level_cm !== undefined && (
              <QuantityField
                label="Level while it runs"
                kind="length"
                value={sump.level_cm}
                onChange={(v) => {
                  put({ level_cm: v });
                }}
              />
            )}
            <NumberBox
              label="Drains, besides an emergency one"
              value={drains.filter((d) => d.emergency !== true).length || 1}
              min={1}
              max={5}
              onChange={(n) => {
                put({
                  drains: [
                    ...Array.from({ length: Math.round(n) }, () => drains[0] ?? {}),
                    ...drains.filter((d) => d.emergency === true),
                  ],
                });
              }}
            />
          </Fields>
          <YesNo
            label="An emergency drain that stands dry"
            value={drains.some((d) => d.emergency === true)}
            onChange={(on) => {
              const mains = drains.filter((d) => d.emergency !== true);
              put({ drains: [...(mains.length ? mains : [{}]), ...(on ? [{ emergency: true }] : [])] });
            }}
          />
          {heldL !== undefined && freeL !== undefined && (
            <p role="status">
              It holds {heldL.toFixed(0)} L of the water counted above, and has room for {freeL.toFixed(0)} L
              that run back.
            </p>
          )}
        </>
      )}
    </>
  );
}
