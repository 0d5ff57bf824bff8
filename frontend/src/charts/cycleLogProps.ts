import type { CycleForecast, CycleLog as Log } from "../api/schemas";
import type { KitPpm } from "../quantity/ppm";

/** Props of the charts over a cycle's log. */
export interface CycleLogProps {
  log: Log;
  forecast: CycleForecast;
  share: KitPpm;
  /** Whether it is ready already, so that no date is shown. Default: not. */
  passed?: boolean;
  dateOf: (day: number) => string;
}
