/** A tank on the wall: dragged along its shelf, moved by keys, chosen by a press. */
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { styled } from "styled-components";
import { svgPoint } from "../kit/svgPoint";
import type { BoardRow } from "../api/schemas";
import { MARKS, standsOf } from "./state";

interface TankProps {
  row: BoardRow;
  /** Share of the room's air its outlets get. */
  air: string;
  x: number;
  /** Its foot on the drawing. */
  foot: number;
  most: number;
  chosen: boolean;
  onMove: (x: number) => void;
  onShelf: (by: number) => void;
  onChoose: () => void;
}

export function TankOnWall({ row, air, x, foot, most, chosen, onMove, onShelf, onChoose }: TankProps) {
  const held = useRef<{ at: number; x: number; moved: boolean } | null>(null);
  const top = foot - row.height_cm;
  const water = top + row.fill_below_rim_cm;
  const stands = standsOf(row);
  const give = (next: number) => {
    onMove(Math.round(Math.min(Math.max(next, 0), Math.max(most, 0))));
  };
  const place = (e: PointerEvent<SVGGElement>) => svgPoint(e)?.x ?? null;
  const key = (e: KeyboardEvent) => {
    const step = e.shiftKey ? 10 : 1;
    if (e.key === "ArrowLeft") give(x - step);
    else if (e.key === "ArrowRight") give(x + step);
    else if (e.key === "ArrowUp") onShelf(1);
    else if (e.key === "ArrowDown") onShelf(-1);
    else if (e.key === "Enter" || e.key === " ") onChoose();
    else return;
    e.preventDefault();
  };
  return (
    <Grip
      role="checkbox"
      aria-checked={chosen}
      aria-label={`${row.name}, ${row.who}${stands === "well" ? "" : stands === "urgent" ? ", cannot wait" : ", something is due"}`}
      tabIndex={0}
      data-stands={stands}
      onKeyDown={key}
      onPointerDown={(e) => {
        const at = place(e);
        if (at === null) return;
        held.current = { at, x, moved: false };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        const at = place(e);
        if (!held.current || at === null) return;
        const by = at - held.current.at;
        if (!held.current.moved && Math.abs(by) < 3) return;
        held.current.moved = true;
        give(held.current.x + by);
      }}
      onPointerUp={() => {
        if (held.current && !held.current.moved) onChoose();
        held.current = null;
      }}
    >
      <rect x={x} y={water} width={row.length_cm} height={foot - water} fill="var(--water-fill)" />
      <rect
        className="glass"
        x={x}
        y={top}
        width={row.length_cm}
        height={row.height_cm}
        fill="none"
        stroke="var(--ink)"
        strokeWidth={chosen ? 3.2 : 1.1}
      />
      <text x={x + 3} y={foot - (air ? 11 : 5)}>
        {row.name}
      </text>
      {air && (
        <text className="air" x={x + 3} y={foot - 3}>
          {air}
        </text>
      )}
      {MARKS[stands] && (
        <text className="mark" x={x + row.length_cm - 3} y={top + 10} textAnchor="end">
          {MARKS[stands]}
        </text>
      )}
      {chosen && <Tick x={x + 3} y={top + 14} />}
    </Grip>
  );
}

function Tick({ x, y }: { x: number; y: number }) {
  return (
    <text className="tick" x={x} y={y}>
      ✓
    </text>
  );
}

const Grip = styled.g`
  cursor: grab;
  touch-action: none;
  text {
    font-size: 10.5px;
    font-weight: 600;
    fill: var(--ink);
    pointer-events: none;
  }
  .air {
    font-size: 7.5px;
    font-weight: 400;
  }
  .mark {
    font-size: 9px;
    fill: var(--seed);
  }
  &[data-stands="urgent"] .mark {
    fill: var(--alarm);
    font-size: 12px;
  }
  &[data-stands="urgent"] .glass {
    stroke: var(--alarm);
  }
  &[data-stands="due"] .glass {
    stroke: var(--seed);
  }
  .tick {
    fill: var(--reed);
    font-size: 13px;
  }
`;
