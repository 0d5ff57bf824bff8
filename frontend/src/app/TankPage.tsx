/** Page of a tank: its stages, the drawing beside the work, and the current stage. */
import { lazy, Suspense, useEffect } from "react";
import { useParams } from "react-router";
import { ProblemError } from "../api/client";
import { followClock } from "../api/clock";
import { standing } from "../api/compute";
import { PracticeTank, usePractice } from "../api/practice";
import { useTables } from "../api/tables";
import { useTank } from "../api/tanks";
import { WaitingPage } from "../kit";
import { NotFetched } from "../shared/NotFetched";
import { NoSuchPage } from "./ErrorPages";
import { AsOf, Page } from "../shared/Page";
import { PracticeBar } from "../practice/PracticeBar";
import type { StageProps } from "../shared/stageProps";
import { UnsavedDrafts } from "../shared/UnsavedDrafts";
import { StageNav } from "./StageNav";
import { isStage, STAGES } from "./stages";

const WORK = {
  tank: lazy(STAGES.tank),
  stock: lazy(STAGES.stock),
  filter: lazy(STAGES.filter),
  fit: lazy(STAGES.fit),
  cycle: lazy(STAGES.cycle),
  keep: lazy(STAGES.keep),
};

export default function TankPage() {
  const params = useParams();
  const tankId = Number(params.tankId);
  const tank = useTank(tankId);
  const tables = useTables();
  const [shown, kept] = [standing(tank), standing(tables)];
  const problem = [tank.error, tables.error].find((e) => e instanceof ProblemError);
  if (!shown || !kept)
    return problem ? (
      <NotFetched problem={problem} onAgain={() => Promise.all([tank.refetch(), tables.refetch()])} />
    ) : (
      <Page>
        <WaitingPage>Fetching the tank…</WaitingPage>
      </Page>
    );
  const stage = params.stage ?? "tank";
  if (!isStage(stage)) return <NoSuchPage />;
  return (
    <Page name={shown.tank.name} nav={<StageNav tankId={tankId} stages={shown.tank.stages} />}>
      <title>{`${shown.tank.name}: ${stage} · Reedmace`}</title>
      {tank.error && <AsOf atMs={tank.dataUpdatedAt} />}
      {shown.fault && (
        <p role="alert">
          The figures of this tank do not agree, so nothing can be worked out from them: {shown.fault} Put it
          right in the Tank stage.
        </p>
      )}
      {shown.tank.practice ? (
        <Practised key={tankId} stage={stage} tankId={tankId} logbook={shown.state} tables={kept} />
      ) : (
        <Work key={tankId} stage={stage} tankId={tankId} logbook={shown.state} tables={kept} />
      )}
    </Page>
  );
}

type WorkProps = StageProps & { stage: keyof typeof WORK };

function Work({ stage, ...props }: WorkProps) {
  const Stage = WORK[stage];
  return (
    <>
      <UnsavedDrafts tankId={props.tankId} stage={stage} plans={props.logbook.plans} />
      <Suspense fallback={<WaitingPage>Turning to it…</WaitingPage>}>
        <Stage {...props} />
      </Suspense>
    </>
  );
}

/** The same on a practice tank: under its clock, and at its time. */
function Practised(props: WorkProps) {
  const practice = usePractice(props.tankId);
  useEffect(
    () => () => {
      followClock(null);
    },
    [],
  );
  if (!practice.data) return <WaitingPage>Fetching the practice tank…</WaitingPage>;
  // Every time written or counted on this page is that of the tank's own clock.
  followClock(practice.data.now);
  return (
    <>
      <PracticeBar key={practice.data.tank_id} practice={practice.data} />
      <PracticeTank value={practice.data}>
        <Work {...props} />
      </PracticeTank>
    </>
  );
}
