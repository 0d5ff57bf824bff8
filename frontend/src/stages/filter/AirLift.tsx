/** What the air lifts, in a sentence. */
import type { Hung } from "../../api/schemas";
import { Figure, Lead } from "../../kit";

export function AirLift({ hung }: { hung: Hung }) {
  const lift = hung.flow.lifted;
  if (!lift) return null;
  return (
    <>
      <h2>What the air lifts</h2>
      <Lead>
        <Figure title="Air lift" lines={lift.working} of="delivered_lph">
          {hung.filter.air_l_min} L/min of air in a {hung.filter.tube_bore_mm} mm tube lifts{" "}
          {lift.delivered_lph.toFixed(0)} L/h
        </Figure>{" "}
        through clean foam, {lift.dirty_lph.toFixed(0)} when it is due for cleaning, and{" "}
        {lift.evaporated_lph.toFixed(0)} if the water falls 2 cm below the outlet. Cut the uplift to{" "}
        {Math.floor(hung.plan.uplift_cm)} cm above the bed at the most and it stays under.
      </Lead>
    </>
  );
}
