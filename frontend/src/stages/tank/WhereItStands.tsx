/** Situation of the tank and since when; editable at any time, with past dates. */
import { useState } from "react";
import { useWrite } from "../../api/entries";
import type { Body, LogbookState } from "../../api/schemas";
import { Button, InlineButton, PickOne, ProblemNote } from "../../kit";
import { When } from "../../shared/When";
import { SITUATIONS, type Stands } from "../../shared/situations";
import { Bar } from "../../kit";
import { LOCALE } from "../../quantity/locale";

const CHOICES = Object.entries(SITUATIONS).map(([key, { words }]): [Stands, string] => [
  key as Stands,
  words,
]);

interface Props {
  tankId: number;
  said: NonNullable<LogbookState["situation"]> | null;
}

export function WhereItStands({ tankId, said }: Props) {
  const [open, setOpen] = useState(false);
  const body = said?.body.kind === "situation" ? said.body : EMPTY;
  if (open)
    return (
      <SayOtherwise
        tankId={tankId}
        now={body}
        onDone={() => {
          setOpen(false);
        }}
      />
    );
  return (
    <p>
      Where it stands: {SITUATIONS[body.stands].words}
      {body.since != null && `, since ${new Date(body.since).toLocaleDateString(LOCALE)}`}.{" "}
      <InlineButton
        onPress={() => {
          setOpen(true);
        }}
      >
        Say otherwise
      </InlineButton>
    </p>
  );
}

type Situation = Extract<Body, { kind: "situation" }>;
const EMPTY: Situation = { kind: "situation", stands: "empty" };

function SayOtherwise({ tankId, now, onDone }: { tankId: number; now: Situation; onDone: () => void }) {
  const [stands, setStands] = useState<Stands>(now.stands);
  const [since, setSince] = useState<string | null>(now.since ?? null);
  const write = useWrite(tankId);
  const dated = stands === "cycling" || stands === "animals-in" || stands === "running";
  return (
    <>
      <PickOne label="Where it stands" value={stands} onChange={setStands} options={CHOICES} />
      <Bar>
        {dated && <When at={since} onChange={setSince} />}
        <Button
          isDisabled={write.isPending}
          onPress={() => {
            const body: Situation = { kind: "situation", stands, since: dated ? since : null };
            write.mutate({ body }, { onSuccess: onDone });
          }}
        >
          Write it down
        </Button>
        <Button $quiet onPress={onDone}>
          Leave it
        </Button>
      </Bar>
      <ProblemNote problem={write.error} />
    </>
  );
}
