/** Box in hand: four numbers, and whether they agree with each other. */
import { range } from "../../api/range";
import { useState } from "react";
import { styled } from "styled-components";
import { useCompute } from "../../api/compute";
import { useLoadedTables } from "../../api/tables";
import { compute, ProblemError } from "../../api/client";
import type { AnswerOf, Filter, QuestionOf } from "../../api/schemas";
import { Button, Caution, Fields, Figure, ProblemNote, Select, TextField, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { Bar } from "../../kit";

type Kind = Filter["kind"];
type Build = "wheel" | "mid" | "front";
const BUILDS: [Build, string][] = [
  ["wheel", "A wheel turns in it"],
  ["mid", "A second inlet half-way up the stem"],
  ["front", "Media stand behind each other"],
];
const MOTORS = [
  ["unknown", "Not known"],
  ["wet", "In the water"],
  ["dry", "Outside the water"],
] as const;
const PUMP_WET = { unknown: null, wet: true, dry: false };
type Motor = (typeof MOTORS)[number][0];

export function OwnFilter({ onAdd }: { onAdd: (filter: Filter) => void }) {
  const [kind, setKind] = useState<Kind | null>(null);
  const [name, setName] = useState("");
  const [lph, setLph] = useState<number | null>(null);
  const [gph, setGph] = useState<number | null>(null);
  const [lift, setLift] = useState<number | null>(null);
  const [watts, setWatts] = useState<number | null>(null);
  const [upTo, setUpTo] = useState<number | null>(null);
  const [price, setPrice] = useState<number | null>(null);
  const [build, setBuild] = useState<Build[]>([]);
  const [motor, setMotor] = useState<Motor>("unknown");
  const question: QuestionOf<"label-check"> = {
    kind,
    ...(name.trim() && { name: name.trim() }),
    box_lph: lph,
    box_us_gal_per_hour: gph,
    max_head_m: lift,
    watts,
    tank_up_to_l: upTo,
    ...(price !== null && { price }),
    turning_wheel: build.includes("wheel"),
    mid_strainer: build.includes("mid"),
    front_to_back: build.includes("front"),
    pump_in_water: PUMP_WET[motor],
  };
  const flowKnown = lph !== null || gph !== null;
  const check = useCompute("label-check", flowKnown ? question : null);
  // The answer on screen may be outdated: what is added is what is typed.
  const add = async () => {
    try {
      onAdd((await compute("label-check", question)).filter);
    } catch (error) {
      // The same faults are shown above, by the same question.
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
          {...range("LabelCheckQuestion.box_lph")}
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
          {...range("LabelCheckQuestion.max_head_m")}
          onChange={setLift}
        />
        <NumberBox
          label="Watts"
          onClear={() => {
            setWatts(null);
          }}
          value={watts}
          {...range("LabelCheckQuestion.watts")}
          onChange={setWatts}
        />
        <QuantityField
          label="“Tanks up to”"
          onClear={() => {
            setUpTo(null);
          }}
          unit="L"
          value={upTo}
          {...range("LabelCheckQuestion.tank_up_to_l")}
          onChange={setUpTo}
        />
        <NumberBox
          label="US gal/h, if printed"
          onClear={() => {
            setGph(null);
          }}
          value={gph}
          {...range("LabelCheckQuestion.box_us_gal_per_hour")}
          onChange={setGph}
        />
        <KindBox kind={kind} onKind={setKind} />
        <TextField label="Name" value={name} onChange={setName} />
        <NumberBox
          label="Price"
          value={price}
          {...range("LabelCheckQuestion.price")}
          onChange={setPrice}
          onClear={() => {
            setPrice(null);
          }}
        />
      </Fields>
      <Built motor={motor} onMotor={setMotor} build={build} onBuild={setBuild} />
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
      {answer && <Beyond answer={answer} />}
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

/** Tank volumes it suits, and figures the box leaves out. */
function Beyond({ answer }: { answer: AnswerOf<"label-check"> }) {
  return (
    <Found>
      <p>{answer.carries_words}</p>
      {answer.missing.length > 0 && (
        <ul>
          {answer.missing.map((m) => (
            <li key={m}>{m}</li>
          ))}
        </ul>
      )}
    </Found>
  );
}

const UNSAID = "unsaid";

/** Its kind, which a box seldom prints and a look shows. */
function KindBox({ kind, onKind }: { kind: Kind | null; onKind: (kind: Kind | null) => void }) {
  const kinds = useLoadedTables().kinds.map((k): [Kind, string] => [k.kind, k.title]);
  return (
    <Select<string>
      label="Kind"
      value={kind ?? UNSAID}
      onChange={(picked) => {
        onKind(kinds.find(([key]) => key === picked)?.[0] ?? null);
      }}
      options={[[UNSAID, "Not said"], ...kinds]}
    />
  );
}

/** Construction, where the box or a look inside shows it. */
function Built({
  motor,
  onMotor,
  build,
  onBuild,
}: {
  motor: Motor;
  onMotor: (motor: Motor) => void;
  build: Build[];
  onBuild: (build: Build[]) => void;
}) {
  return (
    <details>
      <summary>How it is built</summary>
      <Select label="Where its motor stands" value={motor} onChange={onMotor} options={MOTORS} />
      <Ticks>
        {BUILDS.map(([key, label]) => (
          <YesNo
            key={key}
            label={label}
            value={build.includes(key)}
            onChange={(on) => {
              onBuild(on ? [...build, key] : build.filter((k) => k !== key));
            }}
          />
        ))}
      </Ticks>
    </details>
  );
}

const Ticks = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
`;

const Found = styled.div`
  margin: 6px 0 10px;
  ul {
    margin: 8px 0 0;
    padding-left: 18px;
    list-style: "– ";
    color: var(--ink-soft);
    font-size: 15px;
  }
  li + li {
    margin-top: 4px;
  }
`;
