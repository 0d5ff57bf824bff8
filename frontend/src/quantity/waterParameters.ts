/** Figures of a test as the keeper reads them, by parameter of the water. */
import type { CycleLog, Reading } from "../api/schemas";
import { WATER_PARAMETERS, type WaterParameter } from "../api/waterParameters";
import { degreesWords, fromHome, short, unitName, type Home } from "./format";
import type { KitPpm } from "./ppm";

type LoggedReading = CycleLog["readings"][number];

const HOMES: Partial<Record<WaterParameter["unit"], Home>> = { "°C": "°C", dKH: "dKH" };

/** The unit its figures are shown in; a pH has none. */
export function parameterUnit({ unit }: WaterParameter): string {
  const home = HOMES[unit];
  return home ? unitName(home) : unit;
}

/** A figure kept in the parameter's own unit, in the keeper's. */
export function parameterFigure({ unit }: WaterParameter, value: number): number {
  const home = HOMES[unit];
  return home ? fromHome(value, home) : value;
}

/** The same, short enough for a cell. */
export function parameterCell(one: WaterParameter, value: number | null | undefined): string {
  return value == null ? "" : short(parameterFigure(one, value), one.unit === "°C" ? 1 : 3);
}

/** Units that are written with a figure; ppm and degrees of hardness go without saying on a kit. */
const WRITTEN: readonly string[] = ["°C", "g/kg", "mg/L"];

/** What it is called above a column or a field. */
export function parameterLabel(one: WaterParameter): string {
  return WRITTEN.includes(one.unit) ? `${one.label}, ${parameterUnit(one)}` : one.label;
}

/** A figure in a sentence: "KH 4", "oxygen 6.4 mg/L", "25 °C"; null where it was not read. */
export function parameterWords(one: WaterParameter, value: number | null | undefined): string | null {
  if (value == null) return null;
  if (one.unit === "°C") return degreesWords(value);
  const unit = WRITTEN.includes(one.unit) ? ` ${one.unit}` : "";
  return `${one.word} ${parameterCell(one, value)}${unit}`;
}

/** A logged figure as the kit reads it, null where it was not read. */
export function loggedFigure(one: WaterParameter, reading: LoggedReading, share: KitPpm): number | null {
  if (one.ion) {
    const nitrogen = reading[`${one.key}_mg_n_l`];
    return nitrogen == null ? null : nitrogen / share[one.key];
  }
  const value = reading[one.field];
  return value == null ? null : parameterFigure(one, value);
}

/** The parameters that any of some readings has. */
export function parametersRead(readings: Reading[]): WaterParameter[] {
  return WATER_PARAMETERS.filter((one) => readings.some((r) => r[one.field] != null));
}
