/** Fields for the tank's sizes and contents, by shape. */
import { range } from "../../api/range";
import type { TankPlan } from "../../api/schemas";
import { Select } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";

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

const INSIDE = [
  ["fill_below_rim_cm", "Water below rim", "cm"],
  ["substrate_depth_cm", "Substrate depth", "cm"],
  ["stone_kg", "Stone", "kg"],
  ["wood_kg", "Wood", "kg"],
] as const;

interface Props {
  tank: TankPlan["tank"];
  setTank: (change: Partial<TankPlan["tank"]>) => void;
  /** Litres typed into a length field. */
  onVolume: (litres: number) => void;
}

export function SizeFields({ tank, setTank, onVolume }: Props) {
  return (
    <>
      <Select
        label="Shape"
        value={tank.shape}
        onChange={(shape) => {
          setTank({ shape });
        }}
        options={SHAPES}
      />
      <QuantityField
        label={LENGTH_NAMES[tank.shape]}
        unit="cm"
        onVolume={onVolume}
        value={tank.length_cm}
        onChange={(v) => {
          setTank({ length_cm: v });
        }}
      />
      {tank.shape === "box" || tank.shape === "bow-front" ? (
        <QuantityField
          label="Width"
          unit="cm"
          onVolume={onVolume}
          value={tank.width_cm}
          onChange={(v) => {
            setTank({ width_cm: v });
          }}
        />
      ) : null}
      {tank.shape === "bow-front" && <Bow tank={tank} setTank={setTank} />}
      {tank.shape === "prism" && (
        <NumberBox
          label="Sides"
          value={tank.sides_count}
          {...range("TankVolumeQuestion.sides_count")}
          onChange={(n) => {
            setTank({ sides_count: Math.round(n) });
          }}
        />
      )}
      <QuantityField
        label="Height"
        unit="cm"
        onVolume={onVolume}
        value={tank.height_cm}
        onChange={(v) => {
          setTank({ height_cm: v });
        }}
      />
      <QuantityField
        label="Glass"
        unit="mm"
        value={tank.glass_mm}
        {...range("TankVolumeQuestion.glass_mm")}
        onChange={(v) => {
          setTank({ glass_mm: v });
        }}
      />
      {INSIDE.map(([key, label, unit]) => (
        <QuantityField
          key={key}
          label={label}
          unit={unit}
          value={tank[key]}
          onChange={(v) => {
            setTank({ [key]: v });
          }}
        />
      ))}
    </>
  );
}

function Bow({ tank, setTank }: Pick<Props, "tank" | "setTank">) {
  return (
    <QuantityField
      label="Bow"
      unit="cm"
      value={tank.bow_cm}
      onChange={(v) => {
        setTank({ bow_cm: v });
      }}
      hint="beyond the corners"
    />
  );
}
