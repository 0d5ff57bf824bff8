/** The stages of a tank, each a lazily loaded chunk. */
import type { ComponentType } from "react";
import type { Stage } from "../api/schemas";
import type { StageProps } from "../shared/stageProps";

type Name = Stage["stage"];

export const STAGES: Record<Name, () => Promise<{ default: ComponentType<StageProps> }>> = {
  tank: () => import("../stages/tank/TankStage"),
  stock: () => import("../stages/stock/StockStage"),
  filter: () => import("../stages/filter/FilterStage"),
  fit: () => import("../stages/fit/FitStage"),
  cycle: () => import("../stages/cycle/CycleStage"),
  keep: () => import("../stages/keep/KeepStage"),
};

export function isStage(name: string | undefined): name is Name {
  return name !== undefined && name in STAGES;
}
