/** Depth, gross litres, mass and pressure: for stand and floor. */
import type { TankVolume } from "../../api/schemas";
import { Figure, Term } from "../../kit";
import { Twin } from "../../kit/quantities";
import { Facts } from "../../kit";
import { fixed, show } from "../../quantity/format";

/** overSump: whether the litres of the headline hold a sump's, which these do not. */
export function TankFacts({ answer, overSump }: { answer: TankVolume; overSump: boolean }) {
  return (
    <Facts>
      <div>
        <dt>Water depth</dt>
        <dd>
          <Figure title="Water depth" lines={answer.working} of="water_depth_cm">
            {show(answer.water_depth_cm, "cm", 1)}
          </Figure>
          <small>
            <Twin unit="cm" value={answer.water_depth_cm} />
          </small>
        </dd>
      </div>
      <div>
        <dt>
          {overSump ? "The tank alone, empty" : "Empty of anything"} (<Term of="net-litres">net?</Term>)
        </dt>
        <dd>
          <Figure title="Gross volume" lines={answer.working} of="gross_l">
            {show(answer.gross_l, "L")}
          </Figure>
        </dd>
      </div>
      <div>
        <dt>Weighs full</dt>
        <dd>
          <Figure title="Filled mass" lines={answer.working} of="filled_kg">
            {show(answer.filled_kg, "kg")}
          </Figure>
          <small>
            <Twin unit="kg" value={answer.filled_kg} />
          </small>
        </dd>
      </div>
      <div>
        <dt>On its foot</dt>
        <dd>
          <Figure title="Pressure on the footprint" lines={answer.working} of="floor_kpa">
            {fixed(answer.floor_kpa, 1)} kPa
          </Figure>
          <small>
            {" "}
            (<Term of="kpa">kPa?</Term>)
          </small>
        </dd>
      </div>
    </Facts>
  );
}
