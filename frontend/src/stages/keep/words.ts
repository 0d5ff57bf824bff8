/** An entry of the logbook in a few words. */
import type { Entry, FittedFilter, Tables } from "../../api/schemas";
import { METHODS } from "../cycle/Chooser";

export function lph(body: { container_l: number; times_s: number[] }): number {
  return body.times_s.reduce((sum, t) => sum + (body.container_l * 3600) / t, 0) / body.times_s.length;
}

function filtersInWords(filters: FittedFilter[]): string {
  const names = filters.filter((f) => !f.retired).map((f) => f.filter.name);
  if (names.length) return `On the tank: ${names.join(" and ")}`;
  return filters.length ? "Filter taken off" : "Filter: plumbing and priorities";
}

export function words(body: Entry["body"], species: Tables["species"]): string {
  const name = (id: string) => species.find((s) => s.id === id)?.common_name ?? id;
  switch (body.kind) {
    case "tank-plan":
      return `Tank: ${body.tank.length_cm} × ${body.tank.width_cm} × ${body.tank.height_cm} cm`;
    case "stock-plan":
      return `Animals planned: ${body.animals.map((a) => `${a.count} ${name(a.species_id)}`).join(", ") || "none"}`;
    case "filter-plan":
      return filtersInWords(body.filters);
    case "cycle-plan":
      return `Cycle planned: ${(METHODS.find(([m]) => m === body.method)?.[1] ?? "measured ammonia").toLowerCase()}`;
    case "kit-plan":
      return "The steps of the kit";
    case "conditioner":
      return "Conditioner to the whole tank";
    case "plant-growth":
      return "New growth seen on the plants";
    case "seed":
      return `Spare put in to seed: ${body.name}`;
    case "seed-move":
      return body.phase === "out"
        ? "A spare lifted out"
        : body.phase === "in"
          ? `A spare put in${body.to ? `: ${body.to}` : ""}`
          : "A spare put back to seed";
    case "step-done":
      return `Step ${!body.done ? "unticked" : "done"}: ${body.step_id.replace(/^[a-z]+-/, "").replaceAll("-", " ")}${body.note ? ` (${body.note})` : ""}`;
    case "flow-test":
      return `Flow timed: ${lph(body).toFixed(0)} L/h`;
    case "timed-flow":
      return `Flow found by ${body.method === "transit" ? "a float" : body.method === "meter" ? "the meter" : "the level in the box"}: ${body.measured_lph.toFixed(0)} L/h`;
    case "fit-plan":
      return "Where the parts go";
    case "reading":
      return `Test: ${[
        body.ammonia_ppm == null ? "" : `ammonia ${body.ammonia_ppm}`,
        body.nitrite_ppm == null
          ? ""
          : `nitrite ${body.nitrite_ppm}${body.off_scale.includes("nitrite") ? "+" : ""}`,
        body.nitrate_ppm == null ? "" : `nitrate ${body.nitrate_ppm}`,
        body.ph == null ? "" : `pH ${body.ph}`,
        body.kh_dkh == null ? "" : `KH ${body.kh_dkh}`,
        body.temperature_c == null ? "" : `${body.temperature_c} °C`,
        body.phosphate_ppm == null ? "" : `phosphate ${body.phosphate_ppm}`,
        body.salinity_g_kg == null ? "" : `salinity ${body.salinity_g_kg} g/kg`,
      ]
        .filter(Boolean)
        .join(", ")}${body.basis === "N" ? " (as N)" : ""}`;
    case "dose":
      return `Ammonia dosed: ${body.amount == null ? "" : `${Number(body.amount.toPrecision(3))} ${body.amount_unit ?? ""}, `}${body.raise_mg_n_l.toFixed(2)} mg N/L`;
    case "alkalinity":
      return `Bicarbonate added: ${body.grams == null ? "" : `${body.grams.toFixed(0)} g, `}KH up ${body.raise_dkh.toFixed(1)} dKH`;
    case "water-change":
      return `Water changed: ${(body.share * 100).toFixed(0)} %${!body.treated ? ", untreated" : ""}`;
    case "outage":
      return body.running ? "Filter running again" : "Filter off";
    case "media-work":
      return `Media ${body.what.replace("-", " ")}${body.text ? `: ${body.text}` : ""}`;
    case "stocking":
      return `${body.count > 0 ? "Put in" : "Lost"}: ${Math.abs(body.count)} ${name(body.species_id)}`;
    case "note":
      return body.text;
    case "withdrawal":
      return "An entry was taken back";
  }
}
