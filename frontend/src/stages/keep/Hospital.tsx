/** A filter after illness: disinfected, dried and seeded again. */
import { range } from "../../api/range";
import { useState } from "react";
import { styled } from "styled-components";
import { useCompute } from "../../api/compute";
import type { QuestionOf } from "../../api/schemas";
import { Caution, Figure, ProblemNote } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";

export function Hospital({ start }: { start: QuestionOf<"hospital-filter"> }) {
  const [asked, setAsked] = useState(start);
  const answer = useCompute("hospital-filter", asked);
  return (
    <details>
      <summary>A filter after sickness: disinfect and seed it again</summary>
      <Box>
        <Row>
          <QuantityField
            label="Bucket"
            unit="L"
            value={asked.bucket_l}
            {...range("HospitalQuestion.bucket_l")}
            onChange={(bucket_l) => {
              setAsked((now) => ({ ...now, bucket_l }));
            }}
          />
          <NumberBox
            label="Bleach, % chlorine on its label"
            value={asked.bleach_percent}
            {...range("HospitalQuestion.bleach_percent")}
            onChange={(bleach_percent) => {
              setAsked((now) => ({ ...now, bleach_percent }));
            }}
          />
        </Row>
        <ProblemNote problem={answer.error} />
        {answer.data && (
          <>
            <p>
              <Figure title="Bleach for the bucket" lines={answer.data.working} of="bleach_ml">
                {answer.data.verdict}
              </Figure>
            </p>
            <ol>
              {answer.data.steps.map((step) => (
                <li key={step.title}>
                  <b>{step.title}.</b> {step.detail}
                  {step.caution && <Caution>{step.caution}</Caution>}
                </li>
              ))}
            </ol>
          </>
        )}
      </Box>
    </details>
  );
}

const Box = styled.div`
  display: grid;
  gap: 10px;
  padding: 6px 0;
  ol {
    list-style: decimal;
    padding-left: 1.3em;
    display: grid;
    gap: 6px;
  }
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(180px, 240px));
  gap: 14px;
`;
