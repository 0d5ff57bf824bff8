/** What stands where data could not be fetched: what happened, a press to ask again, and a way on. */
import { Link } from "react-router";
import { ProblemError } from "../api/client";
import { Bar, Button, ProblemNote, WaitingPage } from "../kit";
import { Page } from "./Page";

/** A page of which nothing could be fetched. */
export function NotFetched(props: FaultProps) {
  return (
    <Page>
      <Fault {...props} heads />
    </Page>
  );
}

interface FaultProps {
  problem: ProblemError;
  onAgain: () => unknown;
}

/** The opening of a page: waits for all that is asked, or says what could not be fetched. Nothing once all is there. */
export function Opening({ asked, children }: { asked: Asked[]; children: string }) {
  const failed = asked.find((one) => one.error instanceof ProblemError);
  // One that was fetched before may fail anew while another was never there: then nothing else heads the page.
  const missing = asked.some((one) => one.data === undefined);
  if (failed) return <FetchProblem asked={failed} heads={missing} />;
  return missing ? <WaitingPage>{children}</WaitingPage> : null;
}

interface Asked {
  data?: unknown;
  error: unknown;
  refetch: () => unknown;
}

/** The same inside a page: its heading where nothing else is (`heads`), else a note. Nothing without a problem. */
export function FetchProblem({ asked, heads = asked.data === undefined }: { asked: Asked; heads?: boolean }) {
  if (!(asked.error instanceof ProblemError)) return null;
  return <Fault problem={asked.error} onAgain={asked.refetch} heads={heads} />;
}

function Fault({ problem, onAgain, heads }: FaultProps & { heads: boolean }) {
  return (
    <ProblemNote problem={problem} heads={heads}>
      <Bar>
        <Button
          onPress={() => {
            onAgain();
          }}
        >
          Try again
        </Button>
        <Link to="/today">Today</Link>
        <Link to="/help">Help</Link>
      </Bar>
    </ProblemNote>
  );
}
