/** The keeper's own kit: the steps printed on it. */
import type { KitPlan, KitSteps, LogbookState } from "../../api/schemas";

/** Steps most colour kits have; stated, and the keeper's own replace them. */
const USUAL: Required<KitSteps> = {
  basis: "ion",
  ammonia_ppm: [0, 0.25, 0.5, 1, 2, 4, 8],
  nitrite_ppm: [0, 0.25, 0.5, 1, 2, 5],
  nitrate_ppm: [0, 5, 10, 20, 40, 80, 160],
  kh_step_dkh: 1,
  expired: false,
};

export function kitPlan(logbook: LogbookState): KitPlan {
  const body = logbook.kit_plan?.body;
  return body?.kind === "kit-plan" ? body : FRESH;
}

export function kitSteps(logbook: LogbookState): Required<KitSteps> {
  return { ...USUAL, ...kitPlan(logbook).kit };
}

const FRESH: KitPlan = { kind: "kit-plan", kit: USUAL };
