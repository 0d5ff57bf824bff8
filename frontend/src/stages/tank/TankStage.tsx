/** Tank: measure it, and see what it really holds. */
import { styled } from "styled-components";
import { useDraft } from "../../api/drafts";
import { useView } from "../../api/hooks";
import type { TankPlan } from "../../api/schemas";
import {
  Caution,
  Fields,
  Figure,
  Lead,
  NumberBox,
  PickOne,
  ProblemNote,
  Select,
  Verdict,
  Waiting,
  YesNo,
} from "../../kit";
import { QuantityField, Twin } from "../../quantity";
import { Section } from "../../section/Section";
import { SumpForm } from "./SumpForm";
import { Facts, filterPlan, hanging, SaveBar, tankPlan, TwoColumns, type StageProps } from "../shared";

const SHAPES = [
  ["box", "Box"],
  ["bow-front", "Bow front"],
  ["cylinder", "Cylinder"],
  ["prism", "Prism"],
  ["corner", "Quarter-round corner"],
] as const;
const LENGTH_NAMES: Record<(typeof SHAPES)[number][0], string> = {
  box: "Length",
  "bow-front": "Length",
  cylinder: "Diameter",
  prism: "Across flats",
  corner: "Along the wall",
};
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

export function TankStage({ tankId, logbook }: StageProps) {
  const draft = useDraft<TankPlan>(tankId, "tank", tankPlan(logbook), logbook.tank_plan?.id ?? null);
  const { tank } = draft.value;
  const around = draft.value.surroundings ?? {};
  const asked = useView(tankId, "tank", { tank_plan: draft.value });
  const setTank = (change: Partial<TankPlan["tank"]>) => {
    draft.set((plan) => ({ ...plan, tank: { ...plan.tank, ...change } }));
  };
  const setAround = (change: Partial<NonNullable<TankPlan["surroundings"]>>) => {
    draft.set((plan) => ({ ...plan, surroundings: { ...plan.surroundings, ...change } }));
  };
  const view = asked.error ? undefined : asked.data;
  const answer = view?.volume;
  return (
    <TwoColumns
      drawing={
        <Section
          plan={draft.value}
          volume={answer}
          dimensions
          filters={hanging(filterPlan(logbook))}
          onMove={{
            fill: (cm) => {
              setTank({ fill_below_rim_cm: cm });
            },
            wall: (cm) => {
              setAround({ behind_cm: cm });
            },
            stand: (cm) => {
              setAround({ stand_height_cm: cm });
            },
            canister: (cm) => {
              setAround({ canister_at_cm: cm });
            },
          }}
          caption={`The tank to scale, ${tank.length_cm}${(tank.shape ?? "box") === "box" ? ` by ${tank.width_cm ?? 30}` : ""} by ${tank.height_cm} cm, ${around.behind_cm ?? 10} cm from the wall. ${answer?.verdict ?? ""}`}
        />
      }
      beside={
        <>
          <Caution>
            Full tanks are heavy: the stand must be made for it, and whether the floor carries it is for a
            builder or the local code. Never move a filled tank.
          </Caution>
        </>
      }
    >
      {answer ? (
        <Verdict>
          {logbook.tank_plan || draft.dirty ? "It holds " : "A tank like this holds "}
          <em>
            <Figure title="Net water" lines={answer.working}>
              {answer.net_l.toFixed(0)} litres
            </Figure>
          </em>{" "}
          ({answer.net_us_gal.toFixed(1)} US gallons).
        </Verdict>
      ) : (
        !asked.error && <Waiting>Measuring…</Waiting>
      )}
      <ProblemNote problem={asked.error} />
      {!logbook.tank_plan && !draft.dirty && (
        <Lead>These sizes are an assumed 60 cm tank. Type yours: centimetres, or “24 in”, “2 ft”.</Lead>
      )}
      {answer && (
        <Facts>
          <div>
            <dt>Water depth</dt>
            <dd>
              <Figure title="Water depth" lines={answer.working}>
                {answer.water_depth_cm.toFixed(1)} cm
              </Figure>
              <small>
                <Twin unit="cm" value={answer.water_depth_cm} />
              </small>
            </dd>
          </div>
          <div>
            <dt>Empty of anything</dt>
            <dd>
              <Figure title="Gross volume" lines={answer.working}>
                {answer.gross_l.toFixed(0)} L
              </Figure>
            </dd>
          </div>
          <div>
            <dt>Weighs full</dt>
            <dd>
              <Figure title="Filled mass" lines={answer.working}>
                {answer.filled_kg.toFixed(0)} kg
              </Figure>
              <small>
                <Twin unit="kg" value={answer.filled_kg} />
              </small>
            </dd>
          </div>
          <div>
            <dt>On its foot</dt>
            <dd>
              <Figure title="Pressure on the footprint" lines={answer.working}>
                {answer.floor_kpa.toFixed(1)} kPa
              </Figure>
            </dd>
          </div>
        </Facts>
      )}
      <Fields>
        <Select
          label="Shape"
          value={tank.shape ?? "box"}
          onChange={(shape) => {
            setTank({ shape });
          }}
          options={SHAPES}
        />
        <QuantityField
          label={LENGTH_NAMES[tank.shape ?? "box"]}
          kind="length"
          value={tank.length_cm}
          onChange={(v) => {
            setTank({ length_cm: v });
          }}
        />
        {(tank.shape ?? "box") === "box" || tank.shape === "bow-front" ? (
          <QuantityField
            label="Width"
            kind="length"
            value={tank.width_cm ?? 30}
            onChange={(v) => {
              setTank({ width_cm: v });
            }}
          />
        ) : null}
        {tank.shape === "bow-front" && (
          <QuantityField
            label="Bow"
            kind="length"
            value={tank.bow_cm ?? 8}
            onChange={(v) => {
              setTank({ bow_cm: v });
            }}
            hint="beyond the corners"
          />
        )}
        {tank.shape === "prism" && (
          <NumberBox
            label="Sides"
            value={tank.sides_count ?? 6}
            min={3}
            max={12}
            onChange={(n) => {
              setTank({ sides_count: Math.round(n) });
            }}
          />
        )}
        <QuantityField
          label="Height"
          kind="length"
          value={tank.height_cm}
          onChange={(v) => {
            setTank({ height_cm: v });
          }}
        />
        <NumberBox
          label="Glass, mm"
          value={tank.glass_mm ?? 6}
          min={2}
          max={50}
          onChange={(v) => {
            setTank({ glass_mm: v });
          }}
        />
        <QuantityField
          label="Water below rim"
          kind="length"
          value={tank.fill_below_rim_cm ?? 3}
          onChange={(v) => {
            setTank({ fill_below_rim_cm: v });
          }}
        />
        <QuantityField
          label="Substrate depth"
          kind="length"
          value={tank.substrate_depth_cm ?? 0}
          onChange={(v) => {
            setTank({ substrate_depth_cm: v });
          }}
        />
        <QuantityField
          label="Stone"
          kind="mass"
          value={tank.stone_kg ?? 0}
          onChange={(v) => {
            setTank({ stone_kg: v });
          }}
        />
        <QuantityField
          label="Wood"
          kind="mass"
          value={tank.wood_kg ?? 0}
          onChange={(v) => {
            setTank({ wood_kg: v });
          }}
        />
        <QuantityField
          label="Glass to wall"
          kind="length"
          value={around.behind_cm ?? 10}
          onChange={(v) => {
            setAround({ behind_cm: v });
          }}
        />
        <QuantityField
          label="Stand height"
          kind="length"
          value={around.stand_height_cm ?? 70}
          onChange={(v) => {
            setAround({ stand_height_cm: v });
          }}
        />
        <NumberBox
          label="Sockets near"
          value={around.sockets ?? 2}
          min={0}
          max={40}
          onChange={(v) => {
            setAround({ sockets: v });
          }}
        />
        <Select
          label="Room"
          value={around.room ?? "living"}
          onChange={(room) => {
            setAround({ room });
          }}
          options={ROOMS}
        />
        <Select
          label="Water"
          value={around.water ?? "fresh"}
          onChange={(water) => {
            setAround({ water });
          }}
          options={WATERS}
        />
      </Fields>
      {(around.drilled === true || around.overflow_box === true) && (
        <SumpForm
          sump={around.sump ?? null}
          heldL={view?.sump_held_l}
          freeL={view?.sump_free_l}
          onChange={(sump) => {
            setAround({ sump });
          }}
        />
      )}
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
            value={around.cabinet_cm ?? around.stand_height_cm ?? 70}
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
            value={around.tanks_here_count ?? 1}
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
              value={around[key] ?? false}
              onChange={(on) => {
                setAround({ [key]: on });
              }}
            />
          ))}
        </Ticks>
      </details>
      <PickOne
        label="The sizes are taken"
        value={tank.measured ?? "outside"}
        onChange={(measured) => {
          setTank({ measured });
        }}
        options={[
          ["outside", "outside the glass"],
          ["inside", "inside the glass"],
        ]}
      />
      <SaveBar
        tankId={tankId}
        draft={draft}
        blocked={asked.error?.status === 422}
        words="Save the tank"
        describe={(b) =>
          `${b.tank.length_cm} × ${b.tank.width_cm ?? 30} × ${b.tank.height_cm} cm, water ${b.tank.fill_below_rim_cm ?? 3} cm below the rim`
        }
      />
    </TwoColumns>
  );
}

const Ticks = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 24px;
  padding: 6px 0;
`;
