/** Keep: the logbook itself, each filter's flow over time, and what they cost to run. */
import { useKeep } from "../../api/hooks";
import { ThisTank } from "./ThisTank";
import type { KeepView } from "../../api/schemas";
import { Figure, Verdict } from "../../kit";
import { Section } from "../../section/Section";
import { TakeoverNote } from "../fit/TakeoverNote";
import { FlowHistory } from "../../charts/FlowHistory";
import { Care } from "./Care";
import { Logbook } from "./Logbook";
import { NewEntry } from "./NewEntry";
import { Pressing } from "./Pressing";
import { Seeds } from "./Seeds";
import { YearsAhead } from "./YearsAhead";
import { Facts, hanging, TwoColumns, type StageProps } from "../shared";
import { money, show } from "../../quantity/shown";

type Kept = KeepView["filters"][number];

export function KeepStage({ tankId, logbook, tables }: StageProps) {
  const plan = logbook.plans.tank;
  const view = useKeep(tankId).data;
  return (
    <TwoColumns
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
    >
      <Verdict>{view ? view.verdict : "The logbook."}</Verdict>
      {view && <Running tankId={tankId} view={view} />}
      <Seeds tankId={tankId} />
      <NewEntry tankId={tankId} netL={view?.volume.net_l} logbook={logbook} tables={tables} />
      <Logbook tankId={tankId} logbook={logbook} species={tables.species} />
      <ThisTank tankId={tankId} />
    </TwoColumns>
  );
}

/** What runs, what is next, how it fades and what it costs. */
function Running({ tankId, view }: { tankId: number; view: KeepView }) {
  const { filters, cost, takeover, years } = view;
  const many = filters.length > 1;
  return (
    <>
      <Pressing view={view} />
      <Care tankId={tankId} view={view} />
      {takeover && <TakeoverNote takeover={takeover} />}
      <Facts>
        {filters.map((one) => (
          <Flow key={one.key} one={one} many={many} />
        ))}
        <Supplied view={view} />
        {cost && <Costs cost={cost} many={many} />}
      </Facts>
      {filters.map((one) => (
        <FlowHistory key={one.key} filter={one} many={many} />
      ))}
      {years && <YearsAhead years={years} />}
    </>
  );
}

function Costs({ cost, many }: { cost: NonNullable<KeepView["cost"]>; many: boolean }) {
  return (
    <>
      <div>
        <dt>Energy{many ? " of all filters" : ""}</dt>
        <dd>
          <Figure title="Energy" lines={cost.working} of="kwh_year">
            {cost.kwh_year.toFixed(0)} kWh a year
          </Figure>
        </dd>
      </div>
      <div>
        <dt>Costs to run</dt>
        <dd>
          <Figure title="Running cost" lines={cost.working} of="money_year">
            {money(cost.money_year)} a year
          </Figure>
          <small> {money(cost.money_month)} a month</small>
        </dd>
      </div>
    </>
  );
}

/** What the heater takes, and whether it is enough. */
function Supplied({ view }: { view: KeepView }) {
  const { heater } = view.supplies;
  if (!heater || heater.kwh_year === 0) return null;
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

function Flow({ one, many }: { one: Kept; many: boolean }) {
  const last = one.flows.at(-1);
  if (!last) return null;
  return (
    <div>
      <dt>
        {many ? `${one.name}, ` : "Flow, "}last timed {new Date(last.at).toLocaleDateString()}
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
