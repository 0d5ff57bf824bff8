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
  const figure = (
    key:
      | "adult_length_cm"
      | "ration_percent_day"
      | "protein_percent"
      | "temperature_low_c"
      | "temperature_high_c"
      | "ph_low"
      | "ph_high"
      | "hardness_low_dgh"
      | "hardness_high_dgh",
    label: string,
  ) => (
    <NumberBox
      label={label}
      value={one[key]}
      {...range(`Species.${key}`)}
      onChange={(v) => {
        put({ [key]: v });
      }}
    />
  );
  const measured = (
    key: "adult_length_cm" | "temperature_low_c" | "temperature_high_c",
    label: string,
    unit: Typed,
  ) => (
    <QuantityField
      label={label}
      unit={unit}
      value={one[key]}
      {...range(`Species.${key}`)}
      onChange={(v) => {
        put({ [key]: v });
      }}
    />
  );
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
        {measured("adult_length_cm", "Grown", "cm")}
        {figure("ration_percent_day", "Eats, % of mass a day")}
        {figure("protein_percent", "Protein in food, %")}
        {measured("temperature_low_c", "Coolest", "°C")}
        {measured("temperature_high_c", "Warmest", "°C")}
        {figure("ph_low", "Lowest pH")}
        {figure("ph_high", "Highest pH")}
        {figure("hardness_low_dgh", "Softest, dGH")}
        {figure("hardness_high_dgh", "Hardest, dGH")}
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
