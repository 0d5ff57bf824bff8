/** The sump: its inside sizes, level and drains, in the order of flow. */
import { range } from "../../api/range";
import { useBlanks } from "../../api/tables";
import type { Sump } from "../../api/schemas";
import { Fields, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { show } from "../../quantity/format";
import { SUMP_SIZES } from "../../shared/sumpSizes";

interface Props {
  sump: Sump | null;
  /** Water it holds while it runs, of the tank's net litres. */
  heldL?: number;
  freeL?: number;
  onChange: (sump: Sump | null) => void;
}

interface SocksProps {
  sump: Sump;
  put: (change: Partial<Sump>) => void;
}

function Socks({ sump, put }: SocksProps) {
  return (
    <Fields>
      <NumberBox
        label="Socks under the drain"
        value={sump.socks_count}
        {...range("Sump.socks_count")}
        onChange={(n) => {
          put({ socks_count: Math.round(n) });
        }}
      />
      <QuantityField
        label="Width of a sock"
        unit="cm"
        value={sump.sock_width_cm}
        onChange={(v) => {
          put({ sock_width_cm: v });
        }}
      />
      <QuantityField
        label="Length of a sock"
        unit="cm"
        value={sump.sock_length_cm}
        onChange={(v) => {
          put({ sock_length_cm: v });
        }}
      />
    </Fields>
  );
}

export function SumpForm({ sump, heldL, freeL, onChange }: Props) {
  const { sump: start, drain } = useBlanks();
  const put = (change: Partial<Sump>) => {
    onChange({ ...start, ...sump, ...change });
  };
  const { drains } = sump ?? start;
  return (
    <>
      <YesNo
        label="A sump below it, measured inside"
        value={sump !== null}
        onChange={(on) => {
          onChange(on ? start : null);
        }}
      />
      {sump && (
        <>
          <Fields>
            {SUMP_SIZES.map(([key, label]) => (
              <QuantityField
                key={key}
                label={label}
                unit="cm"
                value={sump[key]}
                onChange={(v) => {
                  put({ [key]: v });
                }}
              />
            ))}
            <NumberBox
              label="Drains, besides an emergency one"
              value={drains.filter((d) => !d.emergency).length}
              min={1}
              max={5}
              onChange={(n) => {
                put({
                  drains: [
                    ...Array.from({ length: Math.round(n) }, () => drains[0] ?? drain),
                    ...drains.filter((d) => d.emergency),
                  ],
                });
              }}
            />
          </Fields>
          {sump.chambers.includes("socks") && <Socks sump={sump} put={put} />}
          <YesNo
            label="An emergency drain that stands dry"
            value={drains.some((d) => d.emergency)}
            onChange={(on) => {
              const mains = drains.filter((d) => !d.emergency);
              put({ drains: [...mains, ...(on ? [{ ...drain, emergency: true }] : [])] });
            }}
          />
          {heldL !== undefined && freeL !== undefined && (
            <p role="status">
              It holds {show(heldL, "L")} of the water counted above, and has room for {show(freeL, "L")}
              that run back.
            </p>
          )}
        </>
      )}
    </>
  );
}
