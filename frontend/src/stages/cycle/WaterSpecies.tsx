/** The water as its species: how much of the ammonia is the poison, how surely, and the same at other pH. */
import { useState } from "react";
import { styled } from "styled-components";
import { range } from "../../api/range";
import { useCompute } from "../../api/compute";
import type { AnswerOf, QuestionOf } from "../../api/schemas";
import { useCycle } from "../../api/tanks";
import { Bar, Button, Fields, Figure, Lead, ProblemNote, Waiting } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { saveText } from "../../kit/saveText";
import { fixed } from "../../quantity/format";
import { Opening } from "../../shared/NotFetched";
import { Table } from "./Ready";
import { SaltScales } from "./SaltScales";
import { TapFit } from "./TapFit";

type Question = QuestionOf<"water-speciation">;
type Answer = AnswerOf<"water-speciation">;

export function WaterSpecies({ tankId }: { tankId: number }) {
  const cycle = useCycle(tankId);
  if (!cycle.data) return <Opening asked={[cycle]}>Reading the tests…</Opening>;
  return cycle.data.water ? (
    <Species tankId={tankId} tested={cycle.data.water} />
  ) : (
    <Lead>Test pH first: what ammonia is made of depends on it more than on anything else.</Lead>
  );
}

function Species({ tankId, tested }: { tankId: number; tested: Question }) {
  const [change, setChange] = useState<Partial<Question>>({});
  const question = { ...tested, ...change };
  const found = useCompute("water-speciation", question);
  if (!found.data) return found.error ? <ProblemNote problem={found.error} /> : <Waiting>Reckoning…</Waiting>;
  const { phreeqc } = found.data;
  return (
    <>
      <p>
        <Figure title="Species of the water" lines={found.data.working}>
          {found.data.verdict}
        </Figure>
      </p>
      <Fields>
        <NumberBox
          label="At a pH of"
          value={question.ph}
          {...range("WaterSpeciationQuestion.ph")}
          onChange={(ph) => {
            setChange((now) => ({ ...now, ph }));
          }}
        />
        <QuantityField
          label="and a warmth of"
          unit="°C"
          value={question.temperature_c}
          {...range("WaterSpeciationQuestion.temperature_c")}
          onChange={(temperature_c) => {
            setChange((now) => ({ ...now, temperature_c }));
          }}
        />
      </Fields>
      <ProblemNote problem={found.error} />
      <Split>
        <OfNow answer={found.data} />
        <ByPh answer={found.data} ph={question.ph} />
      </Split>
      <Bar>
        {Object.keys(change).length > 0 && (
          <Button
            $quiet
            onPress={() => {
              setChange({});
            }}
          >
            As tested
          </Button>
        )}
        <Button
          $quiet
          onPress={() => {
            saveText(phreeqc, `water-${tankId}.pqi`);
          }}
        >
          The water as a file for PHREEQC
        </Button>
      </Bar>
      <TapFit temperatureC={question.temperature_c} />
      <SaltScales temperatureC={question.temperature_c} />
    </>
  );
}

function OfNow({ answer }: { answer: Answer }) {
  return (
    <Table>
      <caption>What stands in it</caption>
      <thead>
        <tr>
          <th scope="col">Species</th>
          <th scope="col">mg/L</th>
          <th scope="col">Share</th>
        </tr>
      </thead>
      <tbody>
        {answer.species.map((one) => (
          <tr key={one.formula}>
            <th scope="row">
              {one.formula} <small>{one.name}</small>
            </th>
            <td>
              {one.mg_l.toPrecision(3)}
              {one.family === "carbonate" ? "" : " N"}
            </td>
            <td>{fixed(100 * one.share, 1)} %</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function ByPh({ answer, ph }: { answer: Answer; ph: number }) {
  const nearest = [...answer.at_ph].sort((a, b) => Math.abs(a.ph - ph) - Math.abs(b.ph - ph))[0];
  return (
    <Table>
      <caption>The same water at another pH</caption>
      <thead>
        <tr>
          <th scope="col">pH</th>
          <th scope="col">NH3, mg N/L</th>
          <th scope="col">HNO2, mg N/L</th>
          <th scope="col">CO2, mg/L</th>
        </tr>
      </thead>
      <tbody>
        {answer.at_ph.map((row) => (
          <tr key={row.ph} data-followed={row === nearest || undefined}>
            <th scope="row">{fixed(row.ph, 2)}</th>
            <td>{row.nh3_mg_n_l.toPrecision(2)}</td>
            <td>{row.hno2_mg_n_l.toPrecision(2)}</td>
            <td>{row.co2_mg_l.toPrecision(2)}</td>
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

const Split = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 18px 40px;
  align-items: start;
  caption {
    text-align: left;
    font-weight: 600;
    padding: 6px 0;
  }
  small {
    color: var(--ink-soft);
  }
  td {
    font-variant-numeric: tabular-nums;
  }
`;
