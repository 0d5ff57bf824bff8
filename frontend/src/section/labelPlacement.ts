/** Label placement: overlapping movable labels are shifted to the nearest free place. */
import { useLayoutEffect, type RefObject } from "react";

interface Box {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Shifts tried in turn, in units of the drawing, nearest first. */
const STEPS: readonly [number, number][] = [0, 18, -18, 34, -34, 52, -52, 74, -74]
  .flatMap((x) => [0, 16, -16, 30, -30, 46, -46, 64, -64].map((y): [number, number] => [x, y]))
  .sort((a, b) => Math.hypot(...a) - Math.hypot(...b));

/** Overlap of two boxes, as an area; touching boxes overlap by none. */
function shared(a: Box, b: Box): number {
  const wide = Math.min(a.right, b.right) - Math.max(a.left, b.left);
  const high = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
  return wide > 0 && high > 0 ? wide * high : 0;
}

function outside(a: Box, frame: Box): boolean {
  return a.left < frame.left || a.right > frame.right || a.top < frame.top || a.bottom > frame.bottom;
}

function moved(box: Box, [x, y]: readonly [number, number]): Box {
  return { left: box.left + x, right: box.right + x, top: box.top + y, bottom: box.bottom + y };
}

/** Half the width that a line keeps free of labels where they have another place, in units of the drawing. */
const BESIDE_LINE = 2;

/** Longest shift that keeps a label off a line, in units of the drawing. */
const NEAR = 40;

/** Longest shift of a label: further off it would name something else. */
const FAR = 76;

function thick({ left, top, right, bottom }: Box): Box {
  return {
    left: left - BESIDE_LINE,
    top: top - BESIDE_LINE,
    right: right + BESIDE_LINE,
    bottom: bottom + BESIDE_LINE,
  };
}

/** The first shift that clears a box of all others and keeps it inside the frame; null where there is none. */
function stepAside(box: Box, others: Box[], frame: Box, most: number): readonly [number, number] | null {
  return (
    STEPS.find((step) => {
      if (Math.hypot(...step) > most) return false;
      const there = moved(box, step);
      return !outside(there, frame) && others.every((other) => shared(there, other) === 0);
    }) ?? null
  );
}

/** After every drawing, move elements marked `data-free`, which may say how far at most; those without a free place are hidden. */
export function useKeptApart(sheet: RefObject<SVGSVGElement | null>): void {
  useLayoutEffect(() => {
    if (sheet.current) keepApart(sheet.current);
  });
  // Text widths depend on the font, which may load later; and a window can be rotated.
  useLayoutEffect(() => {
    const svg = sheet.current;
    if (!svg) return;
    const settle = () => {
      keepApart(svg);
    };
    let { width } = svg.getBoundingClientRect();
    const watch = new ResizeObserver(() => {
      // The first call tells the size it was placed at.
      const before = width;
      width = svg.getBoundingClientRect().width;
      if (Math.abs(width - before) > 0.5) settle();
    });
    watch.observe(svg);
    document.fonts.addEventListener("loadingdone", settle);
    return () => {
      watch.disconnect();
      document.fonts.removeEventListener("loadingdone", settle);
    };
  }, [sheet]);
}

/** Optional lines of a label. */
function moreOf(text: SVGTextElement): SVGTSpanElement[] {
  return [...text.querySelectorAll<SVGTSpanElement>("tspan[data-more]")];
}

function keepApart(svg: SVGSVGElement): void {
  const all = [...svg.querySelectorAll<SVGTextElement>("text")];
  const free = all.filter((text) => text.dataset.free !== undefined);
  free.forEach((text) => {
    text.style.translate = "";
    text.style.visibility = "";
    moreOf(text).forEach((line) => (line.style.display = ""));
  });
  const inverse = svg.getScreenCTM()?.inverse();
  if (!inverse) return;
  const boxOf = (element: Element): Box => {
    const { left, top, right, bottom } = element.getBoundingClientRect();
    const from = new DOMPoint(left, top).matrixTransform(inverse);
    const to = new DOMPoint(right, bottom).matrixTransform(inverse);
    return { left: from.x, top: from.y, right: to.x, bottom: to.y };
  };
  const { x, y, width, height } = svg.viewBox.baseVal;
  const frame = { left: x, top: y, right: x + width, bottom: y + height };
  const taken = [...all.filter((t) => t.dataset.free === undefined), ...svg.querySelectorAll("[data-line]")]
    .map(boxOf)
    .filter((box) => shared(box, frame) > 0 || box.left === box.right);
  const edges = [...svg.querySelectorAll("[data-edge]")].map((edge) => thick(boxOf(edge)));
  for (const text of free) {
    let box = boxOf(text);
    // A label of a part outside the picture stays hidden with it.
    if (shared(box, frame) === 0) continue;
    // On a line of the drawing only where there is no other place near what it names.
    const far = Number(text.dataset.free) || FAR;
    let step =
      stepAside(box, [...taken, ...edges], frame, Math.min(NEAR, far)) ?? stepAside(box, taken, frame, far);
    if (step === null && moreOf(text).length > 0) {
      // The name alone may fit where it and its height do not.
      moreOf(text).forEach((line) => (line.style.display = "none"));
      box = boxOf(text);
      step = stepAside(box, taken, frame, far);
    }
    if (step === null) {
      text.style.visibility = "hidden";
      continue;
    }
    text.style.translate = `${step[0]}px ${step[1]}px`;
    taken.push(moved(box, step));
  }
}
