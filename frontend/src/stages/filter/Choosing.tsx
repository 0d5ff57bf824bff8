/** Buttons that choose a filter: each saves at once, confirms, and names the next step. */
import { Link, useNavigate } from "react-router";
import type { Draft } from "../../api/drafts";
import { useWrite } from "../../api/entries";
import type { Entry, FilterPlan, FilterPlanIn, FilterView, Together } from "../../api/schemas";
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
  const typical = shown !== null && isPlanned(shown);
  const planned = replacesPlanned(view);
  const choose = (beside: boolean) => {
    if (!shown) return;
    const filters = planned ? bought(draft.value, shown) : added(draft.value, shown, beside);
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
          typical={typical}
          planned={planned}
          here={here.map((f) => f.filter.name)}
          tooMany={view.ranking.too_many != null}
          stock={`/tanks/${tankId}/stock`}
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
      {!offered && here.length > 0 && !draft.dirty && <Saved tankId={tankId} view={view} />}
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

/** What is saved, and where to go next. */
function Saved({ tankId, view }: Pick<Props, "tankId" | "view">) {
  const hanging = view.hanging?.filters ?? [];
  const ran = hanging.filter((f) => f.ran_before);
  const planned = view.hanging !== null && isPlanned(view.hanging);
  if (hanging.length > 0 && ran.length === hanging.length)
    return (
      <p role="status">
        Saved in the logbook.{" "}
        {planned && "Its figures are those usual for its kind and size, until its label is kept. "}
        Next: <Link to={`/tanks/${tankId}/keep`}>what is due</Link>; or look at another below, and hang it
        beside.
      </p>
    );
  return (
    <p role="status">
      Saved in the logbook.{" "}
      {planned &&
        "It is a usual box of this kind and size: when yours is bought, keep its label and press it, and its figures take this one’s place. "}
      Next: <Link to={`/tanks/${tankId}/fit`}>fit it, step by step</Link>, or{" "}
      <Link to={`/tanks/${tankId}/buying`}>what to buy</Link>.
      {hanging.length > 1 && (
        <>
          {" "}
          Is one to take the other’s place?{" "}
          <Link to={`/tanks/${tankId}/fit?replace`}>When the old one may come off</Link>.
        </>
      )}
    </p>
  );
}

function isPlanned(set: Together): boolean {
  return set.filters.every((f) => f.typical);
}

/** Whether a real box is looked at beside one that is only planned: then hoses, media and steps stay. */
function replacesPlanned({ shown, hanging }: FilterView): boolean {
  if (!shown || !hanging || isPlanned(shown) || !isPlanned(hanging)) return false;
  return shown.filters.length === 1 && hanging.filters.length === 1;
}

type Filters = NonNullable<FilterPlanIn["filters"]>;

/** The plan's filters with those shown, beside what hangs or in its place. */
function added(plan: FilterPlan, shown: Together, beside: boolean): Filters {
  const kept: Filters = plan.filters.map((f) => (beside ? f : { ...f, retired: true }));
  return shown.filters.reduce<Filters>(
    (all, { installed }) => [
      ...all,
      { key: newFilterKey(all), filter: installed.filter, plumbing: plan.plumbing },
    ],
    kept,
  );
}

/** The planned one with the figures of the box bought. */
function bought(plan: FilterPlan, shown: Together): Filters {
  const [real] = shown.filters;
  return plan.filters.map((f) =>
    real && !f.retired ? { ...f, filter: real.installed.filter, owned: true } : f,
  );
}

interface OfferedProps {
  name: string;
  /** Whether it is a usual box of its kind and size, not one that somebody sells. */
  typical: boolean;
  /** Whether it takes the place of one that was only planned. */
  planned: boolean;
  /** Names of the installed filters. */
  here: string[];
  /** Whether the animals are too many whatever the filter: then they come first. */
  tooMany: boolean;
  /** Address of the Stock stage. */
  stock: string;
  waiting: boolean;
  onChoose: (beside: boolean) => void;
  onBack: () => void;
}

function Offered({ name, typical, planned, here, tooMany, stock, waiting, onChoose, onBack }: OfferedProps) {
  const [first] = here;
  const navigate = useNavigate();
  return (
    <Bar>
      {tooMany && (
        <Button
          onPress={() => {
            void navigate(stock);
          }}
        >
          Change the animals
        </Button>
      )}
      <Button
        $quiet={tooMany}
        isDisabled={waiting}
        onPress={() => {
          onChoose(false);
        }}
      >
        {wordsOf(name, first, { typical, planned })}
      </Button>
      {first && !planned && (
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

function wordsOf(
  name: string,
  first: string | undefined,
  { typical, planned }: Pick<OfferedProps, "typical" | "planned">,
) {
  if (planned) return `I have bought ${name}`;
  if (typical) return first ? "Plan with it instead" : "Plan with it until one is bought";
  return first ? `Hang ${name} instead` : `Choose ${name}`;
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
