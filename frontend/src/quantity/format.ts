/** Formatting of figures in the keeper's units, which the session defines by kind. */
import { scaleLinear } from "@visx/scale";
import { chosenCurrency, decimalMark, writtenUnit } from "../api/units";
import { LOCALE } from "./locale";

/** A number's text with the keeper's decimal mark. text: with a point. */
export function withMark(text: string): string {
  return text.replace(".", decimalMark());
}

/** So many decimals. */
export function fixed(value: number, places: number): string {
  return withMark(value.toFixed(places));
}

/** At most so many decimals, without closing zeros. */
export function short(value: number, places: number): string {
  return withMark(String(Number(value.toFixed(places))));
}

/** So many significant digits. */
export function digits(value: number, count: number): string {
  return withMark(value.toPrecision(count));
}

export type Home = "L" | "L/h" | "cm" | "mm" | "cm/s" | "m" | "kg" | "°C" | "dKH";
/** The number alone, with `places` decimals in the home unit and the keeper's unit's extra ones. */
export function bare(value: number, home: Home, places = 0): string {
  const w = writtenUnit(home);
  if (!w || (w.factor === 1 && w.offset === 0)) return fixed(value, places);
  const there = value * w.factor + w.offset;
  return withMark(withoutZeros(there.toFixed(places + (Math.abs(there) < 99.5 ? w.more_places : 0))));
}

function withoutZeros(text: string): string {
  return text.includes(".") ? text.replace(/\.?0+$/, "") : text;
}

/** Number and unit: "410 L/h". */
export function show(value: number, home: Home, places = 0): string {
  return `${bare(value, home, places)} ${unitName(home)}`;
}

/** The keeper's unit of a kind of quantity. */
export function unitName(home: Home): string {
  return writtenUnit(home)?.name ?? home;
}

/** The same figure in the comparison unit. */
export function twinOf(value: number, home: Home): string {
  const w = writtenUnit(home);
  if (!w) return "";
  const figure = value * w.twin_factor + w.twin_offset;
  return `${figure >= 100 || home === "°C" ? figure.toFixed(0) : withMark(String(Number(figure.toPrecision(3))))} ${w.twin}`;
}

/** A figure in the keeper's unit for a field; `toHome` is the inverse. */
export function fromHome(value: number, home: Home): number {
  const w = writtenUnit(home);
  return w ? Number((value * w.factor + w.offset).toPrecision(6)) : value;
}

export function toHome(figure: number, home: Home): number {
  const w = writtenUnit(home);
  return w ? (figure - w.offset) / w.factor : figure;
}

/** A temperature reading, null where there is none. */
export function degreesWords(celsius: number | null | undefined): string | null {
  return celsius == null ? null : show(celsius, "°C", Number.isInteger(celsius) ? 0 : 1);
}

/** A price in the keeper's currency, or the plain figure without one. */
export function money(amount: number, places = 2): string {
  if (!chosenCurrency()) return fixed(amount, places);
  return new Intl.NumberFormat(LOCALE, {
    style: "currency",
    currency: chosenCurrency(),
    minimumFractionDigits: places,
    maximumFractionDigits: places,
  }).format(amount);
}

/** Round figures in the keeper's unit from zero to `top`, for an axis. top: in the home unit. */
export function ticksOf(top: number, home: Home, count: number): number[] {
  return scaleLinear<number>({ domain: [0, fromHome(top, home)] }).ticks(count);
}

/** A measured size with no more digits than it was measured with: "90", "45.5", "35.4". */
export function sizeOf(lengthCm: number): string {
  const own = fromHome(lengthCm, "cm");
  return short(own, 1);
}

/** The three outer sizes of a tank. */
export function sizeWords(tank: { length_cm: number; width_cm: number; height_cm: number }): string {
  return `${sizeOf(tank.length_cm)} × ${sizeOf(tank.width_cm)} × ${sizeOf(tank.height_cm)} ${unitName("cm")}`;
}
