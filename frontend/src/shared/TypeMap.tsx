/** The map of type and size: a row a kind, a bar from the smallest box that does to the largest that still suits. */
import { useRef, type KeyboardEvent, type MouseEvent } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import type { FilterView, ShelfRow } from "../api/schemas";
import { phone } from "../kit";
import { bare, show, twinOf, unitName } from "../quantity/format";
import { TypeTable } from "./TypeTable";

type Kind = FilterView["types"]["kinds"][number];

/** Ticks of the scale, in L/h. */
const TICKS = [100, 200, 500, 1000, 2000, 5000];

/** Place on the scale as a share of its width. */
function place(lph: number, low: number, high: number): number {
  return Math.log(lph / low) / Math.log(high / low);
}

interface Props {
  /** For the link to the card; left out where there is no tank. */
  tankId?: number;
  types: FilterView["types"];
  /** The keeper's boxes, as marks on the rows of their kinds. */
  shelf: ShelfRow[];
  /** Ids looked at. */
  seen: string[];
  onSee: (ids: string[]) => void;
}

/** A row and one of its sizes; null for a kind without any that does. */
interface Pick {
  row: Kind;
  size: Kind["sizes"][number];
}

function pickOf(types: FilterView["types"], seen: string[]): Pick | null {
  for (const row of types.kinds) {
    const size = row.sizes.find((s) => s.typical_id === seen[0]);
    if (size) return { row, size };
  }
  const [first] = types.kinds;
  return first ? recommended(first) : null;
}

function recommended(row: Kind): Pick | null {
  const size = row.sizes.find((s) => s.typical_id === row.typical_id);
  return size ? { row, size } : null;
}

function idsOf({ row, size }: Pick): string[] {
  return Array.from({ length: row.count }, () => size.typical_id);
}

/** The pick that an arrow key moves to: up and down between kinds, left and right between sizes. */
function moved(types: FilterView["types"], { row, size }: Pick, key: string): Pick | null {
  const along = { ArrowLeft: -1, ArrowRight: 1 }[key];
  if (along !== undefined) {
    const next = row.sizes[row.sizes.indexOf(size) + along];
    return next ? { row, size: next } : null;
  }
  const across = { ArrowUp: -1, ArrowDown: 1 }[key];
  const next = across === undefined ? undefined : types.kinds[types.kinds.indexOf(row) + across];
  return next ? recommended(next) : null;
}

export function TypeMap({ types, shelf, seen, onSee, tankId }: Props) {
  const { kinds, smallest_lph: low, largest_lph: high } = types;
  const rows = useRef<HTMLDivElement>(null);
  const pick = pickOf(types, seen);
  if (!pick) return null;
  const onKeyDown = (e: KeyboardEvent) => {
    const next = moved(types, pick, e.key);
    if (!e.key.startsWith("Arrow")) return;
    e.preventDefault();
    if (!next) return;
    onSee(idsOf(next));
    rows.current?.querySelector<HTMLElement>(`[data-kind="${next.row.kind}"]`)?.focus();
  };
  return (
    <section aria-label="Type and size">
      <Rows ref={rows} onKeyDown={onKeyDown}>
        <Scale aria-hidden>
          <span>what the box says, {unitName("L/h")}</span>
          <div>
            {TICKS.filter((t) => t > low && t < high).map((t) => (
              <i key={t} style={{ left: `${place(t, low, high) * 100}%` }}>
                {bare(t, "L/h")}
                <small>{twinOf(t, "L/h").replace(/[^\d,.]/g, "")}</small>
              </i>
            ))}
          </div>
          <span>cleaned</span>
          <span>heard</span>
          <span>draws</span>
        </Scale>
        {kinds.map((row) => (
          <KindButton
            key={row.kind}
            row={row}
            picked={row === pick.row ? pick.size : null}
            {...{ low, high, onSee }}
            boxes={shelf.filter((one) => one.as_kinds.some((k) => k.kind === row.kind))}
          />
        ))}
      </Rows>
      <TypeTable kinds={kinds} />
      <Picked pick={pick} tankId={tankId} restsOn={types.rests_on} />
    </section>
  );
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

function KindButton({ row, picked, low, high, boxes, onSee }: KindButtonProps) {
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

/** What the picked kind is asked for in a shop, and what speaks for it. */
function Picked({
  pick: { row, size },
  tankId,
  restsOn,
}: {
  pick: Pick;
  tankId?: number;
  /** What typical boxes rest on besides memory; empty where on nothing. */
  restsOn: string;
}) {
  const kindPage = <Link to={`/kinds/${row.kind}`}>How it works</Link>;
  if (!row.fits)
    return (
      <Card>
        <h2>{row.title}: not here</h2>
        <p>
          {row.barred} {row.remedy && `To let it in: ${row.remedy}.`} {kindPage}
        </p>
      </Card>
    );
  const own = size.typical_id === row.typical_id;
  return (
    <Card>
      <h2>
        {row.count > 1 && `${row.count} × `}
        {row.title}, {show(size.box_lph, "L/h")} on the box
      </h2>
      <p>
        {(size.does_share * 10).toFixed(0)} of 10 makes of this size would do.{" "}
        {own && row.moves_low_lph != null && row.moves_high_lph != null && (
          <>
            In service {row.count > 1 ? "they move" : "it moves"} {bare(row.moves_low_lph, "L/h")} to{" "}
            {show(row.moves_high_lph, "L/h")} here, by the make.{" "}
          </>
        )}
        It is {row.speaks}. {kindPage}
      </p>
      <p>
        <b>Look for</b> {row.look_for.join(" · ")}.
      </p>
      <p>
        <small>
          Smaller: {row.binds_low}. Larger: {row.binds_high}. Care: {row.work}.
          {restsOn && ` What boxes are like: from memory, and from ${restsOn}.`}
        </small>
      </p>
      {tankId !== undefined && (
        <p>
          <Link to={`/tanks/${tankId}/card/${row.kind}`}>Take it to the shop</Link>: this on half a page, for
          your phone or to print.
        </p>
      )}
    </Card>
  );
}

const Rows = styled.div`
  display: grid;
  border-top: 1px solid var(--line);
`;
const COLUMNS = "104px minmax(0, 1fr) 62px 50px 44px";
const Scale = styled.div`
  display: grid;
  grid-template-columns: ${COLUMNS};
  gap: 0 8px;
  color: var(--ink-soft);
  font-size: 0.8125rem;
  line-height: 1.2;
  padding: 4px 0 2px 8px;
  align-items: end;
  div {
    position: relative;
    height: 32px;
  }
  i {
    position: absolute;
    transform: translateX(-50%);
    font-style: normal;
    text-align: center;
    bottom: 0;
  }
  i small {
    display: block;
    font-size: 0.75rem;
  }
  ${phone} {
    display: none;
  }
`;
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
const Card = styled.div`
  display: grid;
  gap: 4px;
  padding: 8px 0 4px;
  h2 {
    margin: 0;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.875rem;
  }
`;
