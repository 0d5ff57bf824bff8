/** One kind on the map of type and size: its name, its bar, and boxes of the shelf on it. */
import { type MouseEvent } from "react";
import { styled } from "styled-components";
import type { FilterView, ShelfRow } from "../api/schemas";
import { phone } from "../kit";
import { bare, show } from "../quantity/format";

export type Kind = FilterView["types"]["kinds"][number];

/** A row and one of its sizes. */
export interface PickedSize {
  row: Kind;
  size: Kind["sizes"][number];
}

/** The size recommended of a kind; null where none of it does. */
export function recommended(row: Kind): PickedSize | null {
  const size = row.sizes.find((s) => s.typical_id === row.typical_id);
  return size ? { row, size } : null;
}

/** Ids of the boxes that stand for so many of a size. */
export function idsOf({ row, size }: PickedSize): string[] {
  return Array.from({ length: row.count }, () => size.typical_id);
}

/** Place on the scale as a share of its width. */
export function place(lph: number, low: number, high: number): number {
  return Math.log(lph / low) / Math.log(high / low);
}

interface KindButtonProps {
  row: Kind;
  /** The size looked at, where it is of this row. */
  picked: Kind["sizes"][number] | null;
  low: number;
  high: number;
  boxes: ShelfRow[];
  onSee: (ids: string[]) => void;
}

export function KindButton({ row, picked, low, high, boxes, onSee }: KindButtonProps) {
  const onClick = (e: MouseEvent) => {
    const mark = e.target instanceof Element ? e.target.closest("[data-box]") : null;
    const box = mark?.getAttribute("data-box");
    const own = recommended(row);
    if (box) onSee([box]);
    else if (own) onSee(idsOf(own));
  };
  return (
    <Row
      type="button"
      data-kind={row.kind}
      aria-pressed={picked !== null}
      tabIndex={picked !== null ? 0 : -1}
      onClick={onClick}
    >
      <b>
        {row.count > 1 && `${row.count} × `}
        {row.title}
      </b>
      {row.fits ? (
        <Bar row={row} low={low} high={high} picked={picked} boxes={boxes} />
      ) : (
        <Barred>{row.barred}</Barred>
      )}
      {row.fits && (
        <>
          <small>{row.serviced}</small>
          <small>{row.noise_db?.toFixed(0)} dB</small>
          <small>{row.watts?.toFixed(0)} W</small>
        </>
      )}
    </Row>
  );
}

interface BarProps {
  row: Kind;
  low: number;
  high: number;
  picked: Kind["sizes"][number] | null;
  boxes: ShelfRow[];
}

/** The bar with its fading ends, what binds at each of them, the size looked at, and the keeper's boxes. */
function Bar({ row, low, high, picked, boxes }: BarProps) {
  const { low_lph: least, high_lph: most, sizes } = row;
  if (least == null || most == null) return null;
  const [from, to] = [least, most].map((q) => place(q, low, high) * 100) as [number, number];
  const step = widthOf(sizes, low, high);
  const words =
    `${row.title}: boxes of ${bare(least, "L/h")} to ${show(most, "L/h")} do; ` +
    `below them ${row.binds_low}, above them ${row.binds_high}`;
  return (
    <Track role="img" aria-label={words}>
      {sizes.map((s) => (
        <i
          key={s.box_lph}
          style={{
            left: `${place(s.box_lph, low, high) * 100 - step / 2}%`,
            width: `${step + 0.6}%`,
            opacity: s.does_share,
          }}
        />
      ))}
      <u style={{ left: `${from}%`, width: `${Math.max(to - from, 0.8)}%` }} />
      {from > LEFT_ROOM && (
        <em data-before style={{ right: `${100 - from + 1}%` }}>
          {row.binds_low}
        </em>
      )}
      {to < RIGHT_ROOM && <em style={{ left: `${to + 1.5}%` }}>{row.binds_high}</em>}
      {boxes.map((box) => (
        <Mark key={box.id} box={box} kind={row.kind} low={low} high={high} />
      ))}
      {picked && <s style={{ left: `${place(picked.box_lph, low, high) * 100}%` }} />}
    </Track>
  );
}

/** One of the keeper's boxes on the row of a kind it may be. */
function Mark({ box, kind, low, high }: { box: ShelfRow; kind: string; low: number; high: number }) {
  const one = box.as_kinds.find((k) => k.kind === kind);
  if (!one) return null;
  const at = Math.min(Math.max(place(one.box_lph, low, high), 0), 1);
  return (
    <q
      data-box={one.filter_id}
      data-does={one.does || undefined}
      title={`${box.name}: ${one.words}`}
      style={{ left: `${at * 100}%` }}
    />
  );
}

/** Share of the scale, in percent, from which words fit before a bar, and up to which they fit after it. */
const LEFT_ROOM = 32;
const RIGHT_ROOM = 80;

/** Width of one size on the scale, in percent. */
function widthOf(sizes: Kind["sizes"], low: number, high: number): number {
  const [first, second] = sizes;
  return first && second ? (place(second.box_lph, low, high) - place(first.box_lph, low, high)) * 100 : 1;
}

export const COLUMNS = "104px minmax(0, 1fr) 62px 50px 44px";
const Row = styled.button`
  display: grid;
  grid-template-columns: ${COLUMNS};
  gap: 0 8px;
  align-items: center;
  min-height: 38px;
  text-align: left;
  border: 0;
  border-left: 4px solid transparent;
  border-bottom: 1px solid var(--line);
  background: none;
  padding: 2px 0 2px 4px;
  cursor: pointer;
  color: inherit;
  small {
    font-size: 0.875rem;
  }
  &[aria-pressed="true"] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  ${phone} {
    min-height: 44px;
    grid-template-columns: 84px repeat(3, minmax(0, 1fr));
    > :nth-child(2) {
      grid-column: 2 / -1;
    }
    small:first-of-type {
      grid-column: 2;
    }
  }
`;
const Track = styled.span`
  position: relative;
  display: block;
  height: 30px;
  i,
  u,
  em {
    position: absolute;
  }
  i {
    top: 8px;
    height: 14px;
    background: var(--reed-fill);
  }
  u {
    top: 7px;
    height: 16px;
    border: 1.5px solid var(--reed);
    border-radius: 2px;
  }
  em {
    top: 5px;
    font-style: normal;
    font-size: 0.8125rem;
    color: var(--ink-soft);
    white-space: nowrap;
    right: 0;
    overflow: hidden;
    text-overflow: ellipsis;
  }
  em[data-before] {
    left: 0;
    text-align: right;
  }
  s {
    position: absolute;
    top: 2px;
    bottom: 2px;
    width: 3px;
    margin-left: -1.5px;
    background: var(--seed);
  }
  q {
    position: absolute;
    bottom: 0;
    width: 10px;
    height: 10px;
    margin-left: -5px;
    border: 1.5px solid var(--ink);
    border-radius: 50%;
    background: var(--paper);
    quotes: none;
  }
  q[data-does] {
    background: var(--ink);
  }
  ${phone} {
    em[data-before] {
      display: none;
    }
  }
`;
const Barred = styled.span`
  grid-column: 2 / -1;
  color: var(--ink-soft);
  font-size: 0.875rem;
  line-height: 1.25;
`;
