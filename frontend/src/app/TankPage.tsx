/** One tank: its stages, the section beside the work, and the stage in hand. */
import { useParams } from "react-router";
import { ProblemError } from "../api/client";
import { useTables, useTank } from "../api/hooks";
import type { Stage } from "../api/schemas";
import { ProblemNote, Waiting } from "../kit";
import { CycleStage } from "../stages/cycle/CycleStage";
import { FilterStage } from "../stages/filter/FilterStage";
import { FitStage } from "../stages/fit/FitStage";
import { KeepStage } from "../stages/keep/KeepStage";
import type { StageProps } from "../stages/shared";
import { StockStage } from "../stages/stock/StockStage";
import { TankStage } from "../stages/tank/TankStage";
import { Page } from "./Page";
import { StageNav } from "./StageNav";

const STAGES: Record<Stage["stage"], (props: StageProps) => React.ReactNode> = {
  tank: TankStage,
  stock: StockStage,
  filter: FilterStage,
  fit: FitStage,
  cycle: CycleStage,
  keep: KeepStage,
};

export default function TankPage() {
  const params = useParams();
  const tankId = Number(params.tankId);
  const tank = useTank(tankId);
  const tables = useTables();
  const problem = [tank.error, tables.error].find((e) => e instanceof ProblemError);
  if (problem)
    return (
      <Page>
        <ProblemNote problem={problem} />
      </Page>
    );
  if (!tank.data || !tables.data)
    return (
      <Page>
        <Waiting>Fetching the tank…</Waiting>
      </Page>
    );
  const Work = STAGES[(params.stage ?? "tank") as Stage["stage"]];
  const stages = tank.data.tank.stages;
  return (
    <Page name={tank.data.tank.name} nav={<StageNav tankId={tankId} stages={stages} />}>
      <title>{`${tank.data.tank.name}: ${params.stage ?? "tank"} · Reedmace`}</title>
      {tank.data.fault && (
        <p role="alert">
          The figures of this tank do not agree, so nothing can be worked out from them: {tank.data.fault} Put
          it right in the Tank stage.
        </p>
      )}
      <Work key={tankId} tankId={tankId} logbook={tank.data.state} tables={tables.data} />
    </Page>
  );
}
