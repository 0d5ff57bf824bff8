/** Entering and showing quantities with their units and twins. */
import { useEffect, useRef, useState } from "react";
import { compute, ProblemError } from "../api/client";
import { useTables } from "../api/hooks";
import type { QuestionOf } from "../api/schemas";
import { TextField } from "../kit/controls";

type Kind = QuestionOf<"read-quantity">["kind"];
const HOME: Record<Kind, string> = {
  length: "cm",
  volume: "L",
  flow: "L/h",
  mass: "kg",
  temperature: "°C",
  hardness: "dKH",
};

interface QuantityFieldProps {
  label: string;
  kind: Kind;
  /** In the kind's home unit. */
  value: number;
  onChange: (value: number) => void;
  hint?: string;
}

/** A field that takes "60", "24 in", "4 ft 2 in" or "20 gal" and keeps the home unit. The server reads units. */
export function QuantityField({ label, kind, value, onChange, hint }: QuantityFieldProps) {
  const [text, setText] = useState(() => round(value));
  const [error, setError] = useState<string | null>(null);
  const sent = useRef(value);
  useEffect(() => {
    // A value changed elsewhere (dragged on the drawing, dropped draft) replaces the text; our own does not.
    if (Math.abs(value - sent.current) > 1e-9) {
      sent.current = value;
      setText(round(value));
      setError(null);
    }
  }, [value]);

  const give = (figure: number) => {
    sent.current = figure;
    setError(null);
    if (figure !== value) onChange(figure);
  };
  const typed = (next: string) => {
    setText(next);
    const plain = next.trim().replace(",", ".");
    if (/^-?\d+(\.\d+)?$/.test(plain)) give(Number(plain));
    else if (next.trim().length > 1 && /\d/.test(next)) void readUnits(next);
  };
  const newest = useRef("");
  const readUnits = async (next: string) => {
    newest.current = next;
    try {
      const answer = await compute("read-quantity", { text: next, kind });
      if (newest.current === next) give(answer.value);
    } catch (problem) {
      // Half-typed units are not a mistake yet; leaving the field says whether they are.
      if (problem instanceof ProblemError && newest.current === next) setError(null);
    }
  };
  const left = async () => {
    if (!text.trim()) {
      setText(round(value));
      return;
    }
    try {
      const answer = await compute("read-quantity", { text, kind });
      give(answer.value);
      setText(round(answer.value));
    } catch (problem) {
      if (problem instanceof ProblemError)
        setError(
          problem.errors[0] ? `${problem.errors[0].what} ${problem.errors[0].remedy}` : problem.detail,
        );
    }
  };
  const twin = useTwin(HOME[kind], value);
  return (
    <TextField
      label={`${label}, ${HOME[kind]}`}
      value={text}
      onChange={typed}
      onBlur={() => void left()}
      hint={[twin, hint].filter(Boolean).join(" · ")}
      error={error}
      inputMode="text"
    />
  );
}

/** The same figure in the unit people compare labels in, or "" when the unit has no twin. */
export function useTwin(unit: string, value: number): string {
  const tables = useTables();
  const twin = tables.data?.twins.find((t) => t.unit === unit);
  if (!twin) return "";
  const figure = value * twin.factor + twin.offset;
  return `${figure >= 100 ? figure.toFixed(0) : Number(figure.toPrecision(3))} ${twin.twin}`;
}

/** A figure with its unit and its twin after it. */
export function Twin({ unit, value }: { unit: string; value: number }) {
  const twin = useTwin(unit, value);
  return <>{twin ? ` (${twin})` : ""}</>;
}

function round(value: number): string {
  return String(Number(value.toFixed(2)));
}
