/** The picture of a vial and its card, touched by finger, mouse or keyboard. */
import { useEffect, useRef, useState, type PointerEvent } from "react";
import { styled } from "styled-components";
import { pixelsAt, type Touch } from "./cardTouches";

/** How far an arrow key moves the cross, of the picture's side. */
const KEY_STEP = 0.01;

interface PictureProps {
  canvas: React.RefObject<HTMLCanvasElement | null>;
  shown: boolean;
  touches: readonly Touch[];
  next: string | undefined;
  onTouch: (touch: Touch) => void;
}

/** The picture; the arrow keys move a cross, Enter touches. */
export function VialPicture({ canvas, shown, touches, next, onTouch }: PictureProps) {
  const [cross, setCross] = useState<{ x: number; y: number } | null>(null);
  const touch = (x: number, y: number) => {
    const here = canvas.current;
    if (here && next !== undefined) onTouch({ x, y, pixels: pixelsAt(here, x, y) });
  };
  const press = (e: PointerEvent<HTMLCanvasElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    touch((e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height);
  };
  const key = (e: React.KeyboardEvent) => {
    const at = cross ?? { x: 0.5, y: 0.5 };
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-KEY_STEP, 0],
      ArrowRight: [KEY_STEP, 0],
      ArrowUp: [0, -KEY_STEP],
      ArrowDown: [0, KEY_STEP],
    };
    const move = moves[e.key];
    if (move) setCross({ x: within(at.x + move[0]), y: within(at.y + move[1]) });
    else if (e.key === "Enter" || e.key === " ") touch(at.x, at.y);
    else return;
    e.preventDefault();
  };
  return (
    <Frame hidden={!shown}>
      <canvas
        ref={canvas}
        tabIndex={0}
        role="button"
        aria-label={`The picture. ${next ? `Touch ${next}` : "All touched"}: arrow keys move the cross, Enter touches.`}
        onPointerDown={press}
        onKeyDown={key}
      />
      {touches.map((one, n) => (
        <Mark key={n} at={one}>
          {n === 0 ? "white" : n === 1 ? "vial" : n - 1}
        </Mark>
      ))}
      {cross && <Mark at={cross}>+</Mark>}
    </Frame>
  );
}

/** Placed by script: the page allows no inline styles. */
function Mark({ at, children }: { at: { x: number; y: number }; children: React.ReactNode }) {
  const mark = useRef<HTMLElement>(null);
  useEffect(() => {
    mark.current?.style.setProperty("left", `${100 * at.x}%`);
    mark.current?.style.setProperty("top", `${100 * at.y}%`);
  }, [at]);
  return (
    <i ref={mark} aria-hidden="true">
      {children}
    </i>
  );
}

function within(share: number): number {
  return Math.min(Math.max(share, 0), 1);
}

const Frame = styled.div`
  position: relative;
  max-width: 720px;
  canvas {
    display: block;
    width: 100%;
    height: auto;
    cursor: crosshair;
    touch-action: manipulation;
  }
  i {
    position: absolute;
    translate: -50% -50%;
    min-width: 22px;
    padding: 1px 5px;
    border-radius: 12px;
    background: rgb(20 38 42 / 0.78);
    color: white;
    font-style: normal;
    font-size: 0.75rem;
    text-align: center;
    pointer-events: none;
  }
`;
