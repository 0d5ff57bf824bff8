/** A practice cycle while its coach is silent: the tests and what was done, no advice and no forecast. */
import { usePracticeTank } from "../../api/practice";
import type { CycleState } from "../../api/schemas";
import { Verdict } from "../../kit";
import { useNarrow } from "../../kit/usePhone";
import { NewEntry } from "../../shared/NewEntry";
import type { StageProps } from "../../shared/stageProps";
import { DrawingHere } from "../../shared/TwoColumns";
import { LogTest } from "./LogTest";
import { TestsBook } from "./TestsBook";

/** Whether advice is held back: until the end, or while nothing goes wrong. */
export function useSilentCoach(state: CycleState | undefined): boolean {
  const coach = usePracticeTank()?.coach ?? "beside";
  if (coach !== "when-wrong") return coach === "silent";
  return !(state?.advice?.stalled || state?.emergency?.in_danger);
}

export function Unadvised({ tankId, logbook, tables, netL }: StageProps & { netL?: number }) {
  const narrow = useNarrow();
  const coach = usePracticeTank()?.coach;
  return (
    <>
      <Verdict>What would you do?</Verdict>
      <p>
        {coach === "silent"
          ? "The coach is silent until the end."
          : "The coach speaks only when something goes wrong."}{" "}
        Test, judge, and write down what you do.
      </p>
      {narrow && <LogTest tankId={tankId} logbook={logbook} />}
      <DrawingHere />
      <NewEntry tankId={tankId} netL={netL} logbook={logbook} tables={tables} />
      <TestsBook tankId={tankId} logbook={logbook} />
    </>
  );
}
