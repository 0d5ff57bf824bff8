/** The logbook, newest first: filtered by text and kind, older entries on request. */
import { nowDate } from "../../api/clock";
import { useState } from "react";
import { styled } from "styled-components";
import { useAgain, useWrite } from "../../api/entries";
import { useLogbookPages } from "../../api/tanks";
import { useSettled } from "../../api/compute";
import { ProblemError } from "../../api/client";
import type { Entry, LogbookState, Photo, Tables } from "../../api/schemas";
import {
  Button,
  InlineButton,
  Lead,
  LineLink,
  phone,
  ProblemNote,
  Select,
  TextField,
  Waiting,
} from "../../kit";
import { AddToLine, LinePhotos, usePhotosByLine } from "./EntryPhotos";
import { Happenings } from "./EventsCsv";
import { monthOf, words } from "../../shared/entryWords";
import { LOCALE } from "../../quantity/locale";

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

/** Lines that stand on the stage itself. */
const LATEST = 6;

/** The latest lines, with the way to all of them. */
export function LatestEntries(props: Props) {
  const pages = useLogbookPages(props.tankId, { kind: "", search: "" });
  const { entries, gone } = linesOf(pages.data?.pages);
  return (
    <section aria-label="Logbook" data-lines="">
      <h2>Logbook, last written first</h2>
      <Opening pages={pages} none="Nothing is written yet." empty={entries.length === 0} />
      <EntryLines {...props} entries={entries.slice(0, LATEST)} gone={gone} />
      {entries.length > LATEST && (
        <LineLink to={`/tanks/${props.tankId}/keep/logbook`}>The whole logbook, to search</LineLink>
      )}
      <LineLink to={`/tanks/${props.tankId}/book`}>The logbook, to print</LineLink>
    </section>
  );
}

export function Logbook(props: Props) {
  const { tankId } = props;
  const [kind, setKind] = useState<(typeof KINDS)[number][0]>("");
  const [search, setSearch] = useState("");
  const pages = useLogbookPages(tankId, { kind, search: useSettled(search.trim(), 300) });
  const { entries, gone } = linesOf(pages.data?.pages);
  return (
    <section aria-label="Logbook">
      <Looking>
        <TextField label="Look for" value={search} onChange={setSearch} />
        <Select label="Of what kind" value={kind} onChange={setKind} options={KINDS} />
      </Looking>
      <Opening
        pages={pages}
        none={search || kind ? "Nothing of that is written." : "Nothing is written yet."}
        empty={entries.length === 0}
      />
      <EntryLines {...props} entries={entries} gone={gone} />
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

type Pages = ReturnType<typeof useLogbookPages>;

/** Entries of some pages, and what corrected or withdrew one, by its id. */
function linesOf(pages: NonNullable<Pages["data"]>["pages"] = []) {
  return {
    entries: pages.flatMap((page) => page.entries),
    gone: new Map(pages.flatMap((page) => page.replacing).map((e) => [e.supersedes, e])),
  };
}

function Opening({ pages, none, empty }: { pages: Pages; none: string; empty: boolean }) {
  return (
    <>
      {pages.isPending && <Waiting>Opening the logbook…</Waiting>}
      <ProblemNote problem={pages.error instanceof ProblemError ? pages.error : null} />
      {pages.data && empty && <Lead>{none}</Lead>}
    </>
  );
}

interface EntryLinesProps extends Props {
  entries: Entry[];
  gone: ReturnType<typeof linesOf>["gone"];
}

function EntryLines({ tankId, logbook, tables, entries, gone }: EntryLinesProps) {
  const { tank_plan, stock_plan, filter_plan, fit_plan, cycle_plan, kit_plan } = logbook;
  const photos = usePhotosByLine(tankId);
  // The newest of its kind is the current plan; an older one can be restored.
  const stand = new Set(
    [tank_plan, stock_plan, filter_plan, fit_plan, cycle_plan, kit_plan].map((plan) => plan?.id),
  );
  return (
    <Lines>
      {entries.map((e, i) => (
        <Line
          key={e.id}
          month={i > 0 && monthOf(e.at) === monthOf(entries[i - 1]?.at ?? e.at) ? undefined : monthOf(e.at)}
          tankId={tankId}
          entry={e}
          gone={gone.get(e.id)}
          stands={stand.has(e.id)}
          photos={photos.get(e.key) ?? []}
          said={`${words(e.body, tables)}${e.who ? `, by ${e.who}` : ""}`}
        />
      ))}
    </Lines>
  );
}

interface LineProps {
  tankId: number;
  entry: Entry;
  /** The entry that corrected or withdrew it. */
  gone?: Entry;
  stands: boolean;
  said: string;
  photos: readonly Photo[];
  /** Set where another month begins with it. */
  month?: string;
}

function Line({ tankId, entry, gone, stands, said, photos, month }: LineProps) {
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
        <Acts>
          <AddToLine tankId={tankId} entry={entry} said={said} />
          <InlineButton
            aria-label={`Take back: ${said}`}
            onPress={() => {
              write.mutate({ body: { kind: "withdrawal" }, supersedes: entry.id });
            }}
          >
            Take back
          </InlineButton>
        </Acts>
      )}
      <LinePhotos tankId={tankId} photos={photos} />
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
  const old = time.getFullYear() !== nowDate().getFullYear();
  return time.toLocaleString(LOCALE, {
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
const Acts = styled.span`
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  justify-content: flex-end;
  ${phone} {
    grid-column: 2 / -1;
    justify-content: flex-start;
  }
`;
const Lines = styled.ul`
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
    font-size: 0.9375rem;
  }
  h3 {
    grid-column: 1 / -1;
    font-size: 0.9375rem;
    color: var(--ink-soft);
  }
  li[data-gone] {
    color: var(--ink-soft);
  }
`;
