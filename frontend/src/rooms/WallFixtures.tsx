/** What is on the wall besides tanks: shelves, the main, pumps, sockets, sink; and adding one more. */
import { styled } from "styled-components";
import type { BoardRow, RoomPlan, RoomView } from "../api/schemas";
import { InlineButton } from "../kit";
import { fixed } from "../quantity/format";
import { OnWall } from "./WallObjects";

interface FixtureProps {
  plan: RoomPlan;
  down: (y: number) => number;
  put: (change: Partial<RoomPlan>) => void;
}

function mostOf({ width_cm, height_cm }: RoomPlan): { x: number; y: number } {
  return { x: width_cm, y: height_cm };
}

/** Shelves; one on which no tank stands can be taken away. */
export function Shelves({ plan, down, put, inUse }: FixtureProps & { inUse: (shelf: number) => boolean }) {
  const most = mostOf(plan);
  return (
    <>
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
            inUse(i)
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
    </>
  );
}

interface MainProps {
  plan: RoomPlan;
  rows: Map<number, BoardRow>;
  down: (y: number) => number;
  y: number;
}

/** The main along the wall, its drops to the tanks it feeds, and the pumps. */
export function Main({ plan, rows, down, y }: MainProps) {
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

/** Air pumps, each with what it gives. */
export function Pumps({ plan, down, put, view }: FixtureProps & { view: RoomView }) {
  const most = mostOf(plan);
  return (
    <>
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
    </>
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

export function Sockets({ plan, down, put }: FixtureProps) {
  const most = mostOf(plan);
  return (
    <>
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
    </>
  );
}

export function Sink({ plan, down, put }: FixtureProps) {
  if (!plan.sink) return null;
  return (
    <OnWall
      label="Sink"
      x={plan.sink.x_cm}
      y={plan.sink.y_cm}
      down={down}
      most={mostOf(plan)}
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
  );
}

/** One more shelf or socket, or a sink. */
export function AddToWall({ plan, put }: Omit<FixtureProps, "down">) {
  const width = plan.width_cm;
  return (
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
