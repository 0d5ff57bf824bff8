/** A sump's overflow, drain and what runs back when the power fails. */
import { useState } from "react";
import { useCompute } from "../../api/hooks";
import { Fields, Figure, NumberBox, ProblemNote } from "../../kit";

export function Overflow({ returnLph, surfaceCm2 }: { returnLph: number; surfaceCm2: number }) {
  const [weir, setWeir] = useState(30);
  const [drain, setDrain] = useState(28);
  const [fall, setFall] = useState(0.8);
  const [depth, setDepth] = useState(2);
  const [free, setFree] = useState(30);
  const check = useCompute("overflow-check", {
    return_lph: Math.max(returnLph, 10),
    weir_cm: weir,
    drain_bore_mm: drain,
    drain_fall_m: fall,
    return_below_surface_cm: depth,
    sump_free_l: free,
    tank_surface_cm2: Math.max(surfaceCm2, 100),
  });
  const answer = check.error ? undefined : check.data;
  return (
    <>
      <Fields>
        <NumberBox label="Weir edge, cm" value={weir} min={2} max={500} onChange={setWeir} />
        <NumberBox label="Drain bore, mm" value={drain} min={8} max={110} onChange={setDrain} />
        <NumberBox label="Fall of the drain, m" value={fall} min={0.1} max={10} onChange={setFall} />
        <NumberBox
          label="Return or siphon break below surface, cm"
          value={depth}
          min={0}
          max={100}
          onChange={setDepth}
        />
        <NumberBox label="Free room in the sump, L" value={free} min={0} max={5000} onChange={setFree} />
      </Fields>
      <ProblemNote problem={check.error} />
      {answer && (
        <p role="status">
          <Figure title="Overflow and run-back" lines={answer.working}>
            {answer.verdict}
          </Figure>{" "}
          {answer.remedies.join(" ")}
        </p>
      )}
    </>
  );
}
