/** From a filter and this tank's plumbing to the operating point's question. */
import type { Filter, Plumbing, QuestionOf, TankPlan, TankVolume } from "../../api/schemas";

const USUAL: NonNullable<Plumbing["fittings"]> = [
  { kind: "strainer" },
  { kind: "entrance" },
  { kind: "u-bend", count: 2 },
  { kind: "quick-valve" },
  { kind: "spray-bar" },
  { kind: "exit" },
];
const STEM_K = 5;

/** Null for an air-driven filter, which has no pump curve. The same plumbing the ranking uses. */
export function operatingQuestion(
  filter: Filter,
  plan: TankPlan,
  plumbing: Plumbing,
  volume: TankVolume,
  feedGDay: number,
): QuestionOf<"operating-point"> | null {
  if (filter.kind === "sponge" || filter.max_head_m == null) return null;
  const common = {
    pump: { max_flow_lph: filter.box_lph, max_head_m: filter.max_head_m },
    media: [{ media: "foam-20" as const, area_cm2: filter.face_cm2, depth_cm: filter.foam_depth_cm ?? 5 }],
    feed_g_day: Math.max(feedGDay, 0.2),
    net_l: volume.net_l,
  };
  if (filter.kind === "canister")
    return {
      ...common,
      hoses: [
        {
          bore_mm: plumbing.hose_bore_mm ?? filter.hose_bore_mm ?? 16,
          length_m: plumbing.hose_length_m ?? 2.8,
        },
      ],
      fittings: plumbing.fittings ?? USUAL,
      rise_to_open_air_m: plumbing.rise_to_open_air_m ?? 0,
      days_since_cleaning: 60,
    };
  return {
    ...common,
    hoses: [
      {
        bore_mm: filter.tube_bore_mm ?? 18,
        length_m: Math.min(volume.water_depth_cm * 0.7, filter.height_cm * 1.3) / 100,
      },
    ],
    fittings: [{ kind: "strainer", k: STEM_K }],
    rise_to_open_air_m: ((filter.lip_cm ?? 0) + Math.max((plan.tank.fill_below_rim_cm ?? 3) - 2, 0)) / 100,
    days_since_cleaning: 21,
  };
}
