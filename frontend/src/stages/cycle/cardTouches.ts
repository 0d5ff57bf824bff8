/** Touches on a picture: the card's white, the vial, and each step of the card. */
import { useRef, useState } from "react";
import type { QuestionOf } from "../../api/schemas";
import { forgetLayout, keepLayout, keptLayout, placed, type Point } from "./cardLayout";

export type Pixels = QuestionOf<"vial-reading">["white"];
export interface Touch {
  /** Place on the picture, 0 to 1. */
  x: number;
  y: number;
  pixels: Pixels;
}
/** Longer side of the picture while it is read, and half the width of a touch, px. */
const LONGEST = 1200;
const REACH = 5;
/** The white and the vial are touched before the card. */
const BEFORE_CARD = 2;

/** The touches made so far, and the one asked next. what: which test; steps: its card's figures. */
export function useCardTouches(what: string, steps: readonly number[]) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [touches, setTouches] = useState<readonly Touch[]>([]);
  const [byLayout, setByLayout] = useState(true);
  const layout = byLayout ? keptLayout(what, steps.length) : null;
  const whole = BEFORE_CARD + steps.length;
  const asked = ["the white of the card", "the vial", ...steps.map((step) => `the card’s ${step}`)];
  // With a layout the last step is asked after the first.
  const next = layout && touches.length === BEFORE_CARD + 1 ? asked[whole - 1] : asked[touches.length];
  const touch = (one: Touch) => {
    const all = [...touches, one];
    const [first, last] = all.slice(BEFORE_CARD);
    if (layout && first && last && canvas.current)
      setTouches([...all.slice(0, BEFORE_CARD), ...allSteps(layout, first, last, canvas.current)]);
    else setTouches(all);
    if (!layout && all.length === whole)
      keepLayout(
        what,
        all.slice(BEFORE_CARD).map((t) => inPixels(t, canvas.current)),
      );
  };
  return {
    canvas,
    touches,
    next,
    touch,
    found: layout !== null && touches.length === whole,
    byLayout: layout !== null,
    question: next === undefined ? questionOf(steps, touches) : null,
    begin: () => {
      setTouches([]);
      setByLayout(true);
    },
    takeBack: () => {
      setTouches(touches.slice(0, layout && touches.length === whole ? BEFORE_CARD + 1 : -1));
    },
    forgetCard: () => {
      forgetLayout(what, steps.length);
      setByLayout(false);
      setTouches(touches.slice(0, BEFORE_CARD));
    },
  };
}

function questionOf(
  steps: readonly number[],
  [white, vial, ...card]: readonly Touch[],
): QuestionOf<"vial-reading"> | null {
  if (!white || !vial) return null;
  const colours = steps.map((figure_on_card, n) => ({ figure_on_card, pixels: card[n]?.pixels ?? [] }));
  return { white: white.pixels, vial: vial.pixels, steps: colours };
}

/** Touches on every step of a card whose first and last were touched. */
function allSteps(layout: readonly Point[], first: Touch, last: Touch, canvas: HTMLCanvasElement): Touch[] {
  return placed(layout, inPixels(first, canvas), inPixels(last, canvas)).map((p) => {
    const [x, y] = [p.x / canvas.width, p.y / canvas.height];
    return { x, y, pixels: pixelsAt(canvas, x, y) };
  });
}

function inPixels(touch: Touch, canvas: HTMLCanvasElement | null): Point {
  return { x: touch.x * (canvas?.width ?? 1), y: touch.y * (canvas?.height ?? 1) };
}

/** Draw a picture at a size fit for reading. */
export async function draw(file: Blob, canvas: HTMLCanvasElement): Promise<void> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext("2d", { willReadFrequently: true })?.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
}

/** Pixels round a place, a square of at most 11 by 11. x, y: 0 to 1 */
export function pixelsAt(canvas: HTMLCanvasElement, x: number, y: number): Pixels {
  const side = 2 * REACH + 1;
  const left = Math.round(x * canvas.width) - REACH;
  const top = Math.round(y * canvas.height) - REACH;
  const data = canvas.getContext("2d")?.getImageData(left, top, side, side).data ?? new Uint8ClampedArray();
  const found: Pixels = [];
  for (let i = 0; i + 3 < data.length; i += 4)
    // Beyond the picture's edge nothing is there.
    if (data[i + 3]) found.push({ r: data[i] ?? 0, g: data[i + 1] ?? 0, b: data[i + 2] ?? 0 });
  return found;
}
