/** Save bar of a plan, with the choice on a conflict. */
import { styled } from "styled-components";
import type { Difference } from "../api/client";
import type { Draft } from "../api/drafts";
import { useWrite } from "../api/entries";
import type { Body, Entry } from "../api/schemas";
import { Bar, Button, ProblemNote } from "../kit";
import { NextStep } from "./NextStep";

interface SaveBarProps<T extends Body> {
  tankId: number;
  draft: Draft<T>;
  words: string;
  /** The saved plan, shown beside the draft when another tab saved first. */
  describe: (body: T) => string;
  /** Nothing was saved before, so that there is nothing to go back to. */
  fresh?: boolean;
  /** The draft is inconsistent: it is stored on this device, but not saved. */
  blocked?: boolean;
}

/** Save a draft; when another tab saved first, both are shown and the keeper chooses. */
export function SaveBar<T extends Body>({
  tankId,
  draft,
  words,
  describe,
  fresh = false,
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
        {!draft.dirty && <NextStep tankId={tankId} />}
        {draft.dirty && (
          <>
            <Button
              isDisabled={write.isPending || blocked}
              onPress={() => void save(draft.basedOn).catch(() => undefined)}
            >
              {words}
            </Button>
            {!fresh && (
              <Button $quiet onPress={draft.drop}>
                Undo changes
              </Button>
            )}
          </>
        )}
        <span role="status">{standing(draft.dirty, fresh)}</span>
      </Bar>
    </>
  );
}

function standing(dirty: boolean, fresh: boolean): string {
  if (!dirty) return "Saved in the logbook.";
  return fresh ? "" : "Not saved yet; kept on this device.";
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
