/** The buttons that choose: each saves at once, says so, and says where to go next. */
import { Link } from "react-router";
import type { Draft } from "../../api/drafts";
import { useWrite } from "../../api/hooks";
import type { Entry, FilterPlan, FilterPlanIn, FilterView } from "../../api/schemas";
import { Button } from "../../kit";
import { Bar, newFilterKey, SaveBar } from "../shared";

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
      (all, { hung }) => [
        ...all,
        { key: newFilterKey(all), filter: hung.filter, plumbing: draft.value.plumbing },
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
        <Bar>
          <Button
            isDisabled={write.isPending}
            onPress={() => {
              choose(false);
            }}
          >
            {here.length ? `Hang ${shown.name} instead` : `Choose ${shown.name}`}
          </Button>
          {here.length > 0 && (
            <Button
              $quiet
              isDisabled={write.isPending}
              onPress={() => {
                choose(true);
              }}
            >
              Hang it beside {here.length > 1 ? "the others" : here[0]?.filter.name}
            </Button>
          )}
          {here.length > 0 && (
            <Button $quiet onPress={onChosen}>
              Back to what hangs there
            </Button>
          )}
        </Bar>
      )}
      {write.error && !moved && <p role="alert">{write.error.message}</p>}
      {moved && (
        <p role="alert">
          The plan was saved elsewhere since: press again to choose on top of it.{" "}
          <Button
            $quiet
            onPress={() => {
              draft.drop();
              write.reset();
            }}
          >
            Take the saved plan
          </Button>
        </p>
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
