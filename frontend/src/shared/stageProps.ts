import type { LogbookState, Tables } from "../api/schemas";

/** Props of a stage. */
export interface StageProps {
  tankId: number;
  logbook: LogbookState;
  tables: Tables;
}
