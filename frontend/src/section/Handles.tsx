/** Drag handles on the drawing for mouse, touch or arrow keys, in centimetres of the real tank. */
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { styled } from "styled-components";
import { svgPoint } from "../kit/svgPoint";
import type { Filter, FittingPlan, TankPlan } from "../api/schemas";
import type { Sheet } from "./geometry";
import type { HandleName, HandleSpec } from "./handleSpec";
import { DRAWINGS } from "./kinds";
import { sizeOf, unitName } from "../quantity/format";

interface Props {
  sheet: Sheet;
  plan: TankPlan;
  filter?: Filter | null;
  fitting?: FittingPlan;
  footMostCm?: number;
  onMove: Partial<Record<HandleName, (cm: number) => void>>;
}

export function Handles({ sheet, plan, filter, fitting, footMostCm = 0, onMove }: Props) {
  const own = filter ? DRAWINGS[filter.kind].handles?.({ sheet, plan, footMostCm }) : undefined;
  return (
    <>
      {[...specs(sheet, plan), ...(own ?? []), ...fitted(sheet, plan, fitting)].map((spec) => {
        const move = onMove[spec.name];
        return move ? <Handle key={spec.name} spec={spec} onMove={move} /> : null;
      })}
    </>
  );
}

function specs(sheet: Sheet, plan: TankPlan): HandleSpec[] {
  const { tank } = plan;
  const around = plan.surroundings;
  const cm = 1 / sheet.scale;
  return [
    {
      name: "fill",
      label: "Water line, centimetres below the rim",
      words: "below the rim",
      value: tank.fill_below_rim_cm,
      least: 0,
      most: Math.max(tank.height_cm - tank.substrate_depth_cm - 5, 0.5),
      x: sheet.left + sheet.tankWidth,
      y: sheet.waterY,
      along: "y",
      perPixel: cm,
    },
    {
      name: "wall",
      label: "Gap to the wall, centimetres",
      words: "from the back glass to the wall",
      value: around.behind_cm,
      least: 0,
      most: 60,
      x: sheet.wallX,
      y: sheet.rimY + sheet.tankHeight * 0.6,
      along: "x",
      perPixel: cm,
    },
    {
      name: "stand",
      label: "Stand height, centimetres",
      words: "from the floor to the tank",
      value: around.stand_height_cm,
      least: 0,
      most: 150,
      x: sheet.left + sheet.tankWidth * 0.12,
      y: sheet.rimY + sheet.tankHeight + 5,
      along: "y",
      perPixel: -cm,
    },
  ];
}

/** Parts of a fitting plan, each moved along the tank. */
function fitted(sheet: Sheet, plan: TankPlan, fitting?: FittingPlan): HandleSpec[] {
  const found: HandleSpec[] = [];
  for (const name of ["intake", "outlet", "body"] as const) {
    const part = fitting?.parts.find((p) => p.role === name);
    if (!part) continue;
    found.push({
      name,
      label: `${name[0]?.toUpperCase() ?? ""}${name.slice(1)}, centimetres from the left`,
      words: "from the tank’s left side",
      value: part.at.x_cm,
      least: name === "body" ? -60 : 2,
      most: plan.tank.length_cm + (name === "body" ? 60 : -2),
      x: sheet.left + part.at.x_cm * sheet.scale,
      y: sheet.floorY - part.at.y_cm * sheet.scale + (name === "body" ? 24 : name === "outlet" ? 22 : 0),
      along: "x",
      perPixel: 1 / sheet.scale,
    });
  }
  return found;
}

function Handle({ spec, onMove }: { spec: HandleSpec; onMove: (cm: number) => void }) {
  const held = useRef<{ at: number; value: number } | null>(null);
  // Key presses may come faster than answers: each continues from the last requested value.
  const asked = useRef({ value: spec.value, at: 0 });
  const give = (value: number) => {
    const kept = Math.round(Math.min(Math.max(value, spec.least), spec.most) * 2) / 2;
    asked.current = { value: kept, at: Date.now() };
    onMove(kept);
  };
  const current = () => (Date.now() - asked.current.at < 1200 ? asked.current.value : spec.value);
  const key = (e: KeyboardEvent) => {
    const step = e.shiftKey ? 5 : 0.5;
    const grows = spec.perPixel > 0 ? ["ArrowDown", "ArrowRight"] : ["ArrowUp", "ArrowRight"];
    const shrinks = spec.perPixel > 0 ? ["ArrowUp", "ArrowLeft"] : ["ArrowDown", "ArrowLeft"];
    const move = grows.includes(e.key) ? step : shrinks.includes(e.key) ? -step : 0;
    if (!move) return;
    e.preventDefault();
    give(current() + move);
  };
  const place = (e: PointerEvent<SVGGElement>): number | null => {
    const point = svgPoint(e);
    return point && (spec.along === "x" ? point.x : point.y);
  };
  const turn = spec.along === "x" ? `rotate(90 ${spec.x} ${spec.y})` : undefined;
  return (
    <Grip
      role="slider"
      tabIndex={0}
      aria-label={spec.label}
      aria-orientation={spec.along === "x" ? "horizontal" : "vertical"}
      aria-valuemin={spec.least}
      aria-valuemax={spec.most}
      aria-valuenow={spec.value}
      aria-valuetext={`${sizeOf(spec.value)} ${unitName("cm")} ${spec.words}`}
      data-along={spec.along}
      onKeyDown={key}
      onPointerDown={(e) => {
        const at = place(e);
        if (at === null) return;
        held.current = { at, value: current() };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        const at = place(e);
        // The drawing rescales during a drag, so each move is relative to the last one.
        if (!held.current || at === null) return;
        const value = held.current.value + (at - held.current.at) * spec.perPixel;
        held.current = { at, value };
        give(value);
      }}
      onPointerUp={() => {
        held.current = null;
      }}
    >
      <rect x={spec.x - 22} y={spec.y - 22} width={44} height={44} fill="transparent" />
      <g transform={turn}>
        <path d={`M${spec.x - 13} ${spec.y} h26`} stroke="var(--seed)" strokeWidth={2.2} />
        <rect x={spec.x - 6} y={spec.y - 10} width={12} height={20} rx={6} fill="var(--seed)" />
        <path
          d={`M${spec.x - 3} ${spec.y - 3} l3 -3 l3 3 M${spec.x - 3} ${spec.y + 3} l3 3 l3 -3`}
          stroke="var(--on-ink)"
          strokeWidth={1.4}
          fill="none"
        />
      </g>
    </Grip>
  );
}

const Grip = styled.g`
  cursor: ns-resize;
  touch-action: none;
  &[data-along="x"] {
    cursor: ew-resize;
  }
  &:focus-visible {
    outline: 3px solid var(--seed);
  }
`;
