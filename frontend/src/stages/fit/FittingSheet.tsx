/** The fitting sheet: section with lengths, cut list, steps and cautions of every filter. */
import { useRef } from "react";
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useTank } from "../../api/tanks";
import { useView } from "../../api/compute";
import type { FittedView, FitView, TankPlan } from "../../api/schemas";
import { Opening } from "../../shared/NotFetched";
import { Page } from "../../shared/Page";
import { Button, Verdict } from "../../kit";
import { Section } from "../../section/Section";
import { saveSvg } from "../../section/saveSvg";
import { Bar } from "../../kit";
import { show } from "../../quantity/format";

export default function FittingSheet() {
  const tankId = Number(useParams().tankId);
  const tank = useTank(tankId);
  const view = useView(tankId, "fit", {});
  const name = tank.data?.tank.name;
  return (
    <Page name={name}>
      <title>{`${name ?? "Tank"}: fitting sheet · Reedmace`}</title>
      <Opening asked={[tank, view]}>Drawing the sheet…</Opening>
      {tank.data && view.data && (
        <Sheet
          tankId={tankId}
          name={tank.data.tank.name}
          plan={tank.data.state.plans.tank}
          view={view.data}
        />
      )}
    </Page>
  );
}

interface Props {
  tankId: number;
  name: string;
  plan: TankPlan;
  view: FitView;
}

function Sheet({ tankId, name, plan, view }: Props) {
  const drawing = useRef<HTMLDivElement>(null);
  const [first] = view.filters;
  if (!first)
    return (
      <>
        <Verdict>Choose a filter first: the sheet is made for it.</Verdict>
        <Link to={`/tanks/${tankId}/filter`}>To the Filter stage</Link>
      </>
    );
  const names = view.filters.map((f) => f.installed.filter.name).join(" and ");
  const cautions = [
    ...new Set(view.filters.flatMap((f) => f.steps).flatMap((s) => (s.caution ? [s.caution] : []))),
  ];
  return (
    <Paper>
      <Verdict $small>
        {name}: fitting the {names}
      </Verdict>
      <Bar className="screen-only">
        <Button
          onPress={() => {
            window.print();
          }}
        >
          Print
        </Button>
        <Button
          $quiet
          onPress={() => {
            const svg = drawing.current?.querySelector("svg");
            if (svg) saveSvg(svg, `section-${tankId}.svg`);
          }}
        >
          Section as SVG
        </Button>
        <Link to={`/tanks/${tankId}/fit`}>Back to Fit</Link>
      </Bar>
      <div className="two">
        <div ref={drawing}>
          <Section
            plan={plan}
            volume={view.volume}
            filters={view.filters.map(({ installed }) => ({
              key: installed.key,
              filter: installed.filter,
              fitting: installed.plan,
            }))}
            working={first.installed.key}
            caption={`${names} on ${name}, with cut lengths.`}
          />
        </div>
        <div>
          {view.filters.map((one) => (
            <Counted key={one.installed.key} one={one} many={view.filters.length > 1} />
          ))}
        </div>
      </div>
      {view.filters.map((one) => (
        <div key={one.installed.key}>
          <h2>Steps{view.filters.length > 1 ? `: ${one.installed.filter.name}` : ""}</h2>
          <ol className="steps">
            {one.steps.map((s) => (
              <li key={s.id}>
                <span className="tick" aria-hidden="true" /> <b>{s.title}.</b> {s.detail}
              </li>
            ))}
          </ol>
        </div>
      ))}
      <h2>Cautions</h2>
      <ul>
        {cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </Paper>
  );
}

/** Cut list, faults, inspections before power and the worst mishap of one filter. */
function Counted({ one, many }: { one: FittedView; many: boolean }) {
  const { plan, filter } = one.installed;
  const looks = one.steps.filter((s) => s.look_at != null);
  const of = many ? `: ${filter.name}` : "";
  return (
    <>
      <h2>Cut and count{of}</h2>
      <ul>
        {plan.cuts.map((c) => (
          <li key={c.item}>
            <b>
              {c.unit === "cm" ? show(c.amount, "cm") : `${c.amount.toFixed(0)} ×`} {c.item}
            </b>{" "}
            {c.how}
          </li>
        ))}
        {plan.cuts.length === 0 && <li>Nothing is to be cut.</li>}
      </ul>
      {plan.faults.length > 0 && (
        <>
          <h2>Mend first</h2>
          <ol>
            {plan.faults.map((f) => (
              <li key={f.what}>
                {f.what} <b>{f.remedy}</b>
              </li>
            ))}
          </ol>
        </>
      )}
      {looks.length > 0 && (
        <>
          <h2>Look before you switch on</h2>
          <ul>
            {looks.map((s) => (
              <li key={s.id}>
                <span className="tick" aria-hidden="true" /> <b>{s.title}.</b> {s.detail}
              </li>
            ))}
          </ul>
        </>
      )}
      <p>{one.danger.verdict}</p>
    </>
  );
}

const Paper = styled.div`
  display: grid;
  gap: 10px;
  max-width: 1000px;
  .two {
    display: grid;
    grid-template-columns: minmax(0, 1.15fr) minmax(0, 1fr);
    gap: 20px;
  }
  .two > div {
    display: grid;
    gap: 6px;
    align-content: start;
  }
  ol {
    list-style: decimal;
    padding-left: 22px;
  }
  .steps {
    columns: 2;
    column-gap: 28px;
    font-size: 0.9375rem;
  }
  .steps li {
    break-inside: avoid;
    margin-bottom: 4px;
  }
  .tick {
    display: inline-block;
    width: 12px;
    height: 12px;
    border: 1.5px solid var(--ink-soft);
    margin-right: 4px;
    vertical-align: -1px;
  }
  @media (max-width: 45em) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
    .steps {
      columns: 1;
    }
  }
  @media print {
    font-size: 0.7812rem;
    .steps {
      font-size: 0.75rem;
    }
    h2 {
      font-size: 0.875rem;
    }
  }
`;
