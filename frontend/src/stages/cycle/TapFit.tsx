/** An unknown tap from three tests: what it is, and where its pH settles. */
import { useState } from "react";
import { range } from "../../api/range";
import { useCompute } from "../../api/compute";
import type { QuestionOf } from "../../api/schemas";
import { Fields, Figure, ProblemNote } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";

type Question = QuestionOf<"tap-fit">;
type Tests = Pick<Question, "kh_dkh" | "fresh_ph" | "stood_ph">;

export function TapFit({ temperatureC }: { temperatureC: number }) {
  const [tests, setTests] = useState<Tests>({});
  const put = (change: Tests) => {
    setTests((now) => ({ ...now, ...change }));
  };
  const made = Object.values(tests).filter((value) => value != null).length;
  const found = useCompute("tap-fit", made < 2 ? null : { ...tests, temperature_c: temperatureC });
  return (
    <section aria-label="The tap from three tests">
      <h2>The tap, from three tests</h2>
      <p>KH, pH as it comes, and pH once a jug of it has stood for a day; two of them do.</p>
      <Fields>
        <QuantityField
          label="KH"
          unit="dKH"
          value={tests.kh_dkh ?? null}
          {...range("TapFitQuestion.kh_dkh")}
          onChange={(kh_dkh) => {
            put({ kh_dkh });
          }}
          onClear={() => {
            put({ kh_dkh: null });
          }}
        />
        <NumberBox
          label="pH from the tap"
          value={tests.fresh_ph ?? null}
          {...range("TapFitQuestion.fresh_ph")}
          onChange={(fresh_ph) => {
            put({ fresh_ph });
          }}
          onClear={() => {
            put({ fresh_ph: null });
          }}
        />
        <NumberBox
          label="pH after standing"
          value={tests.stood_ph ?? null}
          {...range("TapFitQuestion.stood_ph")}
          onChange={(stood_ph) => {
            put({ stood_ph });
          }}
          onClear={() => {
            put({ stood_ph: null });
          }}
        />
      </Fields>
      <ProblemNote problem={found.error} />
      {made >= 2 && found.data && (
        <p>
          <Figure title="The tap" lines={found.data.working}>
            {found.data.verdict}
          </Figure>
        </p>
      )}
    </section>
  );
}
