/** The label of a box: pasted text read into fields, and the fields themselves. */
import { useState } from "react";
import { styled } from "styled-components";
import { compute, ProblemError } from "../api/client";
import { range } from "../api/range";
import { BOX_LABEL } from "../api/ranges";
import type { AnswerOf, Label } from "../api/schemas";
import { useLoadedTables } from "../api/tables";
import { Bar, Button, Caution, Fields, ProblemNote, Select, TextBox, TextField, YesNo } from "../kit";
import { NumberBox, QuantityField } from "../kit/quantities";

export const EMPTY_LABEL: Label = BOX_LABEL;

interface Props {
  label: Label;
  onChange: (change: Partial<Label>) => void;
  /** Without name, price and construction: for a quick yes or no. */
  short?: boolean;
}

/** Whether a label says enough to be judged. */
export function saysEnough(label: Label): boolean {
  return (
    label.box_lph !== null ||
    label.box_us_gal_per_hour !== null ||
    (label.kind !== null && label.tank_up_to_l !== null)
  );
}

export function LabelForm({ label, onChange, short }: Props) {
  const set = (key: keyof Label) => ({
    onChange: (value: number) => {
      onChange({ [key]: value });
    },
    onClear: () => {
      onChange({ [key]: null });
    },
  });
  return (
    <>
      <PasteLabel onRead={onChange} />
      <Fields>
        <KindBox
          kind={label.kind}
          onKind={(kind) => {
            onChange({ kind });
          }}
        />
        <QuantityField
          label="Flow on the box"
          unit="L/h"
          value={label.box_lph}
          {...range("LabelCheckQuestion.box_lph")}
          {...set("box_lph")}
        />
        <NumberBox
          label="US gal/h, if printed"
          value={label.box_us_gal_per_hour}
          {...range("LabelCheckQuestion.box_us_gal_per_hour")}
          {...set("box_us_gal_per_hour")}
        />
        <QuantityField
          label="Highest lift"
          unit="m"
          value={label.max_head_m}
          {...range("LabelCheckQuestion.max_head_m")}
          {...set("max_head_m")}
        />
        <NumberBox
          label="Watts"
          value={label.watts}
          {...range("LabelCheckQuestion.watts")}
          {...set("watts")}
        />
        <QuantityField
          label="“Tanks up to”"
          unit="L"
          value={label.tank_up_to_l}
          {...range("LabelCheckQuestion.tank_up_to_l")}
          {...set("tank_up_to_l")}
        />
        {!short && (
          <>
            <TextField
              label="Name"
              value={label.name === EMPTY_LABEL.name ? "" : label.name}
              onChange={(name) => {
                onChange({ name: name.trim() ? name.slice(0, 80) : EMPTY_LABEL.name });
              }}
            />
            <NumberBox
              label="Price"
              value={label.price}
              {...range("LabelCheckQuestion.price")}
              {...set("price")}
            />
          </>
        )}
      </Fields>
      {!short && <Built label={label} onChange={onChange} />}
    </>
  );
}

const UNSAID = "unsaid";

/** Its kind, which a box seldom prints and a look shows. */
function KindBox({ kind, onKind }: { kind: Label["kind"]; onKind: (kind: Label["kind"]) => void }) {
  const kinds = useLoadedTables().kinds.map((k): [string, string] => [k.kind, k.title]);
  return (
    <Select<string>
      label="Kind"
      value={kind ?? UNSAID}
      onChange={(picked) => {
        onKind(picked === UNSAID ? null : (picked as Label["kind"]));
      }}
      options={[[UNSAID, "Not said"], ...kinds]}
    />
  );
}

const MOTORS = [
  ["unknown", "Not known"],
  ["wet", "In the water"],
  ["dry", "Outside the water"],
] as const;
type Motor = (typeof MOTORS)[number][0];
const MOTOR_WET: Record<Motor, boolean | null> = { unknown: null, wet: true, dry: false };
const BUILDS: ["turning_wheel" | "mid_strainer" | "front_to_back", string][] = [
  ["turning_wheel", "A wheel turns in it"],
  ["mid_strainer", "A second inlet half-way up the stem"],
  ["front_to_back", "Media stand behind each other"],
];

/** Construction, where the box or a look inside shows it. */
function Built({ label, onChange }: Props) {
  const motor: Motor = label.pump_in_water === null ? "unknown" : label.pump_in_water ? "wet" : "dry";
  return (
    <details>
      <summary>How it is built</summary>
      <Select
        label="Where its motor stands"
        value={motor}
        onChange={(picked) => {
          onChange({ pump_in_water: MOTOR_WET[picked] });
        }}
        options={MOTORS}
      />
      <Fields>
        <NumberBox
          label="Sound at a metre, dB"
          value={label.noise_db}
          {...range("LabelCheckQuestion.noise_db")}
          onChange={(noise_db) => {
            onChange({ noise_db });
          }}
          onClear={() => {
            onChange({ noise_db: null });
          }}
        />
        <QuantityField
          label="Its baskets hold"
          unit="L"
          value={label.media_l}
          {...range("LabelCheckQuestion.media_l")}
          onChange={(media_l) => {
            onChange({ media_l });
          }}
          onClear={() => {
            onChange({ media_l: null });
          }}
        />
      </Fields>
      <Ticks>
        {BUILDS.map(([key, words]) => (
          <YesNo
            key={key}
            label={words}
            value={label[key]}
            onChange={(on) => {
              onChange({ [key]: on });
            }}
          />
        ))}
      </Ticks>
    </details>
  );
}

/** Any text off a box or a page, read into fields: each is shown with the words it came from. */
function PasteLabel({ onRead }: { onRead: (read: Partial<Label>) => void }) {
  const [text, setText] = useState("");
  const [read, setRead] = useState<AnswerOf<"read-label"> | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const go = async () => {
    setProblem(null);
    try {
      const answer = await compute("read-label", { text });
      setRead(answer);
      onRead(filled(answer.label));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <details>
      <summary>Paste a label</summary>
      <TextBox
        label="Text off the box or a page"
        value={text}
        onChange={setText}
        placeholder="Flow 264 GPH · 20 W · H-max 1.6 m · up to 75 gal"
      />
      <Bar>
        <Button $quiet isDisabled={!text.trim()} onPress={() => void go()}>
          Read it
        </Button>
        <span role="status">{read?.verdict}</span>
      </Bar>
      <ProblemNote problem={problem} />
      {read && read.fields.length > 0 && <LabelSummary read={read} />}
    </details>
  );
}

/** What was read; what was not is left as it stands. */
function filled(label: Label): Partial<Label> {
  return Object.fromEntries(
    Object.entries(label).filter(
      ([key, value]) => value !== null && value !== false && value !== EMPTY_LABEL.name && key,
    ),
  );
}

function LabelSummary({ read }: { read: AnswerOf<"read-label"> }) {
  return (
    <>
      <Read>
        {read.fields.map((f) => (
          <li key={f.field} data-doubt={f.doubt !== "" || undefined}>
            “{f.words}”: {f.says}
            {f.doubt && <b> – look: {f.doubt}</b>}
          </li>
        ))}
      </Read>
      {read.left_out.length > 0 && <p>Left out: {read.left_out.join(", ")}.</p>}
      {read.doubts.length > 0 && <Caution>Look at what is marked before you rely on it.</Caution>}
    </>
  );
}

const Ticks = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 22px;
`;
const Read = styled.ul`
  margin: 4px 0 8px;
  padding-left: 18px;
  list-style: "– ";
  font-size: 0.9375rem;
  li[data-doubt] {
    color: var(--seed);
  }
`;
