/** Where the tank stands, its water, and what it is made for. */
import { styled } from "styled-components";
import type { TankPlan } from "../../api/schemas";
import { Fields, NumberBox, Select, YesNo } from "../../kit";
import { QuantityField } from "../../quantity";

const ROOMS = [
  ["living", "Living room"],
  ["bedroom", "Bedroom"],
  ["workshop", "Workshop"],
  ["shop", "Shop"],
  ["fish-room", "Fish room"],
] as const;
const WATERS = [
  ["fresh", "Fresh"],
  ["brackish", "Brackish"],
  ["salt", "Salt"],
] as const;
const TICKS = [
  ["planted", "Planted"],
  ["lid", "Lid closed to the edges"],
  ["drilled", "Drilled"],
  ["overflow_box", "Overflow box over the rim"],
  ["often_away", "Often away, or frequent power cuts"],
] as const;

type Surroundings = TankPlan["surroundings"];

interface Props {
  around: Surroundings;
  setAround: (change: Partial<Surroundings>) => void;
}

export function PlaceFields({ around, setAround }: Props) {
  return (
    <>
      <QuantityField
        label="Glass to wall"
        kind="length"
        value={around.behind_cm}
        onChange={(v) => {
          setAround({ behind_cm: v });
        }}
      />
      <QuantityField
        label="Stand height"
        kind="length"
        value={around.stand_height_cm}
        onChange={(v) => {
          setAround({ stand_height_cm: v });
        }}
      />
      <NumberBox
        label="Sockets near"
        value={around.sockets}
        min={0}
        max={40}
        onChange={(v) => {
          setAround({ sockets: v });
        }}
      />
      <Select
        label="Room"
        value={around.room}
        onChange={(room) => {
          setAround({ room });
        }}
        options={ROOMS}
      />
      <Select
        label="Water"
        value={around.water}
        onChange={(water) => {
          setAround({ water });
        }}
        options={WATERS}
      />
    </>
  );
}

interface MoreProps extends Props {
  tank: TankPlan["tank"];
  setTank: (change: Partial<TankPlan["tank"]>) => void;
}

/** What most keepers leave as it is. */
export function MoreFields({ tank, setTank, around, setAround }: MoreProps) {
  return (
    <details>
      <summary>More of the tank and its place</summary>
      <Fields>
        <NumberBox
          label="Counted while filling, L (0: not counted)"
          value={tank.counted_l ?? 0}
          min={0}
          max={50000}
          onChange={(v) => {
            setTank({ counted_l: v >= 0.5 ? v : null });
          }}
          hint="beats every estimate"
        />
        <QuantityField
          label="Free height inside the stand"
          kind="length"
          value={around.cabinet_cm ?? around.stand_height_cm}
          onChange={(v) => {
            setAround({ cabinet_cm: v });
          }}
        />
        <NumberBox
          label="Temperature, °C (0: not known)"
          value={around.temperature_c ?? 0}
          min={0}
          max={40}
          onChange={(v) => {
            setAround({ temperature_c: v >= 1 ? v : null });
          }}
        />
        <NumberBox
          label="Room when it is cold, °C (0: not known)"
          value={around.room_c ?? 0}
          min={0}
          max={40}
          onChange={(v) => {
            setAround({ room_c: v >= 1 ? v : null });
          }}
        />
        <NumberBox
          label="pH (0: not known)"
          value={around.ph ?? 0}
          min={0}
          max={10}
          onChange={(v) => {
            setAround({ ph: v >= 4 ? v : null });
          }}
        />
        <NumberBox
          label="Tanks in this place"
          value={around.tanks_here_count}
          min={1}
          max={200}
          onChange={(v) => {
            setAround({ tanks_here_count: Math.round(v) });
          }}
        />
      </Fields>
      <Ticks>
        {TICKS.map(([key, label]) => (
          <YesNo
            key={key}
            label={label}
            value={around[key]}
            onChange={(on) => {
              setAround({ [key]: on });
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
  gap: 0 24px;
  padding: 6px 0;
`;
