/** The map of type and size: a row a kind, a bar from the smallest box that does to the largest that still suits. */
import { useRef, type KeyboardEvent } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import type { FilterView, ShelfRow } from "../api/schemas";
import { phone } from "../kit";
import { bare, show, twinOf, unitName } from "../quantity/format";
import { TypeTable } from "./TypeTable";
import { COLUMNS, idsOf, KindButton, type PickedSize, place, recommended } from "./TypeMapRow";

/** Ticks of the scale, in L/h. */
const TICKS = [100, 200, 500, 1000, 2000, 5000];

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

function pickOf(types: FilterView["types"], seen: string[]): PickedSize | null {
  for (const row of types.kinds) {
    const size = row.sizes.find((s) => s.typical_id === seen[0]);
    if (size) return { row, size };
  }
  const [first] = types.kinds;
  return first ? recommended(first) : null;
}

/** The pick that an arrow key moves to: up and down between kinds, left and right between sizes. */
function moved(types: FilterView["types"], { row, size }: PickedSize, key: string): PickedSize | null {
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

/** What the picked kind is asked for in a shop, and what speaks for it. */
function Picked({
  pick: { row, size },
  tankId,
  restsOn,
}: {
  pick: PickedSize;
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
