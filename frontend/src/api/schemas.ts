/** Short names for the generated types, and which question each computation takes. */
import type { components } from "./types";

type Schemas = components["schemas"];
export type TankOut = Schemas["TankOut"];
export type TankState = Schemas["TankState"];
export type Standing = Schemas["Standing"];
export type Stage = Schemas["Stage"];
export type Entry = Schemas["Entry"];
export type NewEntry = Schemas["NewEntry"];
export type Body = NewEntry["body"];
export type Species = Schemas["Species"];
export type Filter = Schemas["Filter"];
export type Tables = Schemas["Tables"];
export type Animals = Schemas["Animals"];
export type TankPlan = Schemas["TankPlan"];
export type StockPlan = Schemas["StockPlan"];
export type FilterPlan = Schemas["FilterPlan"];
export type CyclePlan = Schemas["CyclePlan"];
export type Reading = Schemas["Reading"];
export type Plumbing = Schemas["Plumbing"];
export type Priorities = Schemas["Priorities"];
export type WorkingLine = Schemas["WorkingLine"];
export type Action = Schemas["Action"];
export type CycleState = Schemas["CycleState"];
export type CycleForecast = Schemas["CycleForecastAnswer"];
export type CycleLog = Schemas["CycleLog"];
export type TankVolume = Schemas["TankVolumeAnswer"];
export type OperatingPoint = Schemas["OperatingPointAnswer"];
export type FlowRequirement = Schemas["FlowRequirementAnswer"];
export type Candidate = Schemas["Candidate"];
export type Excluded = Schemas["Excluded"];
export type FittingStep = Schemas["Step"];
export type SessionState = Schemas["SessionState"];
export type TodayRow = Schemas["TodayRow"];
export type AmmoniaProduct = CyclePlan["product"];

export interface Computations {
  "tank-volume": [Schemas["TankVolumeQuestion"], Schemas["TankVolumeAnswer"]];
  "waste-load": [Schemas["WasteLoadQuestion"], Schemas["WasteLoadAnswer"]];
  "flow-requirement": [Schemas["FlowRequirementQuestion"], Schemas["FlowRequirementAnswer"]];
  "operating-point": [Schemas["OperatingPointQuestion"], Schemas["OperatingPointAnswer"]];
  "airlift-flow": [Schemas["AirliftQuestion"], Schemas["AirliftAnswer"]];
  "rank-filters": [Schemas["RankFiltersQuestion"], Schemas["RankFiltersAnswer"]];
  "running-cost": [Schemas["RunningCostQuestion"], Schemas["RunningCostAnswer"]];
  "fitting-steps": [Schemas["FittingStepsQuestion"], Schemas["FittingStepsAnswer"]];
  "bucket-test": [Schemas["BucketTestQuestion"], Schemas["BucketTestAnswer"]];
  "ammonia-dose": [Schemas["AmmoniaDoseQuestion"], Schemas["AmmoniaDoseAnswer"]];
  "un-ionised-ammonia": [Schemas["UnIonisedQuestion"], Schemas["UnIonisedAnswer"]];
  "read-quantity": [Schemas["ReadQuantityQuestion"], Schemas["ReadQuantityAnswer"]];
  "read-test-line": [Schemas["ReadTestLineQuestion"], Schemas["ReadTestLineAnswer"]];
}
export type ComputeName = keyof Computations;
export type QuestionOf<N extends ComputeName> = Computations[N][0];
export type AnswerOf<N extends ComputeName> = Computations[N][1];
