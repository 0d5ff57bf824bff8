/** The room's wall to scale: shelves, tanks, sockets, sink, the air pump and its main. Tanks are dragged, or moved by keys. */
import { useRef, type KeyboardEvent, type PointerEvent } from "react";
import { styled } from "styled-components";
import type { BoardRow, RoomPlan, RoomView } from "../api/schemas";
import { InlineButton } from "../kit";
import { OnWall } from "./WallObjects";
import { MARKS, standsOf } from "./state";
import { fixed } from "../quantity/format";

interface Props {
  plan: RoomPlan;
  view: RoomView;
  chosen: number[];
  put: (change: Partial<RoomPlan>) => void;
  onChoose: (ids: number[]) => void;
}

const EDGE = 14;

export function Wall({ plan, view, chosen, put, onChoose }: Props) {
  const { width_cm: width, height_cm: height, main } = plan;
  const down = (y: number) => height - y;
  const rows = new Map(view.rows.map((r) => [r.tank_id, r]));
  const most = { x: width, y: height };
  const here = plan.spots.filter((s) => rows.has(s.tank_id));
  const move = (tankId: number, change: { x_cm?: number; shelf?: number }) => {
    put({ spots: plan.spots.map((s) => (s.tank_id === tankId ? { ...s, ...change } : s)) });
  };
  const air = airOf(view);
  const summary = `The wall to scale, ${fixed(width / 100, 1)} by ${fixed(height / 100, 1)} metres: ${here.length} tanks on ${plan.shelves.length} shelves, ${plan.pumps.length} air pumps.`;
  return (
    <figure>
      <svg
        viewBox={`${-EDGE} ${-EDGE} ${width + 2 * EDGE} ${height + 2 * EDGE}`}
        role="group"
        aria-label={summary}
      >
        <rect x={0} y={0} width={width} height={height} fill="var(--silt)" />
        <line x1={-6} x2={width + 6} y1={height} y2={height} stroke="var(--ink)" strokeWidth={1.6} />
        {plan.shelves.map((shelf, i) => (
          <OnWall
            key={i}
            label={`Shelf ${i + 1}`}
            x={shelf.x_cm}
            y={shelf.y_cm}
            down={down}
            most={most}
            upright
            onMove={(_, y_cm) => {
              put({ shelves: plan.shelves.map((s, n) => (n === i ? { ...s, y_cm } : s)) });
            }}
            onRemove={
              here.some((s) => s.shelf === i)
                ? undefined
                : () => {
                    put(withoutShelf(plan, i));
                  }
            }
          >
            <rect
              width={shelf.length_cm}
              height={3.5}
              fill="var(--wood)"
              stroke="var(--wood-line)"
              strokeWidth={0.6}
            />
          </OnWall>
        ))}
        {plan.pumps.length > 0 && <Main plan={plan} rows={rows} down={down} y={main.y_cm} />}
        {here.map((spot) => {
          const row = rows.get(spot.tank_id);
          const shelf = plan.shelves[spot.shelf];
          if (!row) return null;
          return (
            <TankOnWall
              key={spot.tank_id}
              row={row}
              air={air(row)}
              x={spot.x_cm}
              foot={down(shelf?.y_cm ?? 0)}
              most={width - row.length_cm}
              chosen={chosen.includes(spot.tank_id)}
              onMove={(x) => {
                move(spot.tank_id, { x_cm: x });
              }}
              onShelf={(by) => {
                const shelves = plan.shelves.length;
                if (shelves)
                  move(spot.tank_id, { shelf: Math.min(Math.max(spot.shelf + by, 0), shelves - 1) });
              }}
              onChoose={() => {
                const id = spot.tank_id;
                onChoose(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]);
              }}
            />
          );
        })}
        {plan.pumps.map((p, i) => (
          <OnWall
            key={i}
            label={p.pump.name}
            x={p.x_cm}
            y={p.y_cm}
            down={down}
            most={most}
            onMove={(x_cm, y_cm) => {
              put({ pumps: plan.pumps.map((q, n) => (n === i ? { ...q, x_cm, y_cm } : q)) });
            }}
          >
            <g stroke="var(--ink)" strokeWidth={1}>
              <rect x={-8} y={-5} width={16} height={10} rx={2} fill="var(--field)" />
              <path d="M-4 0h8" />
            </g>
          </OnWall>
        ))}
        {plan.pumps.map((p, i) => (
          <PumpWords key={i} x={p.x_cm} y={down(p.y_cm)} pump={view.air?.pumps[i]} />
        ))}
        {plan.sockets.map((s, i) => (
          <OnWall
            key={i}
            label={`Socket ${i + 1}`}
            x={s.x_cm}
            y={s.y_cm}
            down={down}
            most={most}
            onMove={(x_cm, y_cm) => {
              put({ sockets: plan.sockets.map((q, n) => (n === i ? { x_cm, y_cm } : q)) });
            }}
            onRemove={() => {
              put({ sockets: plan.sockets.filter((_, n) => n !== i) });
            }}
          >
            <g fill="none" stroke="var(--ink)">
              <rect x={-4} y={-4} width={8} height={8} rx={1.5} fill="var(--field)" strokeWidth={0.9} />
              <path d="M-1.5 0h0.1M1.5 0h0.1" strokeWidth={1.8} strokeLinecap="round" />
            </g>
          </OnWall>
        ))}
        {plan.sink && (
          <OnWall
            label="Sink"
            x={plan.sink.x_cm}
            y={plan.sink.y_cm}
            down={down}
            most={most}
            onMove={(x_cm, y_cm) => {
              put({ sink: { x_cm, y_cm } });
            }}
            onRemove={() => {
              put({ sink: null });
            }}
          >
            <path
              d="M-14 0h28M-12 0v9a4 4 0 0 0 4 4h16a4 4 0 0 0 4 -4v-9M0 13v10"
              fill="var(--silt)"
              stroke="var(--ink)"
              strokeWidth={1.1}
            />
          </OnWall>
        )}
      </svg>
      <figcaption>
        Drag a tank, shelf, pump, socket or sink, or move it by the arrow keys; press a tank to choose it.
      </figcaption>
      <Adding className="screen-only">
        <InlineButton
          onPress={() => {
            put({ shelves: [...plan.shelves, shelfAbove(plan)] });
          }}
        >
          One more shelf
        </InlineButton>
        <InlineButton
          onPress={() => {
            put({ sockets: [...plan.sockets, { x_cm: width - 12, y_cm: 110 }] });
          }}
        >
          One more socket
        </InlineButton>
        {!plan.sink && (
          <InlineButton
            onPress={() => {
              put({ sink: { x_cm: width - 24, y_cm: 85 } });
            }}
          >
            A sink
          </InlineButton>
        )}
      </Adding>
    </figure>
  );
}

/** Each tank's air in words; empty where there is none. */
function airOf(view: RoomView): (row: BoardRow) => string {
  const got = new Map(view.air?.outlets.map((o) => [o.key, o.air_l_min] as const) ?? []);
  return (row) => {
    const litres = row.air_keys.reduce((sum, key) => sum + (got.get(key) ?? 0), 0);
    return litres > 0 ? `${fixed(litres, 2)} L/min` : "";
  };
}

interface MainProps {
  plan: RoomPlan;
  rows: Map<number, BoardRow>;
  down: (y: number) => number;
  y: number;
}

/** The main along the wall, its drops to the tanks it feeds, and the pumps. */
function Main({ plan, rows, down, y }: MainProps) {
  const taps = plan.spots.flatMap((s) => {
    const row = rows.get(s.tank_id);
    const shelf = plan.shelves[s.shelf];
    if (!row?.air_keys.length) return [];
    return [{ x: s.x_cm + row.length_cm / 2, top: down((shelf?.y_cm ?? 0) + row.height_cm) }];
  });
  const xs = [...taps.map((t) => t.x), ...plan.pumps.map((p) => p.x_cm)];
  const from = Math.min(...xs);
  const to = Math.max(...xs);
  return (
    <g stroke="var(--water)" fill="none" aria-hidden="true">
      <path d={`M${from} ${down(y)}H${to}`} strokeWidth={2.2} />
      {plan.main.ring && <path d={`M${from} ${down(y)}v-4H${to}v4`} strokeWidth={1.1} />}
      {taps.map((t, i) => (
        <path key={i} d={`M${t.x} ${down(y)}V${t.top + 4}`} strokeWidth={0.8} strokeDasharray="3 2" />
      ))}
      {plan.pumps.map((p, i) => (
        <path key={i} d={`M${p.x_cm} ${down(p.y_cm)}V${down(y)}`} strokeWidth={1.6} />
      ))}
    </g>
  );
}

type PumpAir = NonNullable<RoomView["air"]>["pumps"][number];

/** Flow and pressure of a pump, beneath it. */
function PumpWords({ x, y, pump }: { x: number; y: number; pump?: PumpAir }) {
  if (!pump) return null;
  return (
    <g fill="var(--ink)" fontSize={7.5} textAnchor="middle" aria-hidden="true" pointerEvents="none">
      <text x={x} y={y + 14}>
        {fixed(pump.l_min, 1)} L/min
      </text>
      <text x={x} y={y + 22}>
        {fixed(pump.kpa, 1)} kPa
      </text>
    </g>
  );
}

/** A shelf as long as the wall, above the highest by the height tanks need. */
function shelfAbove({ shelves, width_cm, height_cm }: RoomPlan): RoomPlan["shelves"][number] {
  const above = Math.max(-35, ...shelves.map((s) => s.y_cm)) + 55;
  return { x_cm: 0, y_cm: Math.min(above, height_cm), length_cm: width_cm };
}

/** Tanks above it keep their places. */
function withoutShelf(plan: RoomPlan, gone: number): Partial<RoomPlan> {
  return {
    shelves: plan.shelves.filter((_, n) => n !== gone),
    spots: plan.spots.map((s) => (s.shelf > gone ? { ...s, shelf: s.shelf - 1 } : s)),
  };
}

const Adding = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
`;

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

function TankOnWall({ row, air, x, foot, most, chosen, onMove, onShelf, onChoose }: TankProps) {
  const held = useRef<{ at: number; x: number; moved: boolean } | null>(null);
  const top = foot - row.height_cm;
  const water = top + row.fill_below_rim_cm;
  const stands = standsOf(row);
  const give = (next: number) => {
    onMove(Math.round(Math.min(Math.max(next, 0), Math.max(most, 0))));
  };
  const place = (e: PointerEvent<SVGGElement>) => {
    const matrix = e.currentTarget.ownerSVGElement?.getScreenCTM();
    return matrix ? new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse()).x : null;
  };
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
      {chosen && (
        <text className="tick" x={x + 3} y={top + 14}>
          ✓
        </text>
      )}
    </Grip>
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
