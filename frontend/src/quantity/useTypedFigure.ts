/** State of a numeric text field: plain numbers are parsed at once, others by the server. */
import { useEffect, useRef, useState } from "react";
import { compute, ProblemError } from "../api/client";
import type { QuestionOf } from "../api/schemas";
import { fromHome, short, toHome, unitName, withMark, type Home } from "./format";

export type Kind = QuestionOf<"read-quantity">["kind"];

interface FigureOptions {
  kind: Kind;
  /** The unit of the value; plain numbers and hardness are the same for all keepers. */
  home?: Home;
  /** Home units in one of the server's unit, where they differ (a metre is 100 cm). */
  perHome?: number;
  value: number | null;
  onChange: (value: number) => void;
  /** Given where the field may be empty. */
  onClear?: () => void;
  /** Given where litres typed into a length field have a place of their own. */
  onVolume?: (litres: number) => void;
  min?: number;
  max?: number;
  /** Decimal places shown of a figure that is not small. Default: 2. */
  places?: number;
}

/** An unambiguous number: three digits after a mark may be thousands, and are asked about. */
const PLAIN = /^-?\d*[.,]?\d+$/;
const MAY_BE_A_THOUSAND = /[.,]\d{3}$/;

export function useTypedFigure(options: FigureOptions) {
  const { home, value, onChange, onClear, onVolume, min, max, places = 2 } = options;
  const asText = (figure: number | null) => textOf(figure, home, places);
  const [text, setText] = useState(() => asText(value));
  const [error, setError] = useState<string | null>(null);
  /** Litres that were typed into a length field, to be asked back. */
  const [litres, setLitres] = useState<number | null>(null);
  const sent = useRef(value);
  /** Counts submissions, so that an outdated answer is ignored. */
  const turn = useRef(0);
  useEffect(() => {
    // A value changed elsewhere (dragged on the drawing, dropped draft) replaces the text; our own does not.
    if (!same(value, sent.current)) {
      sent.current = value;
      setText(asText(value));
      setError(null);
    }
    // The text follows the value alone: a keeper's units do not change under a field.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [value]);

  const give = (figure: number): boolean => {
    if (isOutside(figure, min, max)) return false;
    sent.current = figure;
    setError(null);
    if (!same(figure, value)) onChange(figure);
    return true;
  };

  const onText = (next: string) => {
    setText(next);
    setLitres(null);
    const typed = next.trim();
    turn.current += 1;
    if (!typed && onClear) {
      sent.current = null;
      setError(null);
      onClear();
      return;
    }
    const figure = plainFigure(typed, home);
    if (figure !== null) give(figure);
    else if (typed.length > 1 && /\d/.test(typed)) void readUnits(typed);
  };
  const readUnits = async (typed: string) => {
    const asked = turn.current;
    try {
      const figure = await askFigure(typed, options);
      if (turn.current === asked) give(figure);
    } catch (problem) {
      // A half-typed unit is no error yet; leaving the field decides.
      if (problem instanceof ProblemError && turn.current === asked) setError(null);
    }
  };
  const onBlur = async () => {
    const typed = text.trim();
    const asked = (turn.current += 1);
    if (!typed) {
      if (!onClear) setText(asText(value));
      return;
    }
    try {
      const figure = plainFigure(typed, home) ?? (await askFigure(typed, options));
      if (turn.current !== asked) return;
      if (give(figure)) setText(asText(figure));
      else setError(rangeWords(min, max, home));
    } catch (problem) {
      if (onVolume && (await litresOf(typed, setLitres))) return;
      if (problem instanceof ProblemError && turn.current === asked) setError(problemWords(problem));
    }
  };
  const takeLitres = () => {
    if (litres === null || !onVolume) return;
    setText(asText(value));
    setLitres(null);
    onVolume(litres);
  };
  return { text, error, litres, takeLitres, onText, onBlur: () => void onBlur() };
}

function textOf(figure: number | null, home: Home | undefined, places: number): string {
  if (figure === null || Number.isNaN(figure)) return "";
  return short(home ? fromHome(figure, home) : figure, places + small(figure));
}

/** An unambiguous number in the home unit; null for anything the server must read. */
function plainFigure(typed: string, home: Home | undefined): number | null {
  if (!PLAIN.test(typed) || MAY_BE_A_THOUSAND.test(typed)) return null;
  const figure = Number(typed.replace(",", "."));
  return home ? toHome(figure, home) : figure;
}

/** A text read by the server, in the home unit. */
async function askFigure(text: string, { kind, home, perHome = 1 }: FigureOptions): Promise<number> {
  return (await compute("read-quantity", { text, kind, unit: home ? unitName(home) : null })).value / perHome;
}

function isOutside(figure: number, min: number | undefined, max: number | undefined): boolean {
  return (min !== undefined && figure < min - 1e-9) || (max !== undefined && figure > max + 1e-9);
}

function problemWords({ errors: [first], detail }: ProblemError): string {
  return first ? `${first.what} ${first.remedy}` : detail;
}

/** Whether a text is a volume; then it is given on. text: as typed. */
async function litresOf(text: string, onLitres: (litres: number) => void): Promise<boolean> {
  try {
    onLitres((await compute("read-quantity", { text, kind: "volume", unit: unitName("L") })).value);
    return true;
  } catch {
    return false;
  }
}

function same(a: number | null, b: number | null): boolean {
  if (a === null || b === null || Number.isNaN(a) || Number.isNaN(b))
    return (a ?? NaN) === (b ?? NaN) || (isEmpty(a) && isEmpty(b));
  return Math.abs(a - b) <= 1e-9;
}

function isEmpty(figure: number | null): boolean {
  return figure === null || Number.isNaN(figure);
}

/** More decimals for a small figure: 0.05 L is not 0. */
function small(figure: number): number {
  return Math.abs(figure) < 1 ? 1 : 0;
}

function rangeWords(min: number | undefined, max: number | undefined, home: Home | undefined): string {
  const written = (figure: number) =>
    withMark(String(home ? Number(fromHome(figure, home).toPrecision(4)) : figure));
  const unit = home ? ` ${unitName(home)}` : "";
  if (min === undefined) return `At most ${written(max ?? 0)}${unit}.`;
  if (max === undefined) return `At least ${written(min)}${unit}.`;
  return `Between ${written(min)} and ${written(max)}${unit}.`;
}
