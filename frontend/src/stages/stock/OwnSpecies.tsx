/** Form for a species the table does not list. */
import { range } from "../../api/range";
import { useState } from "react";
import { useBlanks } from "../../api/tables";
import type { Species } from "../../api/schemas";
import { Button, Fields, Select, TextField } from "../../kit";
import { NumberBox, QuantityField, type Typed } from "../../kit/quantities";
import { Bar } from "../../kit";

const FORMS = [
  ["fusiform", "Fish, usual build"],
  ["slender", "Fish, slim"],
  ["elongated", "Fish, long and thin"],
  ["short", "Fish, short and deep"],
  ["globe", "Fish, egg-shaped"],
  ["eel", "Fish, eel-like"],
  ["shrimp", "Shrimp or crayfish"],
  ["snail", "Snail, round"],
  ["tall snail", "Snail, tall"],
  ["axolotl", "Newt, frog or axolotl"],
  ["turtle", "Turtle"],
] as const;
const SIZINGS = [
  ["gentle", "Tiny and light"],
  ["community", "Usual community"],
  ["messy", "Large and messy"],
  ["cichlid", "African cichlid"],
  ["turtle", "Turtle"],
  ["goldfish", "Goldfish"],
] as const;
const CURRENTS = [
  ["gentle", "Gentle"],
  ["moderate", "Moderate"],
  ["strong", "Strong"],
] as const;
const COMPANY = [
  ["any", "Alone or with others"],
  ["alone", "One to a tank"],
  ["pair", "A pair"],
  ["group", "A group"],
] as const;
const TEMPERS = [
  ["peaceful", "Peaceful"],
  ["nips", "Nips fins"],
  ["hunts", "Eats small animals"],
] as const;
const SWIMS = [
  ["top", "Top"],
  ["middle", "Middle"],
  ["bottom", "Bottom"],
] as const;
const WATERS = [
  ["fresh", "Fresh"],
  ["brackish", "Brackish"],
  ["salt", "Salt"],
] as const;

export function OwnSpecies({ onAdd }: { onAdd: (species: Species) => void }) {
  const blank = { ...useBlanks().species, common_name: "" };
  const [one, setOne] = useState(blank);
  const put = (change: Partial<Species>) => {
    setOne((now) => ({ ...now, ...change }));
  };
  const name = one.common_name.trim();
  const usable = name && one.temperature_low_c <= one.temperature_high_c && one.ph_low <= one.ph_high;
  return (
    <>
      <Fields>
        <TextField
          label="Name of the animal"
          value={one.common_name}
          onChange={(common_name) => {
            put({ common_name });
          }}
        />
        <Traits one={one} put={put} />
        <Figures one={one} put={put} />
      </Fields>
      <Bar>
        <Button
          $quiet
          isDisabled={!usable}
          onPress={() => {
            onAdd({
              ...one,
              common_name: name,
              id: `own-${name.toLowerCase().replace(/[^a-z0-9]+/g, "-")}`.slice(0, 60),
            });
            setOne(blank);
          }}
        >
          Add this animal
        </Button>
        <span>Kept with this tank as your own figures.</span>
      </Bar>
    </>
  );
}

interface PartProps {
  one: Species;
  put: (change: Partial<Species>) => void;
}

function Traits({ one, put }: PartProps) {
  return (
    <>
      <Select
        label="Build"
        value={one.body_form}
        onChange={(body_form) => {
          put({ body_form });
        }}
        options={FORMS}
      />
      <Select
        label="How messy"
        value={one.sizing}
        onChange={(sizing) => {
          put({ sizing });
        }}
        options={SIZINGS}
      />
      <Select
        label="Current it likes"
        value={one.current}
        onChange={(current) => {
          put({ current });
        }}
        options={CURRENTS}
      />
      <Select
        label="Where it swims"
        value={one.swims}
        onChange={(swims) => {
          put({ swims });
        }}
        options={SWIMS}
      />
      <Select
        label="Its water"
        value={one.water}
        onChange={(water) => {
          put({ water });
        }}
        options={WATERS}
      />
      <Select
        label="Kept as"
        value={one.company}
        onChange={(company) => {
          put({ company });
        }}
        options={COMPANY}
      />
      <Select
        label="Temper"
        value={one.temper}
        onChange={(temper) => {
          put({ temper });
        }}
        options={TEMPERS}
      />
    </>
  );
}

const MEASURED = [
  ["adult_length_cm", "Grown", "cm"],
  ["temperature_low_c", "Coolest", "°C"],
  ["temperature_high_c", "Warmest", "°C"],
] as const satisfies readonly (readonly [keyof Species, string, Typed])[];
const PLAIN = [
  ["ration_percent_day", "Eats, % of mass a day"],
  ["protein_percent", "Protein in food, %"],
  ["ph_low", "Lowest pH"],
  ["ph_high", "Highest pH"],
  ["hardness_low_dgh", "Softest, dGH"],
  ["hardness_high_dgh", "Hardest, dGH"],
] as const;

function Figures({ one, put }: PartProps) {
  return (
    <>
      {MEASURED.map(([key, label, unit]) => (
        <QuantityField
          key={key}
          label={label}
          unit={unit}
          value={one[key]}
          {...range(`Species.${key}`)}
          onChange={(v) => {
            put({ [key]: v });
          }}
        />
      ))}
      {PLAIN.map(([key, label]) => (
        <NumberBox
          key={key}
          label={label}
          value={one[key]}
          {...range(`Species.${key}`)}
          onChange={(v) => {
            put({ [key]: v });
          }}
        />
      ))}
    </>
  );
}
