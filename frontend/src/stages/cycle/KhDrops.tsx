/** KH by counted drops, with its range and a finer way. */
import { useState } from "react";
import { range } from "../../api/range";
import { useCompute } from "../../api/compute";
import { useBlanks } from "../../api/tables";
import { Bar, Figure, ProblemNote } from "../../kit";
import { NumberBox } from "../../kit/quantities";

export function KhDrops() {
  const { kh_drops } = useBlanks();
  const [asked, setAsked] = useState<{ drops: number | null; sample: number; each: number }>({
    drops: null,
    sample: kh_drops.sample_ml,
    each: kh_drops.drop_dkh,
  });
  const set = (change: Partial<typeof asked>) => {
    setAsked((now) => ({ ...now, ...change }));
  };
  const { drops, sample, each } = asked;
  const found = useCompute(
    "kh-titration",
    drops === null
      ? null
      : { ...kh_drops, drops_count: Math.round(drops), sample_ml: sample, drop_dkh: each },
  );
  return (
    <section aria-label="KH by drops">
      <h2>KH, by drops</h2>
      <Bar>
        <NumberBox
          label="Drops until it turned"
          value={drops}
          {...range("KhTitrationQuestion.drops_count")}
          onChange={(next) => {
            set({ drops: next });
          }}
          onClear={() => {
            set({ drops: null });
          }}
        />
        <NumberBox
          label="Sample, mL"
          value={sample}
          {...range("KhTitrationQuestion.sample_ml")}
          onChange={(next) => {
            set({ sample: next });
          }}
        />
        <NumberBox
          label="A drop counts, dKH"
          value={each}
          {...range("KhTitrationQuestion.drop_dkh")}
          onChange={(next) => {
            set({ each: next });
          }}
        />
      </Bar>
      <ProblemNote problem={found.error} />
      {found.data && (
        <p>
          <Figure title="KH by drops" lines={found.data.working}>
            {found.data.verdict}
          </Figure>
        </p>
      )}
    </section>
  );
}
