/** Fields and text for quantities with units and comparison units. */
import type { KeyboardEvent } from "react";
import { TextField } from "./controls";
import { show, twinOf, unitName, type Home } from "../quantity/format";
import { useTypedFigure, type Kind } from "../quantity/useTypedFigure";

/** Kinds people type; speeds are only shown. */
export type Typed = Exclude<Home, "cm/s">;

/** The home unit of a kind, and how many make one of the server's unit. */
const KIND_OF: Record<Typed, { kind: Kind; perHome: number }> = {
  cm: { kind: "length", perHome: 1 },
  mm: { kind: "length", perHome: 0.1 },
  m: { kind: "length", perHome: 100 },
  L: { kind: "volume", perHome: 1 },
  "L/h": { kind: "flow", perHome: 1 },
  kg: { kind: "mass", perHome: 1 },
  "°C": { kind: "temperature", perHome: 1 },
  dKH: { kind: "hardness", perHome: 1 },
};

interface FieldProps {
  label: string;
  value: number | null;
  onChange: (value: number) => void;
  /** Given where the field may be empty. */
  onClear?: () => void;
  min?: number;
  max?: number;
  hint?: string;
  hideLabel?: boolean;
  /** By how much an arrow key changes a plain number. Default: 1. */
  step?: number;
}

interface QuantityFieldProps extends FieldProps {
  /** Given where litres typed into a length field have a place of their own. */
  onVolume?: (litres: number) => void;
  /** The unit of `value`, `min` and `max`. */
  unit: Typed;
}

/** A field that accepts "60", "24 in", "4 ft 2 in" or "20 gal", and gives the home unit. The server parses units. */
export function QuantityField({ label, unit, hint, hideLabel, ...rest }: QuantityFieldProps) {
  const { text, error, litres, takeLitres, onText, onBlur } = useTypedFigure({
    ...rest,
    ...KIND_OF[unit],
    home: unit,
  });
  const twin = rest.value === null || Number.isNaN(rest.value) ? "" : twinOf(rest.value, unit);
  return (
    <TextField
      label={`${label}, ${unitName(unit)}`}
      hideLabel={hideLabel}
      value={text}
      onChange={onText}
      onBlur={onBlur}
      hint={[twin, hint].filter(Boolean).join(" · ")}
      error={error}
      inputMode="text"
      offer={
        litres === null
          ? undefined
          : { words: `Does the tank hold ${show(litres, "L")}? Yes`, onTake: takeLitres }
      }
    />
  );
}

/** A plain number: "12", "0.5" or "0,5". Arrow keys step it. */
export function NumberBox({ step = 1, label, hint, hideLabel, ...rest }: FieldProps) {
  const { text, error, onText, onBlur } = useTypedFigure({
    ...rest,
    kind: "number",
    places: Math.max(2, -Math.floor(Math.log10(step))),
  });
  const { value, onChange, min = -Infinity, max = Infinity } = rest;
  const onKeyDown = (e: KeyboardEvent) => {
    const way = e.key === "ArrowUp" ? 1 : e.key === "ArrowDown" ? -1 : 0;
    if (!way) return;
    e.preventDefault();
    onChange(Number(Math.min(Math.max((value ?? 0) + way * step, min), max).toFixed(6)));
  };
  return (
    <TextField
      label={label}
      hideLabel={hideLabel}
      value={text}
      onChange={onText}
      onBlur={onBlur}
      onKeyDown={onKeyDown}
      hint={hint}
      error={error}
      inputMode="decimal"
    />
  );
}

/** The comparison unit of a figure, in brackets. */
export function Twin({ unit, value }: { unit: Home; value: number }) {
  const twin = twinOf(value, unit);
  return <>{twin ? ` (${twin})` : ""}</>;
}
