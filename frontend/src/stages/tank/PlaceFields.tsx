/** Fields for the tank's place, its water, and its purpose. */
import { range } from "../../api/range";
import { styled } from "styled-components";
import type { TankPlan } from "../../api/schemas";
import { Fields, Select, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { WEEKDAYS } from "../../quantity/weekdays";
import { ROOMS } from "../../shared/roomKinds";

const WATERS = [
  ["fresh", "Fresh"],
  ["brackish", "Brackish"],
  ["salt", "Salt"],
] as const;
const TICKS = [
  ["planted", "Planted"],
  ["lid", "Lid closed to the edges"],
  ["cabinet_shut", "Stand with doors, shut"],
  ["surface_film", "A film like oil on the surface"],
  ["drilled", "Drilled"],
  ["overflow_box", "Overflow box over the rim"],
  ["often_away", "Often away, or frequent power cuts"],
] as const;

const CARBON = [
  ["none", "none"],
  ["by-day", "by day"],
  ["day-and-night", "day and night"],
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
        unit="cm"
        value={around.behind_cm}
        onChange={(v) => {
          setAround({ behind_cm: v });
        }}
      />
      <QuantityField
        label="Stand height"
        unit="cm"
        value={around.stand_height_cm}
        onChange={(v) => {
          setAround({ stand_height_cm: v });
        }}
      />
      <NumberBox
        label="Sockets near"
        value={around.sockets}
        {...range("Surroundings.sockets")}
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

function WaterOfPlace({ around, setAround }: Props) {
  return (
    <>
      <QuantityField
        label="Temperature"
        unit="°C"
        value={around.temperature_c ?? null}
        {...range("Surroundings.temperature_c")}
        onChange={(temperature_c) => {
          setAround({ temperature_c });
        }}
        onClear={() => {
          setAround({ temperature_c: null });
        }}
        hint="empty: not known"
      />
      <QuantityField
        label="Room when it is cold"
        unit="°C"
        value={around.room_c ?? null}
        {...range("Surroundings.room_c")}
        onChange={(room_c) => {
          setAround({ room_c });
        }}
        onClear={() => {
          setAround({ room_c: null });
        }}
        hint="empty: not known"
      />
      <NumberBox
        label="pH"
        value={around.ph ?? null}
        {...range("Surroundings.ph")}
        onChange={(ph) => {
          setAround({ ph });
        }}
        onClear={() => {
          setAround({ ph: null });
        }}
        hint="empty: not known"
      />
    </>
  );
}

interface MoreProps extends Props {
  tank: TankPlan["tank"];
  setTank: (change: Partial<TankPlan["tank"]>) => void;
}

/** Fields most keepers leave unchanged. */
export function MoreFields({ tank, setTank, around, setAround }: MoreProps) {
  return (
    <details>
      <summary>More of the tank and its place</summary>
      <Fields>
        <QuantityField
          label="Counted while filling"
          unit="L"
          value={tank.counted_l ?? null}
          {...range("TankVolumeQuestion.counted_l")}
          onChange={(counted_l) => {
            setTank({ counted_l });
          }}
          onClear={() => {
            setTank({ counted_l: null });
          }}
          hint="beats every estimate"
        />
        <Select
          label="Water is changed on"
          value={around.change_weekday == null ? "any" : String(around.change_weekday)}
          onChange={(v) => {
            setAround({ change_weekday: v === "any" ? null : Number(v) });
          }}
          options={[["any", "any day"], ...WEEKDAYS]}
        />
        <QuantityField
          label="Free height inside the stand"
          unit="cm"
          value={around.cabinet_cm ?? around.stand_height_cm}
          onChange={(v) => {
            setAround({ cabinet_cm: v });
          }}
        />
        <WaterOfPlace around={around} setAround={setAround} />
        <Select
          label="CO2 for the plants"
          value={around.co2}
          onChange={(co2) => {
            setAround({ co2 });
          }}
          options={CARBON}
        />
        <NumberBox
          label="Tanks in this place"
          value={around.tanks_here_count}
          {...range("Surroundings.tanks_here_count")}
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
