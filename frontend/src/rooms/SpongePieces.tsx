/** Spare sponges on the wall: each is dragged into another tank, or pressed, and then the tank it goes into. */
import { useRef, useState, type KeyboardEvent } from "react";
import { styled } from "styled-components";
import { svgPoint } from "../kit/svgPoint";
import type { Placed } from "./Wall";

/** A spare that was taken up. */
export interface SpongeInHand {
  fromId: number;
  key: string;
  name: string;
}

interface Props {
  placed: Placed[];
  held: SpongeInHand | null;
  onHold: (sponge: SpongeInHand | null) => void;
  onPut: (sponge: SpongeInHand, toId: number) => void;
}

const WIDE = 13;
const HIGH = 9;
const GAP = 3;
/** Room for the tick of a chosen tank. */
const BESIDE_TICK = 18;

export function SpongePieces({ placed, held, onHold, onPut }: Props) {
  const tankAt = ({ x, y }: DOMPoint) =>
    placed.find((p) => x >= p.x && x <= p.x + p.row.length_cm && y >= p.foot - p.row.height_cm && y <= p.foot)
      ?.row.tank_id;
  return placed.flatMap(({ row, x, foot }) =>
    row.seeds
      .filter((seed) => seed.where === "seeding")
      .map((seed, i) => {
        const sponge = { fromId: row.tank_id, key: seed.key, name: seed.name };
        return (
          <Piece
            key={`${row.tank_id} ${seed.key}`}
            label={`Spare sponge ${seed.name} in ${row.name}`}
            x={x + BESIDE_TICK + (WIDE + GAP) * i}
            y={foot - row.height_cm + row.fill_below_rim_cm + GAP}
            held={held?.key === seed.key && held.fromId === row.tank_id}
            onPress={() => {
              onHold(held?.key === seed.key ? null : sponge);
            }}
            onLet={() => {
              onHold(null);
            }}
            onDrop={(at) => {
              const to = tankAt(at);
              if (to !== undefined && to !== row.tank_id) onPut(sponge, to);
            }}
          />
        );
      }),
  );
}

interface PieceProps {
  label: string;
  x: number;
  y: number;
  /** Taken up, and waiting for a tank. */
  held: boolean;
  onPress: () => void;
  onLet: () => void;
  onDrop: (at: DOMPoint) => void;
}

function Piece({ label, x, y, held, onPress, onLet, onDrop }: PieceProps) {
  const from = useRef<{ start: DOMPoint; moved: boolean } | null>(null);
  const [by, setBy] = useState({ x: 0, y: 0 });
  const key = (e: KeyboardEvent) => {
    if (e.key === "Enter" || e.key === " ") onPress();
    else if (e.key === "Escape") onLet();
    else return;
    e.preventDefault();
  };
  return (
    <Grip
      role="button"
      tabIndex={0}
      aria-pressed={held}
      aria-label={`${label}: press it, then the tank it goes into`}
      transform={`translate(${x + by.x} ${y + by.y})`}
      onKeyDown={key}
      onPointerDown={(e) => {
        const at = svgPoint(e);
        if (!at) return;
        from.current = { start: at, moved: false };
        e.currentTarget.setPointerCapture(e.pointerId);
      }}
      onPointerMove={(e) => {
        const at = from.current && svgPoint(e);
        if (!at || !from.current) return;
        const next = { x: at.x - from.current.start.x, y: at.y - from.current.start.y };
        if (!from.current.moved && Math.hypot(next.x, next.y) < GAP) return;
        from.current.moved = true;
        setBy(next);
      }}
      onPointerUp={(e) => {
        const at = svgPoint(e);
        if (from.current && !from.current.moved) onPress();
        else if (from.current && at) onDrop(at);
        from.current = null;
        setBy({ x: 0, y: 0 });
      }}
      onPointerCancel={() => {
        from.current = null;
        setBy({ x: 0, y: 0 });
      }}
    >
      {/* A finger needs more than the piece itself. */}
      <rect x={-5} y={-6} width={WIDE + 10} height={HIGH + 10} fill="transparent" />
      <rect className="foam" width={WIDE} height={HIGH} rx={2.5} />
      <path d="M3 3h0.1M7 2.5h0.1M10 4h0.1M4.5 6h0.1M8.5 6.5h0.1" />
    </Grip>
  );
}

const Grip = styled.g`
  cursor: grab;
  touch-action: none;
  .foam {
    fill: var(--seed-fill);
    stroke: var(--seed);
    stroke-width: 1;
  }
  path {
    stroke: var(--seed);
    stroke-width: 1.4;
    stroke-linecap: round;
  }
  &[aria-pressed="true"] .foam {
    stroke-width: 2.6;
  }
`;
