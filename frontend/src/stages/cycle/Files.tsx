/** Import and export of a cycle, in open formats. */
import { Fold, InlineButton } from "../../kit";
import { Bar } from "../../kit";
import { type StageProps } from "../../shared/stageProps";
import { Devices } from "../../shared/Devices";
import { CsvImport } from "./CsvImport";
import { KitForm } from "./KitForm";
import { useState } from "react";

export function Files({ tankId, logbook }: Pick<StageProps, "tankId" | "logbook">) {
  const [devices, setDevices] = useState(false);
  const count = logbook.readings.length;
  return (
    <>
      <section aria-label="Out">
        <h2>Out, in open formats</h2>
        <Bar>
          {count > 0 && <a href={`/api/tanks/${tankId}/readings.csv`}>Readings as CSV ({count})</a>}
          <a href={`/api/tanks/${tankId}/bundle.json`}>The whole logbook as JSON</a>
          <a href={`/api/tanks/${tankId}/calendar.ics`}>What comes next, as a calendar</a>
        </Bar>
        {logbook.cycle_plan && (
          <Fold summary="For other programs: the model of the cycle">
            <Bar>
              <a href={`/api/tanks/${tankId}/cycle.sbml`}>The model as SBML</a>
            </Bar>
          </Fold>
        )}
      </section>
      <CsvImport tankId={tankId} />
      <KitForm tankId={tankId} logbook={logbook} />
      <section aria-label="Devices that test">
        <InlineButton
          aria-expanded={devices}
          onPress={() => {
            setDevices(!devices);
          }}
        >
          {devices ? "Close the devices" : "A test device, thermometer or probe that writes here"}
        </InlineButton>
        {devices && (
          <Devices
            tankId={tankId}
            filters={logbook.plans.filter.filters
              .filter((f) => !f.retired)
              .map((f) => [f.key, f.filter.name])}
          />
        )}
      </section>
    </>
  );
}
