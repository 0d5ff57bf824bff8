/** Pure geometry of the drawing: centimetres of the real tank to pixels. No domain rules here. */
import type { Animals, Species, TankPlan } from "../api/schemas";

export interface Sheet {
  /** Pixels per centimetre, the same in both views. */
  scale: number;
  width: number;
  height: number;
  floorY: number;
  /** Front view: left edge and top of the tank. */
  left: number;
  rimY: number;
  tankWidth: number;
  tankHeight: number;
  glass: number;
  waterY: number;
  bottomY: number;
  substrate: number;
  standHeight: number;
  /** Foot of a canister above the floor. */
  canisterFoot: number;
  /** Side view: left edge (front glass), width of the tank, face of the wall. */
  sideLeft: number;
  sideWidth: number;
  wallX: number;
}

const MARGIN = { left: 62, right: 26, between: 46, top: 44, foot: 34 };

export function layOut(plan: TankPlan, width: number, mostHeight: number): Sheet {
  const { tank } = plan;
  const around = plan.surroundings;
  const glassCm = tank.glass_mm / 10;
  const grow = tank.measured === "inside" ? 1 : 0;
  const lengthCm = tank.length_cm + 2 * glassCm * grow;
  const alone = tank.shape === "cylinder" || tank.shape === "prism" || tank.shape === "corner";
  const bowCm = tank.shape === "bow-front" ? tank.bow_cm : 0;
  const widthCm = (alone ? tank.length_cm : tank.width_cm + bowCm) + 2 * glassCm * grow;
  const heightCm = tank.height_cm + glassCm * grow;
  const behindCm = around.behind_cm;
  const standCm = around.stand_height_cm;
  const room = width - MARGIN.left - MARGIN.right - MARGIN.between;
  // A hang-on filter and hoses may rise a little above the rim, so leave a tenth over it.
  const scale = Math.min(
    room / (lengthCm + widthCm + behindCm),
    (mostHeight - MARGIN.top - MARGIN.foot) / (standCm + heightCm * 1.1),
  );
  const height = MARGIN.top + MARGIN.foot + scale * (standCm + heightCm * 1.1);
  const floorY = height - MARGIN.foot;
  const bottomY = floorY - standCm * scale;
  const rimY = bottomY - heightCm * scale;
  const left = MARGIN.left;
  const sideLeft = left + lengthCm * scale + MARGIN.between;
  return {
    scale,
    width,
    height,
    floorY,
    left,
    rimY,
    tankWidth: lengthCm * scale,
    tankHeight: heightCm * scale,
    glass: Math.max(glassCm * scale, 1.5),
    waterY: rimY + tank.fill_below_rim_cm * scale,
    bottomY: bottomY - glassCm * scale,
    substrate: tank.substrate_depth_cm * scale,
    standHeight: standCm * scale,
    canisterFoot: around.canister_at_cm * scale,
    sideLeft,
    sideWidth: widthCm * scale,
    wallX: sideLeft + (widthCm + behindCm) * scale,
  };
}

/** The tank from above as a path in a box of `size` pixels, its front downwards. */
export function planPath(plan: TankPlan, size: number): string {
  const { shape, length_cm: l, width_cm: w, bow_cm: bow, sides_count: n } = plan.tank;
  const k = size / Math.max(l, shape === "box" || shape === "bow-front" ? w + bow : l);
  if (shape === "cylinder") {
    const r = (l * k) / 2;
    return `M0 ${r} a${r} ${r} 0 1 0 ${2 * r} 0 a${r} ${r} 0 1 0 ${-2 * r} 0 Z`;
  }
  if (shape === "corner") return `M0 0 H${l * k} A${l * k} ${l * k} 0 0 1 0 ${l * k} Z`;
  if (shape === "prism") {
    const r = (l * k) / 2 / Math.cos(Math.PI / n);
    const points = Array.from({ length: n }, (_, i) => {
      const a = Math.PI / 2 + Math.PI / n + (2 * Math.PI * i) / n;
      return `${((l * k) / 2 + r * Math.cos(a)).toFixed(1)} ${((l * k) / 2 + r * Math.sin(a)).toFixed(1)}`;
    });
    return `M${points.join(" L")} Z`;
  }
  if (shape === "bow-front") {
    const r = (l ** 2 / 4 + bow ** 2) / (2 * bow);
    return `M0 0 H${l * k} V${w * k} A${r * k} ${r * k} 0 0 1 0 ${w * k} Z`;
  }
  return `M0 0 H${l * k} V${w * k} H0 Z`;
}

export interface Swimmer {
  key: string;
  x: number;
  y: number;
  length: number;
  right: boolean;
  form: Species["body_form"];
  tone: string;
}

const TONES = ["var(--seed)", "var(--ink-soft)", "var(--reed)", "var(--water)"];
const MOST_DRAWN = 60;

/** Position of each animal: true length, its own height in the water, deterministic. */
export function swimmers(sheet: Sheet, animals: Animals[], species: Species[]): Swimmer[] {
  const top = sheet.waterY + 8;
  const bottom = sheet.bottomY - sheet.substrate;
  const bands = { top: [0, 0.28], middle: [0.22, 0.75], bottom: [0.9, 0.99] } as const;
  const found: Swimmer[] = [];
  animals.forEach((group, g) => {
    const kind = species.find((s) => s.id === group.species_id);
    if (!kind) return;
    const length = (group.length_cm ?? kind.adult_length_cm) * sheet.scale;
    const [low, high] = bands[kind.swims];
    let seed = Array.from(kind.id).reduce((sum, c) => (sum * 31 + c.charCodeAt(0)) >>> 0, 7);
    const next = () => {
      seed = (seed * 1664525 + 1013904223) >>> 0;
      return seed / 4294967296;
    };
    const room = Math.max(sheet.tankWidth - 2 * sheet.glass - length - 12, 1);
    const count = Math.min(group.count, MOST_DRAWN - found.length);
    // Shoals keep together: each species swims about a centre of its own.
    const spread = kind.swims === "bottom" ? 1 : Math.min(1, 0.25 + count * 0.03);
    const middle = ((g * 0.37 + 0.3) % 1) * (1 - spread);
    for (let i = 0; i < count; i++) {
      found.push({
        key: `${kind.id}-${i}`,
        x: sheet.left + sheet.glass + 6 + (middle + spread * ((i + 0.15 + 0.7 * next()) / count)) * room,
        y: Math.min(top + (low + (high - low) * next()) * (bottom - top), bottom - length * 0.15),
        length,
        right: next() > 0.35,
        form: kind.body_form,
        tone: TONES[g % TONES.length] ?? "var(--seed)",
      });
    }
  });
  return found;
}

/** A wavy top for the substrate between two points. */
export function ripple(x0: number, x1: number, y: number, amount: number): string {
  const steps = 12;
  let path = `M${x0} ${y}`;
  for (let i = 1; i <= steps; i++) {
    const x = x0 + ((x1 - x0) * i) / steps;
    path += ` L${x.toFixed(1)} ${(y + Math.sin(i * 1.7) * amount).toFixed(1)}`;
  }
  return path;
}
