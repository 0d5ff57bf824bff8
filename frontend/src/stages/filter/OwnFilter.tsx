/** A filter of the keeper's own, from the figures on its box. */
import { useState } from "react";
import type { Filter } from "../../api/schemas";
import { Button, Fields, NumberBox, PickOne, TextField } from "../../kit";
import { Bar } from "../shared";

type Kind = Filter["kind"];
const START = {
  sponge: { face: 500, media: 0.8, h: 20, w: 12, d: 12, bore: 16 },
  "hang-on": { face: 180, media: 1, h: 20, w: 20, d: 12, bore: 18 },
  canister: { face: 260, media: 4, h: 38, w: 20, d: 20, bore: 16 },
};

export function OwnFilter({ onAdd }: { onAdd: (filter: Filter) => void }) {
  const [kind, setKind] = useState<Kind>("canister");
  const [name, setName] = useState("My filter");
  const [flow, setFlow] = useState(800);
  const [head, setHead] = useState(1.4);
  const [air, setAir] = useState(1);
  const [watts, setWatts] = useState(14);
  const [upTo, setUpTo] = useState(250);
  const [price, setPrice] = useState(60);
  const [behind, setBehind] = useState(9);
  const add = () => {
    const s = START[kind];
    onAdd({
      id: `own-${
        name
          .toLowerCase()
          .replace(/[^a-z0-9]+/g, "-")
          .slice(0, 40) || "filter"
      }`,
      name: name.trim() || "My filter",
      kind,
      box_lph: flow,
      max_head_m: kind === "sponge" ? null : head,
      air_l_min: kind === "sponge" ? air : null,
      tube_bore_mm: kind === "canister" ? null : s.bore,
      hose_bore_mm: kind === "canister" ? s.bore : null,
      face_cm2: s.face,
      foam_depth_cm: kind === "canister" ? 10 : 4,
      media_l: s.media,
      height_cm: s.h,
      width_cm: s.w,
      depth_cm: s.d,
      behind_cm: kind === "hang-on" ? behind : 0,
      lip_cm: kind === "hang-on" ? 2 : 0,
      watts,
      noise: 2,
      price,
      tank_up_to_l: upTo,
      restarts_alone: true,
      salt_water: true,
      chemical_media: kind !== "sponge",
    });
  };
  return (
    <>
      <PickOne
        label="Kind"
        value={kind}
        onChange={setKind}
        options={[
          ["canister", "Canister"],
          ["hang-on", "Hang-on"],
          ["sponge", "Sponge"],
        ]}
      />
      <Fields>
        <TextField label="Name" value={name} onChange={setName} />
        <NumberBox label="L/h on the box" value={flow} min={10} max={100000} onChange={setFlow} />
        {kind === "sponge" ? (
          <NumberBox label="Air, L/min" value={air} min={0.05} max={60} onChange={setAir} />
        ) : (
          <NumberBox label="Highest lift, m" value={head} min={0.05} max={30} onChange={setHead} />
        )}
        <NumberBox label="Watts" value={watts} min={0.1} max={2000} onChange={setWatts} />
        <NumberBox label="“Tanks up to”, L" value={upTo} min={1} max={100000} onChange={setUpTo} />
        <NumberBox label="Price" value={price} min={0} max={100000} onChange={setPrice} />
        {kind === "hang-on" && (
          <NumberBox label="Room behind, cm" value={behind} min={0} max={100} onChange={setBehind} />
        )}
      </Fields>
      <Bar>
        <Button $quiet onPress={add}>
          Add it and see
        </Button>
        <span>Sizes and media of a usual one of its kind are assumed.</span>
      </Bar>
    </>
  );
}
