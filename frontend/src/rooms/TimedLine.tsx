/** The air of a pump nothing is printed on, from a jug filled by one of its lines. */
import { useState } from "react";
import { range } from "../api/range";
import { useCompute } from "../api/compute";
import type { QuestionOf } from "../api/schemas";
import { Bar, Button, Figure, Fold, Lead, ProblemNote } from "../kit";
import { NumberBox, QuantityField } from "../kit/quantities";
import { fixed } from "../quantity/format";
import { Fields } from "./parts";

interface Props {
  /** L/min of the pump with nothing before it. */
  onFound: (lMin: number) => void;
}

export function TimedLine({ onFound }: Props) {
  return (
    <Fold summary="Nothing is printed on it: time one line">
      <Timing onFound={onFound} />
    </Fold>
  );
}

function Timing({ onFound }: Props) {
  const [jugMl, setJugMl] = useState<number | null>(null);
  const [times, setTimes] = useState<(number | null)[]>([null, null, null]);
  const [depthCm, setDepthCm] = useState<number | null>(null);
  const [lines, setLines] = useState<number | null>(null);
  const timed = times.filter((one) => one !== null);
  const question: QuestionOf<"airline-bucket"> | null =
    jugMl !== null && timed.length
      ? {
          jug_ml: jugMl,
          times_s: timed,
          ...(depthCm === null ? {} : { depth_cm: depthCm }),
          ...(lines === null ? {} : { lines_count: lines }),
        }
      : null;
  const found = useCompute("airline-bucket", question);
  return (
    <>
      <Lead>
        Fill a jug with water, turn it over under the surface, lead one line into it, and time until it is
        full of air; three times is better than once. The other lines go on as they are.
      </Lead>
      <Fields>
        <NumberBox
          label="Jug, mL"
          value={jugMl}
          {...range("AirlineBucketQuestion.jug_ml")}
          onChange={setJugMl}
        />
        {times.map((time, n) => (
          <NumberBox
            key={n}
            label={`Seconds, ${["first", "second", "third"][n] ?? ""} time`}
            value={time}
            {...range("AirlineBucketQuestion.times_s")}
            onChange={(next) => {
              setTimes(times.map((old, i) => (i === n ? next : old)));
            }}
            onClear={() => {
              setTimes(times.map((old, i) => (i === n ? null : old)));
            }}
          />
        ))}
        <QuantityField
          label="Its end under water"
          unit="cm"
          value={depthCm}
          {...range("AirlineBucketQuestion.depth_cm")}
          onChange={setDepthCm}
        />
        <NumberBox
          label="Lines on the pump"
          value={lines}
          {...range("AirlineBucketQuestion.lines_count")}
          onChange={setLines}
        />
      </Fields>
      <ProblemNote problem={found.error} />
      {found.data && (
        <Bar>
          <Figure title="Air of the pump" lines={found.data.working}>
            {found.data.verdict}
          </Figure>
          <Button
            onPress={() => {
              onFound(Number(found.data.free_l_min.toPrecision(3)));
            }}
          >
            Use {fixed(found.data.free_l_min, 1)} L/min
          </Button>
        </Bar>
      )}
    </>
  );
}
