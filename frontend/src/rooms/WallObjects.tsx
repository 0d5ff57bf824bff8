/** Objects on the wall besides tanks: dragged, moved by arrow keys, removed with Delete. */
import { useRef, type KeyboardEvent, type ReactNode } from "react";
import { styled } from "styled-components";
import { svgPoint } from "../kit/svgPoint";

interface Props {
  label: string;
  x: number;
  /** Above the floor, cm. */
  y: number;
  /** Its place on the drawing. */
  down: (y: number) => number;
  most: { x: number; y: number };
  /** For a shelf, which moves up and down only. */
  upright?: boolean;
  onMove: (x: number, y: number) => void;
  onRemove?: () => void;
  children: ReactNode;
}

const STEPS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

export function OnWall({ label, x, y, down, most, upright, onMove, onRemove, children }: Props) {
  const held = useRef<{ x: number; y: number } | null>(null);
  const give = (nextX: number, nextY: number) => {
    const within = (value: number, top: number) => Math.round(Math.min(Math.max(value, 0), top));
    onMove(upright ? x : within(nextX, most.x), within(nextY, most.y));
  };
  const key = (e: KeyboardEvent) => {
    const step = STEPS[e.key];
    if (step) {
      const by = e.shiftKey ? 10 : 1;
      give(x + step[0] * by, y + step[1] * by);
    } else if ((e.key === "Delete" || e.key === "Backspace") && onRemove) onRemove();
    else return;
    e.preventDefault();
  };
  return (
    <Grip
      role="button"
      tabIndex={0}
      aria-label={`${label}, ${Math.round(x)} cm from the left, ${Math.round(y)} cm up; arrow keys move it${onRemove ? ", Delete takes it away" : ""}`}
      onKeyDown={key}
      onPointerDown={(e) => {
        const at = svgPoint(e);
        if (!at) return;
        held.current = { x: at.x - x, y: at.y + y };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        const at = held.current && svgPoint(e);
        if (at && held.current) give(at.x - held.current.x, held.current.y - at.y);
      }}
      onPointerUp={() => {
        held.current = null;
      }}
    >
      <g transform={`translate(${x} ${down(y)})`}>{children}</g>
    </Grip>
  );
}

const Grip = styled.g`
  cursor: grab;
  touch-action: none;
`;
