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
      {tank.shape === "bow-front" && (
        <QuantityField
          label="Bow"
          unit="cm"
          value={tank.bow_cm}
          onChange={(v) => {
            setTank({ bow_cm: v });
          }}
          hint="beyond the corners"
        />
      )}
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
      <QuantityField
        label="Water below rim"
        unit="cm"
        value={tank.fill_below_rim_cm}
        onChange={(v) => {
          setTank({ fill_below_rim_cm: v });
        }}
      />
      <QuantityField
        label="Substrate depth"
        unit="cm"
        value={tank.substrate_depth_cm}
        onChange={(v) => {
          setTank({ substrate_depth_cm: v });
        }}
      />
      <QuantityField
        label="Stone"
        unit="kg"
        value={tank.stone_kg}
        onChange={(v) => {
          setTank({ stone_kg: v });
        }}
      />
      <QuantityField
        label="Wood"
        unit="kg"
        value={tank.wood_kg}
        onChange={(v) => {
          setTank({ wood_kg: v });
        }}
      />
    </>
  );
}
