/** Years ahead: nitrate between changes, growth, and whether a filter could stay off. */
import { styled } from "styled-components";
import type { KeepView } from "../../api/schemas";
import { NitrateSaw } from "../../charts/NitrateSaw";
import { Caution, Figure } from "../../kit";

type Ahead = NonNullable<KeepView["years"]>;

export function YearsAhead({ years: { nitrate, growth, trial, trial_of } }: { years: Ahead }) {
  return (
    <details>
      <summary>Nitrate, growth, and doing without</summary>
      <Parts>
        {nitrate && <NitrateSaw answer={nitrate} />}
        {nitrate?.kh_words && <Caution>{nitrate.kh_words}</Caution>}
        {growth && (
          <section>
            <h2>As they grow</h2>
            <p>
              <Figure title="Growth" lines={growth.working}>
                {growth.verdict}
              </Figure>
            </p>
          </section>
        )}
        {trial && (
          <section>
            <h2>Can {trial_of} stay off?</h2>
            <p>
              <Figure title="What would stay on" lines={trial.working}>
                {trial.verdict}
              </Figure>
            </p>
            <ol>
              {trial.steps.map((step) => (
                <li key={step}>{step}</li>
              ))}
            </ol>
          </section>
        )}
      </Parts>
    </details>
  );
}

const Parts = styled.div`
  display: grid;
  gap: 16px;
  padding-top: 6px;
  ol {
    list-style: decimal;
    padding-left: 1.4em;
  }
`;
