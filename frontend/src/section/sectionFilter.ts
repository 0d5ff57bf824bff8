import type { Filter, FittingPlan } from "../api/schemas";

/** A filter as the section draws it. */
export interface SectionFilter {
  key: string;
  filter: Filter;
  /** Its fitting plan: positions of its parts and runs. */
  fitting?: FittingPlan;
}
