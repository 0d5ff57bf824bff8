/** What was typed in another stage and not saved, which this page therefore leaves out. */
import { useReducer } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { dropDraft, readDraft } from "../api/drafts";
import { useWrite } from "../api/entries";
import type { LogbookState, Stage } from "../api/schemas";
import { InlineButton, ProblemNote } from "../kit";

type Plans = LogbookState["plans"];

interface DraftPart {
  part: Exclude<keyof Plans, "assumed">;
  stage: Stage["stage"];
  what: string;
}

const PARTS: DraftPart[] = [
  { part: "tank", stage: "tank", what: "the tank" },
  { part: "stock", stage: "stock", what: "the animals" },
  { part: "filter", stage: "filter", what: "the filter" },
  { part: "fit", stage: "fit", what: "where its parts go" },
  { part: "cycle", stage: "cycle", what: "the cycle" },
  { part: "kit", stage: "cycle", what: "the steps of your kit" },
];

interface UnsavedDraftsProps {
  tankId: number;
  stage: Stage["stage"];
  plans: Plans;
}

export function UnsavedDrafts({ tankId, stage, plans }: UnsavedDraftsProps) {
  const [, onSaved] = useReducer((count: number) => count + 1, 0);
  return PARTS.filter((p) => p.stage !== stage && readDraft(tankId, p.part, plans[p.part])).map((p) => (
    <Unsaved key={p.part} tankId={tankId} plans={plans} {...p} onSaved={onSaved} />
  ));
}

interface UnsavedProps extends UnsavedDraftsProps, DraftPart {
  onSaved: () => void;
}

function Unsaved({ tankId, part, stage, what, plans, onSaved }: UnsavedProps) {
  const write = useWrite(tankId);
  const save = async () => {
    const draft = readDraft(tankId, part, plans[part]);
    if (draft) await write.mutateAsync({ body: draft.value, basedOn: draft.basedOn });
    dropDraft(tankId, part);
    onSaved();
  };
  return (
    <Note role="status">
      Your changes to {what} are not saved yet, and not counted here.{" "}
      <InlineButton isDisabled={write.isPending} onPress={() => void save().catch(() => undefined)}>
        Save them
      </InlineButton>{" "}
      or <Link to={`/tanks/${tankId}/${stage}`}>look again</Link>.
      <ProblemNote problem={write.error} />
    </Note>
  );
}

const Note = styled.div`
  margin: 4px 0 8px;
  padding: 6px 12px;
  background: var(--seed-fill);
`;
