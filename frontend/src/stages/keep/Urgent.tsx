/** Urgent matters of a running tank: poison over a limit, or a filter that stopped. */
import { styled } from "styled-components";
import type { KeepView } from "../../api/schemas";
import { Caution, Figure } from "../../kit";

export function Pressing({ view }: { view: KeepView }) {
  return (
    <>
      {view.danger && (
        <Box aria-label="What to do now">
          <ol>
            {[view.danger.first, ...view.danger.then].map((a) => (
              <li key={a.title}>
                <b>{a.title}.</b> {a.detail} <span>{a.reason}</span>
              </li>
            ))}
          </ol>
          {view.danger.first.caution && <Caution>{view.danger.first.caution}</Caution>}
        </Box>
      )}
      {view.stops.map((s) => (
        <Box key={s.verdict} aria-label="The stop of the filter">
          <p>
            {view.stops.length > 1 || view.danger ? `${s.verdict} ` : "Film lost: "}
            <Figure title="Film lost" lines={s.working}>
              {(100 * s.lost_share).toFixed(0)} %
            </Figure>
          </p>
          <ol>
            {s.steps.map((step) => (
              <li key={step}>{step}</li>
            ))}
          </ol>
          <Caution>{s.caution}</Caution>
        </Box>
      ))}
    </>
  );
}

const Box = styled.section`
  background: var(--silt);
  border-left: 4px solid var(--seed);
  padding: 10px 16px;
  display: grid;
  gap: 6px;
  ol {
    padding-left: 1.2em;
    list-style: decimal;
  }
  span {
    color: var(--ink-soft);
  }
`;
