/** Care plan of a tank: each task with its day, its instructions, and a button that records it. */
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { useDone } from "../../api/entries";
import type { Body, CareRow, KeepView } from "../../api/schemas";
import { Button, Caution, Figure, InlineButton, Lead, LineLink, phone, ProblemNote } from "../../kit";
import { Away } from "./Away";
import { Cleaning } from "./Cleaning";
import { LOCALE } from "../../quantity/locale";
import { KEPT_HERE } from "../../shared/keptHere";

interface Props {
  tankId: number;
  view: KeepView;
}

export function Care({ tankId, view }: Props) {
  if (!view.care) return null;
  const { next, later } = split(view.rows);
  return (
    <section aria-label="Care">
      <h2>
        What is next{" "}
        <small>
          <Figure title="Work in a week" lines={view.care.working} of="weekly_minutes">
            about {view.care.weekly_minutes.toFixed(0)} minutes a week
          </Figure>
        </small>
      </h2>
      {view.care.crowded && <Caution>{view.care.crowded}</Caution>}
      {next.length === 0 && <Lead>Nothing in the coming weeks.</Lead>}
      <Rows>
        {next.map((row, i) => (
          <Row
            key={keyOf(row)}
            tankId={tankId}
            row={row}
            view={view}
            first={i === 0 && row.task.in_days <= 0}
          />
        ))}
      </Rows>
      {later.length > 0 && (
        <details>
          <summary>The weeks after</summary>
          <Weeks>
            {later.map((row) => (
              <li key={`${keyOf(row)}-${row.at}`}>
                <time dateTime={row.at}>{dayOf(row.at)}</time>
                <span>
                  {row.task.title}
                  {row.task.moved && <small> · {row.task.moved}</small>}
                </span>
              </li>
            ))}
          </Weeks>
        </details>
      )}
      <LineLink to={`/tanks/${tankId}/care`}>A care card to print</LineLink>
      <Away tankId={tankId} />
    </section>
  );
}

interface RowProps extends Props {
  row: CareRow;
  /** Whether it is what is to be done now. */
  first: boolean;
}

function Row({ tankId, row, view, first }: RowProps) {
  const { task, done } = row;
  const [open, setOpen] = useState(false);
  const write = useDone(tankId);
  const filter = task.what === "clean" ? view.filters.find((f) => f.key === task.filter_key) : undefined;
  return (
    <li data-late={task.in_days <= 0 || undefined}>
      <time dateTime={row.at}>{whenOf(row)}</time>
      <div>
        <b>{task.title}</b>
        <small>{whyOf(row)}</small>
      </div>
      <Press>
        {filter && (
          <InlineButton
            aria-expanded={open}
            onPress={() => {
              setOpen((now) => !now);
            }}
          >
            {open ? "Close" : "How, step by step"}
          </InlineButton>
        )}
        {done && <DoneButton title={task.title} body={done} write={write} quiet={!first} />}
        {row.stage && (
          <Link to={`/tanks/${tankId}/${row.stage}`}>{row.stage === "fit" ? "Time it" : "Log it"}</Link>
        )}
      </Press>
      {filter && open && <Cleaning tankId={tankId} filter={filter} />}
      {write.kept(...(done ? [done] : [])) && <p role="status">{KEPT_HERE}</p>}
      <ProblemNote problem={write.error} />
    </li>
  );
}

interface DoneProps {
  title: string;
  body: Body;
  write: ReturnType<typeof useDone>;
  quiet: boolean;
}

function DoneButton({ title, body, write, quiet }: DoneProps) {
  return (
    <Button
      $quiet={quiet}
      aria-label={`Done: ${title}`}
      isDisabled={write.busy || write.kept(body)}
      onPress={() => {
        write.mutate({ body });
      }}
    >
      Done
    </Button>
  );
}

function whyOf({ task, pour }: CareRow): string {
  return [task.why, task.moved && `Moved: ${task.moved}.`, pour].filter(Boolean).join(" ");
}

const keyOf = ({ task }: CareRow) => `${task.what}-${task.filter_key ?? ""}`;

/** The first of each task, and everything after it. */
function split(rows: CareRow[]): { next: CareRow[]; later: CareRow[] } {
  const seen = new Set<string>();
  const next: CareRow[] = [];
  const later: CareRow[] = [];
  for (const row of rows) {
    (seen.has(keyOf(row)) ? later : next).push(row);
    seen.add(keyOf(row));
  }
  return { next, later };
}

function dayOf(at: string): string {
  return new Date(at).toLocaleDateString(LOCALE, { weekday: "short", day: "numeric", month: "short" });
}

function whenOf({ task, at }: CareRow): string {
  if (task.in_days > 0) return dayOf(at);
  return task.late_days >= 1.5 ? `${task.late_days.toFixed(0)} days late` : "now";
}

const Rows = styled.ul`
  > li {
    display: grid;
    grid-template-columns: 104px minmax(0, 1fr) auto;
    gap: 2px 14px;
    padding: 8px 0;
    border-bottom: 1px solid var(--line);
    align-items: start;
  }
  > li > :nth-child(n + 4) {
    grid-column: 1 / -1;
  }
  > li > time {
    color: var(--ink-soft);
    padding-top: 1px;
  }
  > li[data-late] > time {
    color: var(--seed);
    font-weight: 600;
  }
  > li > div > small {
    display: block;
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  ${phone} {
    > li {
      grid-template-columns: 84px minmax(0, 1fr);
    }
    > li > :nth-child(n + 3) {
      grid-column: 1 / -1;
    }
  }
`;
const Press = styled.div`
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: flex-end;
`;
const Weeks = styled.ul`
  columns: 2 260px;
  li {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr);
    gap: 10px;
    padding: 3px 0;
    break-inside: avoid;
  }
  time,
  small {
    color: var(--ink-soft);
  }
`;
