/** The questions the fitting of a tank asks: its plan, its dangers, its steps, its flow. */
import { useCompute } from "../../api/hooks";
import type { Layout, RankQuestion, Standing, Tables } from "../../api/schemas";
import { filterPlan, stockPlan, tankPlan } from "../shared";

export function useFitting(
  standing: Standing,
  tables: Tables | undefined,
  rank: RankQuestion,
  layout: Layout,
) {
  const plan = tankPlan(standing);
  const choice = filterPlan(standing);
  const filter = choice.chosen ?? null;
  const around = plan.surroundings ?? {};
  const volume = useCompute("tank-volume", plan.tank);
  const v = volume.data;
  const { room } = rank;
  const known = [...(rank.own_species ?? []), ...(tables?.species ?? [])];
  const guard = stockPlan(standing).animals.some(
    (a) => known.find((s) => s.id === a.species_id)?.needs_guard,
  );
  const place = {
    stand_height_cm: around.stand_height_cm,
    tank_height_cm: plan.tank.height_cm,
    canister_at_cm: around.canister_at_cm,
    substrate_depth_cm: plan.tank.substrate_depth_cm,
  };
  // An outlet laid out above the water is the loop broken there.
  const plumbing = { ...choice.plumbing, outlet_above_water_cm: -(layout.outlet_depth_cm ?? 2) };
  const fitting = useCompute("fitting-plan", filter ? { filter, room, plumbing, layout, ...place } : null);
  const runs = fitting.data?.runs.filter((r) => r.name.endsWith("hose")) ?? [];
  const hoseM = runs.reduce((sum, r) => sum + r.drawn_cm, 0) / 100;
  const flow = useCompute(
    "filter-flow",
    filter
      ? {
          filter,
          room,
          plumbing:
            hoseM > 0.2 && filter.kind === "canister" ? { ...plumbing, hose_length_m: hoseM } : plumbing,
          media: choice.media,
          animals: rank.animals,
          own_species: rank.own_species,
        }
      : null,
  );
  const intake = fitting.data?.parts.find((p) => p.name === "intake");
  const danger = useCompute(
    "drain-down",
    filter && v && fitting.data
      ? {
          filter,
          water_cm2: v.surface_cm2,
          water_depth_cm: room.water_depth_cm,
          rim_to_water_cm: room.rim_to_water_cm,
          intake_depth_cm: intake ? Math.max(fitting.data.water_y_cm - intake.at.y_cm, 0) : 25,
          outlet_depth_cm: layout.outlet_depth_cm,
          stone_depth_cm: Math.max(room.water_depth_cm - 3, 0),
          air_pump_above_water_cm: layout.air_pump_above_water_cm,
          check_valve: layout.check_valve,
          siphon_break: layout.siphon_break,
          stand_height_cm: around.stand_height_cm,
          hose_bore_mm: choice.plumbing?.hose_bore_mm ?? filter.hose_bore_mm ?? 16,
        }
      : null,
  );
  const steps = useCompute(
    "fitting-steps",
    filter && v
      ? {
          kind: filter.kind,
          filter_height_cm: filter.height_cm,
          water_depth_cm: room.water_depth_cm,
          rim_to_water_cm: room.rim_to_water_cm,
          media_l: filter.media_l,
          media_path: filter.media_path,
          priming: filter.priming,
          hose_bore_mm: choice.plumbing?.hose_bore_mm ?? filter.hose_bore_mm,
          hose_length_m:
            filter.kind === "canister"
              ? Math.max(hoseM || (choice.plumbing?.hose_length_m ?? 2.8), 0.2)
              : null,
          needs_guard: guard && filter.air_l_min == null,
          behind_cm: room.behind_cm,
        }
      : null,
  );
  return { plan, choice, filter, v, fitting, flow, danger, steps };
}
