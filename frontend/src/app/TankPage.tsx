/** One tank: its stages, the section beside the work, and the stage in hand. */
import { useParams } from "react-router";
import { ProblemError } from "../api/client";
import { standing, useTables, useTank } from "../api/hooks";
import type { Stage } from "../api/schemas";
import { ProblemNote, Waiting } from "../kit";
import { CycleStage } from "../stages/cycle/CycleStage";
import { FilterStage } from "../stages/filter/FilterStage";
import { FitStage } from "../stages/fit/FitStage";
import { KeepStage } from "../stages/keep/KeepStage";
import type { StageProps } from "../stages/shared";
import { StockStage } from "../stages/stock/StockStage";
import { TankStage } from "../stages/tank/TankStage";
import { NoSuchPage } from "./Mishaps";
import { AsOf, Page } from "./Page";
import { StageNav } from "./StageNav";

const STAGES: Record<Stage["stage"], (props: StageProps) => React.ReactNode> = {
  tank: TankStage,
  stock: StockStage,
  filter: FilterStage,
  fit: FitStage,
  cycle: CycleStage,
  keep: KeepStage,
};

function isStage(stage: string): stage is Stage["stage"] {
  return stage in STAGES;
}

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
  const Work = STAGES[stage];
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
      <Work key={tankId} tankId={tankId} logbook={shown.state} tables={kept} />
    </Page>
  );
}
