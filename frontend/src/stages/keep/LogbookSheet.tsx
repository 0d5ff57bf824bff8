/** Printed logbook: every valid entry, by month, as far back as requested. */
import { nowMs } from "../../api/clock";
import { useEffect, useState, type ReactNode } from "react";
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { ProblemError } from "../../api/client";
import { useLogbookPages, useTank } from "../../api/tanks";
import { useTables } from "../../api/tables";
import type { Entry, Tables } from "../../api/schemas";
import { Page } from "../../shared/Page";
import { Button, ProblemNote, Select, Verdict, Waiting } from "../../kit";
import { Bar } from "../../kit";
import { LinePhotos, usePhotosByLine } from "./EntryPhotos";
import { monthOf, words } from "../../shared/entryWords";
import { LOCALE } from "../../quantity/locale";

const BACK = [
  ["1", "the last month"],
  ["3", "the last three months"],
  ["12", "the last year"],
  ["", "all of it"],
] as const;
type Months = (typeof BACK)[number][0];

export default function LogbookSheet() {
  const tankId = Number(useParams().tankId);
  const name = useTank(tankId).data?.tank.name;
  const tables = useTables().data;
  const [months, setMonths] = useState<Months>("3");
  const { entries, replaced, waiting, problem } = useSince(tankId, months);
  const photos = usePhotosByLine(tankId);
  const standing = entries.filter((e) => !replaced.has(e.id) && e.body.kind !== "withdrawal");
  return (
    <Page name={name}>
      <title>{`${name ?? "Tank"}: logbook · Reedmace`}</title>
      <Sheet>
        <Verdict>{name}: the logbook</Verdict>
        <Bar className="screen-only">
          <Select label="How far back" value={months} onChange={setMonths} options={BACK} />
          <Button
            isDisabled={waiting}
            onPress={() => {
              window.print();
            }}
          >
            Print
          </Button>
          <Link to={`/tanks/${tankId}/keep`}>Back to Keep</Link>
        </Bar>
        {waiting && <Waiting>Opening the logbook…</Waiting>}
        <ProblemNote problem={problem} />
        {!waiting && standing.length === 0 && <p>Nothing is written in that time.</p>}
        {byMonth(standing).map(([month, lines]) => (
          <section key={month}>
            <h2>{month}</h2>
            <Lines>
              {lines.map((e) => (
                <Line key={e.id} entry={e} tables={tables}>
                  <LinePhotos tankId={tankId} photos={photos.get(e.key) ?? []} />
                </Line>
              ))}
            </Lines>
          </section>
        ))}
        {photos.has("") && (
          <section>
            <h2>Photographs of no one line</h2>
            <LinePhotos tankId={tankId} photos={photos.get("") ?? []} />
          </section>
        )}
      </Sheet>
    </Page>
  );
}

interface LineProps {
  entry: Entry;
  tables: Tables | undefined;
  children: ReactNode;
}

function Line({ entry, tables, children }: LineProps) {
  return (
    <li>
      <time dateTime={entry.at}>
        {new Date(entry.at).toLocaleString(LOCALE, { day: "numeric", hour: "2-digit", minute: "2-digit" })}
      </time>
      <span>
        {tables && words(entry.body, tables)}
        {entry.who ? `, by ${entry.who}` : ""}
      </span>
      {children}
    </li>
  );
}

/** Every entry of the last months: older pages are fetched until complete. */
function useSince(tankId: number, months: Months) {
  const pages = useLogbookPages(tankId, { kind: "", search: "" });
  const since = months === "" ? 0 : nowMs() - Number(months) * 30.44 * 86_400_000;
  const found = pages.data?.pages ?? [];
  const all = found.flatMap((page) => page.entries);
  const { hasNextPage, isFetchingNextPage, fetchNextPage } = pages;
  const oldest = all.at(-1);
  const more = hasNextPage && oldest !== undefined && new Date(oldest.written_at).getTime() >= since;
  useEffect(() => {
    if (more && !isFetchingNextPage) void fetchNextPage();
  }, [more, isFetchingNextPage, fetchNextPage]);
  return {
    entries: all.filter((e) => new Date(e.at).getTime() >= since),
    replaced: new Set(found.flatMap((page) => page.replacing).map((e) => e.supersedes)),
    waiting: pages.isPending || more,
    problem: pages.error instanceof ProblemError ? pages.error : null,
  };
}

function byMonth(entries: Entry[]): [string, Entry[]][] {
  const found = new Map<string, Entry[]>();
  const sorted = [...entries].sort((a, b) => b.at.localeCompare(a.at));
  for (const e of sorted) {
    const month = monthOf(e.at);
    found.set(month, [...(found.get(month) ?? []), e]);
  }
  return [...found];
}

const Sheet = styled.div`
  display: grid;
  gap: 12px;
  max-width: 760px;
  h2 {
    break-after: avoid;
  }
`;
const Lines = styled.ul`
  li {
    display: grid;
    grid-template-columns: 96px minmax(0, 1fr);
    gap: 10px;
    padding: 2px 0;
    border-bottom: 1px solid var(--line);
    break-inside: avoid;
  }
  time {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
`;
