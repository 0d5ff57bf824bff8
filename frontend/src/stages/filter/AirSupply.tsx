/** One air pump for this filter, or a room on a main. */
import { range } from "../../api/range";
import { useState } from "react";
import { useBlanks } from "../../api/tables";
import { useCompute } from "../../api/compute";
import type { Filter } from "../../api/schemas";
import { Fields, Figure, ProblemNote, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";

export function AirSupply({ filter, depthCm }: { filter: Filter; depthCm: number }) {
  const usual = useBlanks().air_supply;
  const [pump, setPump] = useState(usual.pump_l_min);
  const [pressure, setPressure] = useState(usual.pump_kpa);
  const [count, setCount] = useState(1);
  const [depth, setDepth] = useState(Math.round(depthCm));
  const [main, setMain] = useState(usual.main_length_m);
  const [bore, setBore] = useState(usual.main_bore_mm);
  const [ring, setRing] = useState(false);
  const [stone, setStone] = useState(false);
  const supply = useCompute("air-supply", {
    pump_l_min: pump,
    pump_kpa: pressure,
    outlets: usual.outlets.map((one) => ({
      ...one,
      count: Math.max(Math.round(count), 1),
      depth_cm: depth,
      air_l_min: filter.air_l_min ?? 1,
      stone,
    })),
    main_length_m: main,
    main_bore_mm: bore,
    ring,
  });
  const answer = supply.error ? undefined : supply.data;
  return (
    <>
      <Fields>
        <NumberBox
          label="Air pump, L/min"
          value={pump}
          {...range("AirSupplyQuestion.pump_l_min")}
          onChange={setPump}
        />
        <NumberBox
          label="Its pressure, kPa"
          value={pressure}
          {...range("AirSupplyQuestion.pump_kpa")}
          onChange={setPressure}
        />
        <NumberBox label="Filters on it" value={count} {...range("AirOutlet.count")} onChange={setCount} />
        <QuantityField
          label="Deepest outlet"
          unit="cm"
          value={depth}
          {...range("AirOutlet.depth_cm")}
          onChange={setDepth}
        />
        <QuantityField
          label="Main (0: none)"
          unit="m"
          value={main}
          {...range("AirSupplyQuestion.main_length_m")}
          onChange={setMain}
        />
        <QuantityField
          label="Main bore"
          unit="mm"
          value={bore}
          {...range("AirSupplyQuestion.main_bore_mm")}
          onChange={setBore}
        />
      </Fields>
      <YesNo label="The main is closed to a ring" value={ring} onChange={setRing} />
      <YesNo label="Air stones" value={stone} onChange={setStone} />
      <ProblemNote problem={supply.error} />
      {answer && (
        <p role="status">
          <Figure title="Air supply" lines={answer.working}>
            {answer.verdict}
          </Figure>{" "}
          {answer.remedies.join(" ")} A check valve goes in every line, and the pump above the water or the
          valve certain.
        </p>
      )}
    </>
  );
}
