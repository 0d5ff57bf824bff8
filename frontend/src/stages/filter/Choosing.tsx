/** Buttons that choose a filter: each saves at once, confirms, and names the next step. */
import { Link } from "react-router";
import type { Draft } from "../../api/drafts";
import { useWrite } from "../../api/entries";
import type { Entry, FilterPlan, FilterPlanIn, FilterView } from "../../api/schemas";
import { Button } from "../../kit";
import { Bar } from "../../kit";
import { newFilterKey } from "../../shared/installedFilters";
import { SaveBar } from "../../shared/SaveBar";

interface Props {
  tankId: number;
  draft: Draft<FilterPlan>;
  view: FilterView;
  onChosen: () => void;
}

export function Choosing({ tankId, draft, view, onChosen }: Props) {
  const write = useWrite(tankId);
  const { shown } = view;
  const here = draft.value.filters.filter((f) => !f.retired);
  const choose = (beside: boolean) => {
    if (!shown) return;
    const kept = draft.value.filters.map((f) => (beside ? f : { ...f, retired: true }));
    const filters = shown.filters.reduce<NonNullable<FilterPlanIn["filters"]>>(
      (all, { installed }) => [
        ...all,
        { key: newFilterKey(all), filter: installed.filter, plumbing: draft.value.plumbing },
      ],
      kept,
    );
    write.mutate(
      { body: { ...draft.value, filters }, basedOn: draft.basedOn },
      {
        onSuccess: () => {
          draft.drop();
          onChosen();
        },
      },
    );
  };
  const offered = shown && !shown.chosen;
  const moved = write.error?.status === 409 ? (write.error.current as Entry | null) : null;
  return (
    <>
      {offered && (
        <Offered
          name={shown.name}
          here={here.map((f) => f.filter.name)}
          waiting={write.isPending}
          onChoose={choose}
          onBack={onChosen}
        />
      )}
      {write.error && (
        <Refused
          message={moved ? null : write.error.message}
          onTake={() => {
            draft.drop();
            write.reset();
          }}
        />
      )}
      {!offered && here.length > 0 && !draft.dirty && (
        <p role="status">
          Saved in the logbook. Next: <Link to={`/tanks/${tankId}/fit`}>fit it, step by step</Link>, or{" "}
          <Link to={`/tanks/${tankId}/buying`}>what to buy</Link>.
        </p>
      )}
      {draft.dirty && (
        <SaveBar
          tankId={tankId}
          draft={draft}
          words="Save what was changed"
          describe={(b) =>
            b.filters
              .filter((f) => !f.retired)
              .map((f) => f.filter.name)
              .join(" and ") || "no filter chosen"
          }
        />
      )}
    </>
  );
}

interface OfferedProps {
  name: string;
  /** Names of the installed filters. */
  here: string[];
  waiting: boolean;
  onChoose: (beside: boolean) => void;
  onBack: () => void;
}

function Offered({ name, here, waiting, onChoose, onBack }: OfferedProps) {
  const [first] = here;
  return (
    <Bar>
      <Button
        isDisabled={waiting}
        onPress={() => {
          onChoose(false);
        }}
      >
        {first ? `Hang ${name} instead` : `Choose ${name}`}
      </Button>
      {first && (
        <>
          <Button
            $quiet
            isDisabled={waiting}
            onPress={() => {
              onChoose(true);
            }}
          >
            Hang it beside {here.length > 1 ? "the others" : first}
          </Button>
          <Button $quiet onPress={onBack}>
            Back to what hangs there
          </Button>
        </>
      )}
    </Bar>
  );
}

/** message: why it was rejected; null when the plan was saved elsewhere since. */
function Refused({ message, onTake }: { message: string | null; onTake: () => void }) {
  if (message !== null) return <p role="alert">{message}</p>;
  return (
    <p role="alert">
      The plan was saved elsewhere since: press again to choose on top of it.{" "}
      <Button $quiet onPress={onTake}>
        Take the saved plan
      </Button>
    </p>
  );
}
