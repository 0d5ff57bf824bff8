/** The logbook, newest first: filtered by text and kind, older entries on request. */
import { useState } from "react";
import { styled } from "styled-components";
import { useAgain, useWrite } from "../../api/entries";
import { useLogbookPages } from "../../api/tanks";
import { useSettled } from "../../api/compute";
import { ProblemError } from "../../api/client";
import type { Entry, LogbookState, Tables } from "../../api/schemas";
import { Button, InlineButton, Lead, LineLink, ProblemNote, Select, TextField, Waiting } from "../../kit";
import { Happenings } from "./EventsCsv";
import { monthOf, words } from "../../shared/entryWords";

const KINDS = [
  ["", "Everything"],
  ["reading", "Tests"],
  ["water-change", "Water changes"],
  ["media-work", "Cleanings and media"],
  ["flow-test", "Flow tests"],
  ["stocking", "Animals"],
  ["dose", "Doses"],
  ["outage", "Power"],
  ["note", "Notes"],
] as const;

interface Props {
  tankId: number;
  logbook: LogbookState;
  tables: Tables;
}

export function Logbook({ tankId, logbook, tables }: Props) {
  const [kind, setKind] = useState<(typeof KINDS)[number][0]>("");
  const [search, setSearch] = useState("");
  const pages = useLogbookPages(tankId, { kind, search: useSettled(search.trim(), 300) });
  const found = pages.data?.pages ?? [];
  const entries = found.flatMap((page) => page.entries);
  const replaced = new Map(found.flatMap((page) => page.replacing).map((e) => [e.supersedes, e]));
  const { tank_plan, stock_plan, filter_plan, fit_plan, cycle_plan, kit_plan } = logbook;
  // The newest of its kind is the current plan; an older one can be restored.
  const stand = new Set(
    [tank_plan, stock_plan, filter_plan, fit_plan, cycle_plan, kit_plan].map((plan) => plan?.id),
  );
  return (
    <section aria-label="Logbook">
      <h2>Logbook, last written first</h2>
      <Looking>
        <TextField label="Look for" value={search} onChange={setSearch} />
        <Select label="Of what kind" value={kind} onChange={setKind} options={KINDS} />
      </Looking>
      {pages.isPending && <Waiting>Opening the logbook…</Waiting>}
      <ProblemNote problem={pages.error instanceof ProblemError ? pages.error : null} />
      {pages.data && entries.length === 0 && (
        <Lead>{search || kind ? "Nothing of that is written." : "Nothing is written yet."}</Lead>
      )}
      <Lines>
        {entries.map((e, i) => (
          <Line
            key={e.id}
            month={i > 0 && monthOf(e.at) === monthOf(entries[i - 1]?.at ?? e.at) ? undefined : monthOf(e.at)}
            tankId={tankId}
            entry={e}
            gone={replaced.get(e.id)}
            stands={stand.has(e.id)}
            said={`${words(e.body, tables)}${e.who ? `, by ${e.who}` : ""}`}
          />
        ))}
      </Lines>
      {pages.hasNextPage && (
        <div>
          <Button $quiet isDisabled={pages.isFetchingNextPage} onPress={() => void pages.fetchNextPage()}>
            Older lines
          </Button>
        </div>
      )}
      <LineLink to={`/tanks/${tankId}/book`}>The logbook, to print</LineLink>
      <Happenings tankId={tankId} />
    </section>
  );
}

interface LineProps {
  tankId: number;
  entry: Entry;
  /** The entry that corrected or withdrew it. */
  gone?: Entry;
  stands: boolean;
  said: string;
  /** Set where another month begins with it. */
  month?: string;
}

function Line({ tankId, entry, gone, stands, said, month }: LineProps) {
  const write = useWrite(tankId);
  const again = useAgain(tankId);
  const plan = entry.body.kind.endsWith("-plan");
  return (
    <li data-gone={gone ? true : undefined}>
      {month && <h3>{month}</h3>}
      <time dateTime={entry.at}>{when(entry.at)}</time>
      <span>
        <Said said={said} gone={gone} />
      </span>
      {!gone && !plan && entry.body.kind !== "withdrawal" && (
        <InlineButton
          aria-label={`Take back: ${said}`}
          onPress={() => {
            write.mutate({ body: { kind: "withdrawal" }, supersedes: entry.id });
          }}
        >
          Take back
        </InlineButton>
      )}
      {!gone && plan && !stands && (
        <InlineButton
          aria-label={`Take up again: ${said}`}
          onPress={() => {
            again.mutate(entry.id);
          }}
        >
          Take up again
        </InlineButton>
      )}
      <ProblemNote problem={write.error ?? again.error} />
    </li>
  );
}

/** An entry, struck through where it was corrected or withdrawn. */
function Said({ said, gone }: Pick<LineProps, "said" | "gone">) {
  if (!gone) return <>{said}</>;
  return (
    <>
      <s>{said}</s> {gone.body.kind === "withdrawal" ? "(taken back)" : "(corrected)"}
    </>
  );
}

/** With its year where that is not this one. */
function when(at: string): string {
  const time = new Date(at);
  const old = time.getFullYear() !== new Date().getFullYear();
  return time.toLocaleString(undefined, {
    day: "numeric",
    month: "short",
    ...(old ? { year: "numeric" } : { hour: "2-digit", minute: "2-digit" }),
  });
}

const Looking = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  > * {
    flex: 1 1 200px;
    max-width: 320px;
  }
`;
const Lines = styled.ul`
  max-height: 380px;
  overflow: auto;
  li {
    display: grid;
    grid-template-columns: 118px minmax(0, 1fr) auto;
    gap: 10px;
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
    align-items: baseline;
  }
  time {
    color: var(--ink-soft);
    font-size: 15px;
  }
  h3 {
    grid-column: 1 / -1;
    font-size: 15px;
    color: var(--ink-soft);
  }
  li[data-gone] {
    color: var(--ink-soft);
  }
`;
