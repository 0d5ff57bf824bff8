/** Where on a drawing a pointer is, in the drawing's own units. */
import type { PointerEvent } from "react";

export function svgPoint(e: PointerEvent<SVGElement>): DOMPoint | null {
  const matrix = e.currentTarget.ownerSVGElement?.getScreenCTM();
  return matrix ? new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse()) : null;
}
