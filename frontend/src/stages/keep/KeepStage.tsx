/** Keep stage: the logbook, each filter's flow over time, and running costs. */
import { useParams } from "react-router";
import { opening } from "../../api/compute";
import { useBlanks } from "../../api/tables";
import { useKeep } from "../../api/tanks";
import { ThisTank, ToThisTank } from "./ThisTank";
import type { KeepView } from "../../api/schemas";
import { Caution, Figure, LineLink, Verdict } from "../../kit";
import { Section } from "../../section/Section";
import { TryInPractice } from "../../shared/TryInPractice";
import { TakeoverNote } from "../../shared/TakeoverNote";
import { FlowHistory } from "../../charts/FlowHistory";
import { Care } from "./Care";
import { Costs } from "./Costs";
import { Hospital } from "./Hospital";
import { BeginQuarantine, Quarantined } from "./QuarantineNote";
import { SeenUnwell, Unwell } from "../../shared/Illness";
import { Photos } from "./Photos";
import { Plugs, Reviews } from "./Reminders";
import { LatestEntries, Logbook } from "./Logbook";
import { NewEntry } from "../../shared/NewEntry";
import { Pressing } from "./Urgent";
import { Seeds } from "./SpareSponges";
import { YearsAhead } from "./YearsAhead";
import { Facts } from "../../kit";
import { hanging } from "../../shared/installedFilters";
import { DrawingHere, TwoColumns } from "../../shared/TwoColumns";
import { StagePart } from "../../shared/StagePart";
import { type StageProps } from "../../shared/stageProps";
import { money, show } from "../../quantity/format";
import { LOCALE } from "../../quantity/locale";

type Kept = KeepView["filters"][number];

export default function KeepStage(props: StageProps) {
  const { part } = useParams();
  return isPart(part) ? <Part {...props} part={part} /> : <Now {...props} />;
}

/** What is next, and what was measured. */
function Now({ tankId, logbook, tables }: StageProps) {
  const plan = logbook.plans.tank;
  const asked = useKeep(tankId);
  const view = asked.data;
  const form_defaults = useBlanks();
  return (
    <TwoColumns
      opening={opening(asked, "Looking at what is next…")}
      drawing={
        <Section
          plan={plan}
          volume={view?.volume}
          filters={hanging(logbook.plans.filter)}
          animals={logbook.plans.stock.animals}
          species={tables.species}
          caption="The tank as it stands."
        />
      }
      beside={
        <>
          {view && <Measured tankId={tankId} view={view} />}
          <LatestEntries tankId={tankId} logbook={logbook} tables={tables} />
          <LineLink to={`/tanks/${tankId}/keep/logbook`}>A notebook kept elsewhere: take it in</LineLink>
          <LineLink to={`/tanks/${tankId}/keep/photos`}>Photographs of this tank</LineLink>
          <LineLink to={`/tanks/${tankId}/cycle/files`}>Files in and out, your kit, devices</LineLink>
          <ToThisTank tankId={tankId} />
        </>
      }
    >
      <Verdict>{view ? view.verdict : "The logbook."}</Verdict>
      <DrawingHere />
      {view && <Running tankId={tankId} view={view} />}
      <Seeds tankId={tankId} />
      <NewEntry tankId={tankId} netL={view?.volume.net_l} logbook={logbook} tables={tables} />
      <SeenUnwell tankId={tankId} logbook={logbook} tables={tables} />
      {view && !view.quarantine && <BeginQuarantine tankId={tankId} usualDays={view.quarantine_days} />}
      <Hospital start={form_defaults.hospital} />
      <TryInPractice tankId={tankId} />
    </TwoColumns>
  );
}

/** What is long has an address of its own. */
const PARTS = {
  logbook: "The logbook",
  photos: "Photographs",
  costs: "What it costs in a year",
  settings: "This tank",
} as const;
type PartName = keyof typeof PARTS;

function isPart(name: string | undefined): name is PartName {
  return name !== undefined && name in PARTS;
}

function Part({ part, ...props }: StageProps & { part: PartName }) {
  return (
    <StagePart back={`/tanks/${props.tankId}/keep`} stage="Keep" title={PARTS[part]}>
      {part === "logbook" && <Logbook {...props} />}
      {part === "photos" && <Photos {...props} />}
      {part === "costs" && <CostsHere tankId={props.tankId} />}
      {part === "settings" && <ThisTank tankId={props.tankId} />}
    </StagePart>
  );
}

function CostsHere({ tankId }: { tankId: number }) {
  const asked = useKeep(tankId);
  if (!asked.data) return <p role="status">{opening(asked, "Adding up…")}</p>;
  const { costs } = asked.data;
  return costs ? (
    <Costs costs={costs} />
  ) : (
    <p>Nothing uses energy or is bought yet: choose a filter, and what it costs is added up here.</p>
  );
}

/** What presses, and the tasks next. */
function Running({ tankId, view }: { tankId: number; view: KeepView }) {
  const { filters, takeover } = view;
  return (
    <>
      <Pressing view={view} />
      {view.illness && <Unwell tankId={tankId} illness={view.illness} />}
      {view.plugs && <Plugs tankId={tankId} asked={view.plugs} />}
      {view.quarantine && <Quarantined tankId={tankId} shut={view.quarantine} />}
      {view.salinity && <Caution>{view.salinity}</Caution>}
      {view.co2 && <p>{view.co2.verdict}</p>}
      <Care tankId={tankId} view={view} />
      {takeover && <TakeoverNote takeover={takeover} />}
      {filters.map((one) => one.fell && <Fell key={one.key} one={one} />)}
      <Reviews tankId={tankId} changes={view.reviews} />
    </>
  );
}

/** What was measured over time, and what comes of it in a year. */
function Measured({ tankId, view }: { tankId: number; view: KeepView }) {
  const { filters, costs, years } = view;
  const many = filters.length > 1;
  return (
    <>
      <Facts>
        {filters.map((one) => (
          <Flow key={one.key} one={one} many={many} />
        ))}
        <Supplied view={view} />
      </Facts>
      {filters.map((one) => (
        <FlowHistory key={one.key} filter={one} many={many} />
      ))}
      {years && <YearsAhead years={years} />}
      {costs && (
        <LineLink to={`/tanks/${tankId}/keep/costs`}>
          What it costs in a year: {money(costs.year.money_year)}
        </LineLink>
      )}
    </>
  );
}

/** Evaporation, and the heater with its energy. */
function Supplied({ view }: { view: KeepView }) {
  const { heater, evaporation } = view.supplies;
  return (
    <>
      <div>
        <dt>Evaporates</dt>
        <dd>
          <Figure title="What evaporates" lines={evaporation.working} of="litres_day">
            {show(evaporation.litres_day, "L", 1)} a day
          </Figure>
        </dd>
      </div>
      {heater && heater.kwh_year > 0 && <HeaterFact heater={heater} />}
    </>
  );
}

function HeaterFact({ heater }: { heater: NonNullable<KeepView["supplies"]["heater"]> }) {
  return (
    <div>
      <dt>Heater</dt>
      <dd>
        <Figure title="Heater" lines={heater.working} of="kwh_year">
          {heater.kwh_year.toFixed(0)} kWh a year
        </Figure>
        {heater.enough === false && <small> {heater.verdict}</small>}
      </dd>
    </div>
  );
}

/** A sudden fall of the flow, and its possible causes. */
function Fell({ one }: { one: Kept }) {
  return (
    <Caution as="div">
      <p>
        {one.name}: {one.fell}
      </p>
      <ul>
        {one.look_for.map((cause) => (
          <li key={cause}>{cause}</li>
        ))}
      </ul>
    </Caution>
  );
}

function Flow({ one, many }: { one: Kept; many: boolean }) {
  const last = one.flows.at(-1);
  if (!last) return null;
  return (
    <div>
      <dt>
        {many ? `${one.name}, ` : "Flow, "}last timed {new Date(last.at).toLocaleDateString(LOCALE)}
      </dt>
      <dd>
        {one.fade ? (
          <Figure title="Flow over time" lines={one.fade.working}>
            {show(last.flow_lph, "L/h")}
          </Figure>
        ) : (
          <>{show(last.flow_lph, "L/h")}</>
        )}
        {one.fade && <small> {one.fade.verdict}</small>}
      </dd>
    </div>
  );
}
