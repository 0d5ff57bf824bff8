/** Page of a tank: its stages, the drawing beside the work, and the current stage. */
import { lazy, Suspense } from "react";
import { useParams } from "react-router";
import { ProblemError } from "../api/client";
import { standing } from "../api/compute";
import { useTables } from "../api/tables";
import { useTank } from "../api/tanks";
import { ProblemNote, Waiting } from "../kit";
import { NoSuchPage } from "./ErrorPages";
import { AsOf, Page } from "../shared/Page";
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
    return <Page>{problem ? <ProblemNote problem={problem} /> : <Waiting>Fetching the tank…</Waiting>}</Page>;
  const stage = params.stage ?? "tank";
  if (!isStage(stage)) return <NoSuchPage />;
  const Work = WORK[stage];
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
      <Suspense fallback={<Waiting>Turning to it…</Waiting>}>
        <Work key={tankId} tankId={tankId} logbook={shown.state} tables={kept} />
      </Suspense>
    </Page>
  );
}
