/** The keeper's boxes on this tank: which do, in a sentence and a list; a press looks at one. */
import { Link } from "react-router";
import { styled } from "styled-components";
import type { FilterView, ShelfRow } from "../../api/schemas";
import { useSaveBox, useShelf } from "../../api/shelf";
import { useLoadedTables } from "../../api/tables";
import { Button } from "../../kit";
import { money } from "../../quantity/format";

const SHOWN = 3;
const SHORT = 4;
const ANSWERS = { yes: "does", no: "does not", depends: "which kind?" } as const;

interface Props {
  shelf: FilterView["shelf"];
  seen: string[];
  onSee: (ids: string[]) => void;
}

export function ShelfHere({ shelf, seen, onSee }: Props) {
  const able = shelf.rows.filter((row) => row.answer !== "no");
  // Of a short shelf, what does not do is shown as well, with its reason.
  const shown = shelf.rows.length <= SHORT ? shelf.rows : (able.length ? able : shelf.rows).slice(0, SHOWN);
  if (!shelf.rows.length) return null;
  return (
    <section aria-label="Boxes you have seen">
      <h2>{shelf.words}</h2>
      <List>
        {shown.map((row) => (
          <Box key={row.id} row={row} seen={seen} onSee={onSee} />
        ))}
      </List>
      {shelf.rows.length > shown.length && (
        <Small>
          {shelf.rows.length - shown.length} more stand on <Link to="/shelf">your shelf</Link>.
        </Small>
      )}
    </section>
  );
}

function Box({ row, seen, onSee }: { row: ShelfRow } & Omit<Props, "shelf">) {
  const ids = row.as_kinds.map((k) => k.filter_id);
  return (
    <li data-answer={row.answer}>
      <button
        type="button"
        aria-pressed={ids.some((id) => seen[0] === id)}
        onClick={() => {
          onSee(ids.slice(0, 1));
        }}
      >
        <b>{row.name}</b> <i>{ANSWERS[row.answer]}</i>
        {row.price != null && <span>{money(row.price, 0)}</span>}
        <small>{row.words}</small>
      </button>
      {row.answer === "depends" && <Kinds row={row} />}
    </li>
  );
}

/** Its kind, said by one press. */
function Kinds({ row }: { row: ShelfRow }) {
  const shelf = useShelf();
  const save = useSaveBox();
  const titles = new Map(useLoadedTables().kinds.map((k) => [k.kind as string, k.title]));
  const item = shelf.data?.items.find((one) => one.id === row.id);
  if (!item) return null;
  return (
    <p>
      {row.as_kinds.map((k) => (
        <Button
          key={k.kind}
          $quiet
          isDisabled={save.isPending}
          onPress={() => {
            save.mutate({ id: item.id, box: { ...item.box, label: { ...item.box.label, kind: k.kind } } });
          }}
        >
          {titles.get(k.kind) ?? k.kind}
        </Button>
      ))}
    </p>
  );
}

const List = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  li {
    border-bottom: 1px solid var(--line);
  }
  button[aria-pressed] {
    width: 100%;
    min-height: 44px;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto auto;
    gap: 0 12px;
    text-align: left;
    border: 0;
    border-left: 4px solid transparent;
    background: none;
    color: inherit;
    padding: 4px 4px 4px 8px;
    cursor: pointer;
    line-height: 1.3;
  }
  button[aria-pressed="true"] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  li[data-answer="yes"] i {
    color: var(--reed);
    font-weight: 600;
  }
  small {
    grid-column: 1 / -1;
    color: var(--ink-soft);
    font-size: 0.875rem;
  }
  p {
    display: flex;
    flex-wrap: wrap;
    gap: 6px;
    padding: 0 0 6px 12px;
  }
`;
const Small = styled.p`
  color: var(--ink-soft);
  font-size: 0.9375rem;
`;
