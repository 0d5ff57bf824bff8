/** Box in hand: four numbers, and whether they agree with each other. */
import { useState } from "react";
import { useCompute, useLoadedTables } from "../../api/hooks";
import { compute, ProblemError } from "../../api/client";
import type { Filter, QuestionOf } from "../../api/schemas";
import { Button, Caution, Fields, Figure, ProblemNote, Select, TextField } from "../../kit";
import { NumberBox, QuantityField } from "../../quantity";
import { Bar } from "../shared";

export function OwnFilter({ onAdd }: { onAdd: (filter: Filter) => void }) {
  const kinds = useLoadedTables().kinds.map((k): [Filter["kind"], string] => [k.kind, k.title]);
  const [kind, setKind] = useState<Filter["kind"]>("canister");
  const [name, setName] = useState("");
  const [lph, setLph] = useState<number | null>(null);
  const [gph, setGph] = useState<number | null>(null);
  const [lift, setLift] = useState<number | null>(null);
  const [watts, setWatts] = useState<number | null>(null);
  const [upTo, setUpTo] = useState<number | null>(null);
  const [price, setPrice] = useState<number | null>(null);
  const question: QuestionOf<"label-check"> = {
    kind,
    ...(name.trim() && { name: name.trim() }),
    box_lph: lph,
    box_us_gal_per_hour: gph,
    max_head_m: lift,
    watts,
    tank_up_to_l: upTo,
    ...(price !== null && { price }),
  };
  const flowKnown = lph !== null || gph !== null;
  const check = useCompute("label-check", flowKnown ? question : null);
  // The answer on screen may be to what stood here a moment ago: what is added is what is typed.
  const add = async () => {
    try {
      onAdd((await compute("label-check", question)).filter);
    } catch (error) {
      // What is wrong with it is said above, by the same question.
      if (!(error instanceof ProblemError)) throw error;
    }
  };
  const answer = check.error || !flowKnown ? undefined : check.data;
  return (
    <>
      <Fields>
        <QuantityField
          label="Flow on the box"
          unit="L/h"
          value={lph}
          min={1}
          max={100000}
          onChange={setLph}
          onClear={() => {
            setLph(null);
          }}
        />
        <QuantityField
          label="Highest lift"
          onClear={() => {
            setLift(null);
          }}
          unit="m"
          value={lift}
          min={0.05}
          max={30}
          onChange={setLift}
        />
        <NumberBox
          label="Watts"
          onClear={() => {
            setWatts(null);
          }}
          value={watts}
          min={0.1}
          max={2000}
          onChange={setWatts}
        />
        <QuantityField
          label="“Tanks up to”"
          onClear={() => {
            setUpTo(null);
          }}
          unit="L"
          value={upTo}
          min={1}
          max={100000}
          onChange={setUpTo}
        />
        <NumberBox
          label="US gal/h, if printed"
          onClear={() => {
            setGph(null);
          }}
          value={gph}
          min={0.2}
          max={26000}
          onChange={setGph}
        />
        <Select label="Kind" value={kind} onChange={setKind} options={kinds} />
        <TextField label="Name" value={name} onChange={setName} />
        <NumberBox
          label="Price"
          value={price}
          min={0}
          max={100000}
          onChange={setPrice}
          onClear={() => {
            setPrice(null);
          }}
        />
      </Fields>
      <ProblemNote problem={check.error} />
      {answer &&
        (answer.agrees ? (
          <p>
            <Figure title="The box held against itself" lines={answer.working}>
              {answer.verdict}
            </Figure>
          </p>
        ) : (
          answer.findings.map((f) => <Caution key={f}>{f}</Caution>)
        ))}
      {answer && answer.missing.length > 0 && (
        <ul>
          {answer.missing.map((m) => (
            <li key={m}>{m}</li>
          ))}
        </ul>
      )}
      <Bar>
        <Button $quiet isDisabled={!answer} onPress={() => void add()}>
          Add it and see
        </Button>
        <span>
          {flowKnown
            ? "What the box does not say is taken from the catalogue’s nearest of its kind."
            : "The flow is enough to begin with; leave empty what is not printed."}
        </span>
      </Bar>
    </>
  );
}
