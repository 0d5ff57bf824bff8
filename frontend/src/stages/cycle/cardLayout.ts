/** Where the steps of a kit's card lie, kept on this device, so that two touches find all of them the next time. */
export interface Point {
  x: number;
  y: number;
}
/** Each step relative to the way from the first to the last, which is (1, 0). */
type Layout = readonly Point[];

const keyOf = (what: string, steps: number) => `reedmace.card.${what}.${steps}`;

/** Keep the layout of a touched card. points: its steps in px, in order. */
export function keepLayout(what: string, points: readonly Point[]): void {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last || points.length < 3 || (first.x === last.x && first.y === last.y)) return;
  const way = minus(last, first);
  const layout: Layout = points.map((p) => divided(minus(p, first), way));
  localStorage.setItem(keyOf(what, points.length), JSON.stringify(layout));
}

/** The layout kept for a card of so many steps, or null. */
export function keptLayout(what: string, steps: number): Layout | null {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(what, steps)) ?? "null") as Layout | null;
    return kept?.length === steps ? kept : null;
  } catch {
    return null;
  }
}

export function forgetLayout(what: string, steps: number): void {
  localStorage.removeItem(keyOf(what, steps));
}

/** All steps, in px, by the layout and the first and last of them: turned, moved and scaled with the picture. */
export function placed(layout: Layout, first: Point, last: Point): Point[] {
  const way = minus(last, first);
  return layout.map((z) => ({
    x: first.x + z.x * way.x - z.y * way.y,
    y: first.y + z.x * way.y + z.y * way.x,
  }));
}

function minus(a: Point, b: Point): Point {
  return { x: a.x - b.x, y: a.y - b.y };
}

/** Quotient of two points taken as complex numbers. */
function divided(a: Point, b: Point): Point {
  const length = b.x * b.x + b.y * b.y;
  return { x: (a.x * b.x + a.y * b.y) / length, y: (a.y * b.x - a.x * b.y) / length };
}
