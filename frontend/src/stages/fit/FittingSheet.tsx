/** The fitting sheet: section with lengths, cut list, steps and cautions, on two pages at most. */
import { useRef } from "react";
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useTables, useTank } from "../../api/hooks";
import type { Standing, Tables, TankState } from "../../api/schemas";
import { Page } from "../../app/Page";
import { Button, Verdict, Waiting } from "../../kit";
import { Section } from "../../section/Section";
import { saveSvg } from "../../section/saveSvg";
import { Bar, fitPlan } from "../shared";
import { useFitting } from "./useFitting";

export default function FittingSheet() {
  const tankId = Number(useParams().tankId);
  const tank = useTank(tankId);
  const tables = useTables();
  return (
    <Page name={tank.data?.tank.name}>
      <title>{`${tank.data?.tank.name ?? "Tank"}: fitting sheet · Reedmace`}</title>
      {tank.data && tables.data ? (
        <Sheet
          tankId={tankId}
          name={tank.data.tank.name}
          standing={tank.data.standing}
          rank={tank.data.rank}
          tables={tables.data}
        />
      ) : (
        <Waiting>Drawing the sheet…</Waiting>
      )}
    </Page>
  );
}

interface Props {
  tankId: number;
  name: string;
  standing: Standing;
  rank: TankState["rank"];
  tables: Tables;
}

function Sheet({ tankId, name, standing, rank, tables }: Props) {
  const { plan, filter, v, fitting, steps, danger } = useFitting(
    standing,
    tables,
    rank,
    fitPlan(standing).layout ?? {},
  );
  const drawing = useRef<HTMLDivElement>(null);
  if (!filter)
    return (
      <>
        <Verdict>Choose a filter first: the sheet is made for it.</Verdict>
        <Link to={`/tanks/${tankId}/filter`}>To the Filter stage</Link>
      </>
    );
  const cautions = [...new Set((steps.data?.steps ?? []).flatMap((s) => (s.caution ? [s.caution] : [])))];
  return (
    <Paper>
      <Verdict $small>
        {name}: fitting the {filter.name}
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
            volume={v}
            filter={filter}
            fitting={fitting.data}
            caption={`${filter.name} on ${name}, with cut lengths.`}
          />
        </div>
        <div>
          <h2>Cut and count</h2>
          <ul>
            {fitting.data?.cuts.map((c) => (
              <li key={c.item}>
                <b>
                  {c.amount.toFixed(0)} {c.unit === "cm" ? "cm" : "×"} {c.item}
                </b>{" "}
                {c.how}
              </li>
            ))}
            {fitting.data?.cuts.length === 0 && <li>Nothing is to be cut.</li>}
          </ul>
          {(fitting.data?.faults.length ?? 0) > 0 && (
            <>
              <h2>Mend first</h2>
              <ol>
                {fitting.data?.faults.map((f) => (
                  <li key={f.what}>
                    {f.what} <b>{f.remedy}</b>
                  </li>
                ))}
              </ol>
            </>
          )}
          <h2>Look before you switch on</h2>
          <ul>
            {CHECKS.map((c) => (
              <li key={c}>
                <span className="tick" aria-hidden="true" /> {c}
              </li>
            ))}
          </ul>
          {danger.data && <p>{danger.data.verdict}</p>}
        </div>
      </div>
      <h2>Steps</h2>
      <ol className="steps">
        {steps.data?.steps.map((s) => (
          <li key={s.id}>
            <span className="tick" aria-hidden="true" /> <b>{s.title}.</b> {s.detail}
          </li>
        ))}
      </ol>
      <h2>Cautions</h2>
      <ul>
        {cautions.map((c) => (
          <li key={c}>{c}</li>
        ))}
      </ul>
    </Paper>
  );
}

const CHECKS = [
  "In to in, out to out",
  "Every clamp on and tight, hose past all the ridges",
  "Water in the filter",
  "Valves open",
  "Plug dry, drip loop hanging",
  "Intake under water, guard on where small animals live",
];

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
    font-size: 15px;
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
  @media (max-width: 720px) {
    .two {
      grid-template-columns: minmax(0, 1fr);
    }
    .steps {
      columns: 1;
    }
  }
  @media print {
    font-size: 12.5px;
    .steps {
      font-size: 12px;
    }
    h2 {
      font-size: 14px;
    }
  }
`;
