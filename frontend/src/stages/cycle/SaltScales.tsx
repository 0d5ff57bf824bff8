/** A salinity read on one scale, shown on all of them. */
import { useState } from "react";
import { range } from "../../api/range";
import { useCompute } from "../../api/compute";
import { Bar, Facts, Figure, PickOne, ProblemNote } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { fixed } from "../../quantity/format";

const SCALES = [
  ["specific gravity", "hydrometer"],
  ["g/kg", "g/kg"],
  ["mS/cm", "meter, mS/cm"],
] as const;
type Scale = (typeof SCALES)[number][0];

export function SaltScales({ temperatureC }: { temperatureC: number }) {
  const [scale, setScale] = useState<Scale>("specific gravity");
  const [read, setRead] = useState<number | null>(null);
  const found = useCompute(
    "salinity-scales",
    read === null ? null : { read_on_scale: read, scale, temperature_c: temperatureC },
  );
  return (
    <section aria-label="Salt on every scale">
      <h2>Salt, on every scale</h2>
      <Bar>
        <PickOne
          label="Read by"
          value={scale}
          onChange={(next) => {
            setScale(next);
            setRead(null);
          }}
          options={SCALES}
        />
        <NumberBox
          key={scale}
          label="It shows"
          value={read}
          {...range("SalinityScalesQuestion.read_on_scale")}
          step={scale === "specific gravity" ? 0.001 : 0.1}
          onChange={setRead}
        />
      </Bar>
      <ProblemNote problem={found.error} />
      {found.data && (
        <>
          <p>
            <Figure title="Salinity" lines={found.data.working}>
              {found.data.verdict}
            </Figure>
          </p>
          <Facts>
            <dt>A meter that corrects to 25 °C</dt>
            <dd>{fixed(found.data.at_25_ms_cm, 1)} mS/cm</dd>
            <dt>Density</dt>
            <dd>{fixed(found.data.density_kg_m3, 1)} kg/m³</dd>
            <dt>It counts as</dt>
            <dd>{found.data.water}</dd>
          </Facts>
        </>
      )}
    </section>
  );
}
