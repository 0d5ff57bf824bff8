/** Position of the flow tap: three fills at three marks, and the mark for the wanted flow. */
import { range } from "../../api/range";
import { useState } from "react";
import { styled } from "styled-components";
import { useBlanks } from "../../api/tables";
import { useCompute } from "../../api/compute";
import { Fields, Figure, ProblemNote } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";

interface Fill {
  mark: number | null;
  seconds: number | null;
}

const THREE: Fill[] = Array.from({ length: 3 }, () => ({ mark: null, seconds: null }));

export function ThrottleFinder() {
  const [litres, setLitres] = useState(useBlanks().jug_l);
  const [wanted, setWanted] = useState<number | null>(null);
  const [fills, setFills] = useState(THREE);
  const put = (at: number, change: Partial<Fill>) => {
    setFills(fills.map((f, i) => (i === at ? { ...f, ...change } : f)));
  };
  const timed = fills.flatMap(({ mark, seconds }) =>
    mark === null || seconds === null ? [] : [{ mark_count: mark, time_s: seconds }],
  );
  const asked =
    wanted !== null && timed.length > 1 ? { container_l: litres, wanted_lph: wanted, fills: timed } : null;
  const found = useCompute("throttle-marks", asked);
  return (
    <Fold>
      <summary>Set its tap to a flow you want</summary>
      <p>
        Mark the tap in any scale of your own: clicks, eighths of a turn. Fill the jug once wide open, once
        half shut, once nearly shut. Throttle the outlet, never the intake.
      </p>
      <Fields $min={104}>
        <QuantityField
          label="Jug"
          unit="L"
          value={litres}
          {...range("ThrottleMarksQuestion.container_l")}
          onChange={setLitres}
        />
        <QuantityField
          label="Flow wanted"
          unit="L/h"
          value={wanted}
          {...range("ThrottleMarksQuestion.wanted_lph")}
          onChange={setWanted}
          onClear={() => {
            setWanted(null);
          }}
        />
        {fills.map((fill, i) => (
          <FillRow
            key={i}
            number={i + 1}
            fill={fill}
            onFill={(change) => {
              put(i, change);
            }}
          />
        ))}
      </Fields>
      <ProblemNote problem={found.error} />
      {asked && found.data && !found.error && (
        <p role="status">
          <Figure title="Marks of the tap" lines={found.data.working}>
            {found.data.verdict}
          </Figure>
        </p>
      )}
    </Fold>
  );
}

interface FillRowProps {
  number: number;
  fill: Fill;
  onFill: (change: Partial<Fill>) => void;
}

function FillRow({ number, fill, onFill }: FillRowProps) {
  return (
    <>
      <NumberBox
        label={`Mark ${number}`}
        value={fill.mark}
        {...range("ThrottleFill.mark_count")}
        onChange={(mark) => {
          onFill({ mark });
        }}
        onClear={() => {
          onFill({ mark: null });
        }}
      />
      <NumberBox
        label={`Jug at mark ${number}, s`}
        value={fill.seconds}
        {...range("ThrottleFill.time_s")}
        onChange={(seconds) => {
          onFill({ seconds });
        }}
        onClear={() => {
          onFill({ seconds: null });
        }}
      />
    </>
  );
}

const Fold = styled.details`
  p {
    margin: 8px 0;
  }
`;
