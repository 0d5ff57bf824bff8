/** The room's wall to scale: shelves, tanks, spare sponges, sockets, sink, the air pump and its main, all dragged or moved by keys. */
import type { ReactNode } from "react";
import type { BoardRow, RoomPlan, RoomView } from "../api/schemas";
import { fixed } from "../quantity/format";
import { SpongePieces, type SpongeInHand } from "./SpongePieces";
import { TankOnWall } from "./TankOnWall";
import { AddToWall, Main, Pumps, Shelves, Sink, Sockets } from "./WallFixtures";

interface Props {
  plan: RoomPlan;
  view: RoomView;
  chosen: number[];
  put: (change: Partial<RoomPlan>) => void;
  onChoose: (ids: number[]) => void;
  /** A spare sponge that was pressed, until the tank it goes into is. */
  held: SpongeInHand | null;
  onHold: (sponge: SpongeInHand | null) => void;
  /** A sponge was put over another tank. */
  onPut: (sponge: SpongeInHand, toId: number) => void;
  /** What is under the drawing. Default: how it is used. */
  children?: ReactNode;
}

const EDGE = 14;
const HOW =
  "Drag a tank, shelf, pump, socket or sink, or move it by the arrow keys; press a tank to choose it. A spare sponge is dragged into another tank, or pressed, and then the tank.";

export function Wall({ plan, view, chosen, put, onChoose, held, onHold, onPut, children }: Props) {
  const { width_cm: width, height_cm: height } = plan;
  const down = (y: number) => height - y;
  const rows = new Map(view.rows.map((r) => [r.tank_id, r]));
  const here = plan.spots.filter((s) => rows.has(s.tank_id));
  const summary = `The wall to scale, ${fixed(width / 100, 1)} by ${fixed(height / 100, 1)} metres: ${here.length} tanks on ${plan.shelves.length} shelves, ${plan.pumps.length} air pumps.`;
  const placed = here.flatMap(({ tank_id, x_cm, shelf }) => {
    const row = rows.get(tank_id);
    return row ? [{ row, x: x_cm, shelf, foot: down(plan.shelves[shelf]?.y_cm ?? 0) }] : [];
  });
  const press = (id: number) => {
    if (held && held.fromId !== id) onPut(held, id);
    else onChoose(chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]);
  };
  return (
    <figure>
      <svg
        viewBox={`${-EDGE} ${-EDGE} ${width + 2 * EDGE} ${height + 2 * EDGE}`}
        role="group"
        aria-label={summary}
      >
        <rect x={0} y={0} width={width} height={height} fill="var(--silt)" />
        <line x1={-6} x2={width + 6} y1={height} y2={height} stroke="var(--ink)" strokeWidth={1.6} />
        <Shelves plan={plan} down={down} put={put} inUse={(shelf) => here.some((s) => s.shelf === shelf)} />
        {plan.pumps.length > 0 && <Main plan={plan} rows={rows} down={down} y={plan.main.y_cm} />}
        <Tanks plan={plan} view={view} put={put} placed={placed} chosen={chosen} onPress={press} />
        <Pumps plan={plan} view={view} down={down} put={put} />
        <Sockets plan={plan} down={down} put={put} />
        <Sink plan={plan} down={down} put={put} />
        <SpongePieces placed={placed} held={held} onHold={onHold} onPut={onPut} />
      </svg>
      <figcaption>{children ?? HOW}</figcaption>
      <AddToWall plan={plan} put={put} />
    </figure>
  );
}

/** A tank with its place on the drawing. */
export interface Placed {
  row: BoardRow;
  x: number;
  shelf: number;
  foot: number;
}

interface TanksProps extends Pick<Props, "plan" | "view" | "put" | "chosen"> {
  placed: Placed[];
  onPress: (id: number) => void;
}

function Tanks({ plan, view, put, placed, chosen, onPress }: TanksProps) {
  const air = airOf(view);
  const move = (tankId: number, change: { x_cm?: number; shelf?: number }) => {
    put({ spots: plan.spots.map((s) => (s.tank_id === tankId ? { ...s, ...change } : s)) });
  };
  return placed.map(({ row, x, shelf, foot }) => (
    <TankOnWall
      key={row.tank_id}
      row={row}
      air={air(row)}
      x={x}
      foot={foot}
      most={plan.width_cm - row.length_cm}
      chosen={chosen.includes(row.tank_id)}
      onMove={(x_cm) => {
        move(row.tank_id, { x_cm });
      }}
      onShelf={(by) => {
        const shelves = plan.shelves.length;
        if (shelves) move(row.tank_id, { shelf: Math.min(Math.max(shelf + by, 0), shelves - 1) });
      }}
      onChoose={() => {
        onPress(row.tank_id);
      }}
    />
  ));
}

/** Each tank's air in words; empty where there is none. */
function airOf(view: RoomView): (row: BoardRow) => string {
  const got = new Map(view.air?.outlets.map((o) => [o.key, o.air_l_min] as const) ?? []);
  return (row) => {
    const litres = row.air_keys.reduce((sum, key) => sum + (got.get(key) ?? 0), 0);
    return litres > 0 ? `${fixed(litres, 2)} L/min` : "";
  };
}
