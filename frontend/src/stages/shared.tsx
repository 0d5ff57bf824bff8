/** Shared by all stages: props, two-column layout, and the save bar of a plan. */
import type { ReactNode } from "react";
import { styled } from "styled-components";
import type { Difference } from "../api/client";
import type { Draft } from "../api/drafts";
import { useWrite } from "../api/hooks";
import type { Body, Entry, FilterPlan, LogbookState, Tables } from "../api/schemas";
import { Button, ProblemNote, Waiting } from "../kit";
import { useNarrow } from "../kit/usePhone";
import type { SectionFilter } from "../section/sectionFilter";

export interface StageProps {
  tankId: number;
  logbook: LogbookState;
  tables: Tables;
}

/** Installed filters, as the drawing takes them. */
export function hanging(plan: FilterPlan): SectionFilter[] {
  return plan.filters.filter((f) => !f.retired).map(({ key, filter }) => ({ key, filter }));
}

/** A key no filter of this tank ever had. */
export function newFilterKey(filters: { key: string }[]): string {
  const numbers = filters.map((f) => Number(/^f(\d+)$/.exec(f.key)?.[1] ?? 0));
  return `f${Math.max(0, ...numbers) + 1}`;
}

interface TwoColumnsProps {
  drawing: ReactNode;
  /** Under the drawing on a wide screen, after the work on a phone. */
  beside?: ReactNode;
  /** Placeholder while the first answer is loading, so that nothing shifts a moment later. */
  opening?: string;
  children: ReactNode;
}

export function TwoColumns({ drawing, beside: below, opening, children: work }: TwoColumnsProps) {
  const narrow = useNarrow();
  const children = opening ? <Waiting>{opening}</Waiting> : work;
  const beside = opening ? undefined : below;
  // In reading order: left column, then right; stacked on a phone.
  return narrow ? (
    <Split>
      <div className="drawing">{drawing}</div>
      <div className="work">{children}</div>
      {beside && <div>{beside}</div>}
    </Split>
  ) : (
    <Split data-wide>
      <div>
        {drawing}
        {beside}
      </div>
      <div className="work">{children}</div>
    </Split>
  );
}

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px 30px;
  > div {
    display: grid;
    align-content: start;
    gap: 14px;
    min-width: 0;
  }
  .drawing {
    max-width: 560px;
  }
  &[data-wide] {
    grid-template-columns: minmax(0, 560px) minmax(0, 1fr);
  }
  /* The section stays visible beside longer work; content beneath it scrolls behind it. */
  &[data-wide] > div > figure:first-child {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--paper);
    padding: 6px 0;
    margin: -6px 0;
  }
  @media print {
    &[data-wide] > div > figure:first-child {
      position: static;
    }
  }
`;

interface SaveBarProps<T extends Body> {
  tankId: number;
  draft: Draft<T>;
  words: string;
  /** The saved plan, shown beside the draft when another tab saved first. */
  describe: (body: T) => string;
  extra?: ReactNode;
  /** The draft is inconsistent: it is stored on this device, but not saved. */
  blocked?: boolean;
}

/** Save a draft; when another tab saved first, both are shown and the keeper chooses. */
export function SaveBar<T extends Body>({
  tankId,
  draft,
  words,
  describe,
  extra,
  blocked = false,
}: SaveBarProps<T>) {
  const write = useWrite(tankId);
  const save = async (basedOn: number | null) => {
    await write.mutateAsync({ body: draft.value, basedOn });
    draft.drop();
  };
  const conflict = write.error?.status === 409 ? (write.error.current as Entry | null) : null;
  return (
    <>
      {conflict ? (
        <ProblemNote problem={write.error}>
          <p>
            <b>Saved there:</b> {describe(conflict.body as T)}
          </p>
          <p>
            <b>Typed here:</b> {describe(draft.value)}
          </p>
          <Differences all={write.error?.differences ?? []} />
          <Bar>
            <Button onPress={() => void save(conflict.id).catch(() => undefined)}>Keep mine</Button>
            <Button
              $quiet
              onPress={() => {
                draft.drop();
                write.reset();
              }}
            >
              Take theirs
            </Button>
          </Bar>
        </ProblemNote>
      ) : (
        <ProblemNote problem={write.error} />
      )}
      <Bar>
        <Button
          isDisabled={!draft.dirty || write.isPending || blocked}
          onPress={() => void save(draft.basedOn).catch(() => undefined)}
        >
          {words}
        </Button>
        {draft.dirty && (
          <Button $quiet onPress={draft.drop}>
            Undo changes
          </Button>
        )}
        {extra}
        <span role="status">
          {draft.dirty ? "Not saved yet; kept on this device." : "Saved in the logbook."}
        </span>
      </Bar>
    </>
  );
}

/** Two versions of a plan, field by field, including fields without a form here. */
function Differences({ all }: { all: Difference[] }) {
  if (all.length === 0) return <p>They say the same.</p>;
  return (
    <Compared>
      <thead>
        <tr>
          <th scope="col">Not the same</th>
          <th scope="col">Saved there</th>
          <th scope="col">Typed here</th>
        </tr>
      </thead>
      <tbody>
        {all.map(({ field, theirs, mine }) => (
          <tr key={field}>
            <th scope="row">{field}</th>
            <td>{theirs}</td>
            <td>{mine}</td>
          </tr>
        ))}
      </tbody>
    </Compared>
  );
}

const Compared = styled.table`
  border-collapse: collapse;
  margin: 8px 0;
  th {
    text-align: left;
    font-weight: 600;
  }
  th,
  td {
    padding: 3px 18px 3px 0;
    border-bottom: 1px solid var(--line);
    vertical-align: top;
  }
`;

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  > span {
    color: var(--ink-soft);
    font-size: 15px;
  }
`;

export const Facts = styled.dl`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
  dt {
    font-size: 14.5px;
    color: var(--ink-soft);
  }
  dd {
    font-size: 19px;
    font-weight: 600;
  }
  small {
    font-weight: 400;
    font-size: 14.5px;
    color: var(--ink-soft);
  }
`;

export const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(270px, 1fr));
  gap: 14px 26px;
  align-items: start;
  > * {
    min-width: 0;
  }
`;
