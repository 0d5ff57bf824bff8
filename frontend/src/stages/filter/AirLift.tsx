/** Air and water flow of an air lift, in a sentence. */
import type { EquippedFilter } from "../../api/schemas";
import { Figure, Lead } from "../../kit";
import { bare, show } from "../../quantity/format";

export function AirLift({ installed }: { installed: EquippedFilter }) {
  const lift = installed.flow.lifted;
  const bore = installed.filter.tube_bore_mm;
  if (!lift || bore === null) return null;
  return (
    <>
      <h2>What the air lifts</h2>
      <Lead>
        <Figure title="Air lift" lines={lift.working} of="delivered_lph">
          {installed.filter.air_l_min} L/min of air in a {show(bore, "mm")} tube lifts{" "}
          {show(lift.delivered_lph, "L/h")}
        </Figure>{" "}
        through clean foam, {bare(lift.dirty_lph, "L/h")} when it is due for cleaning, and{" "}
        {bare(lift.evaporated_lph, "L/h")} if the water falls {show(2, "cm")} below the outlet. Cut the uplift
        to {show(Math.floor(installed.plan.uplift_cm), "cm")} above the bed at the most and it stays under.
      </Lead>
    </>
  );
}
