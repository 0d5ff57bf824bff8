/** Flood risk in litres, and the effect of a power cut. */
import { styled } from "styled-components";
import type { DrainDown } from "../../api/schemas";
import { Figure } from "../../kit";
import { show } from "../../quantity/format";

interface Props {
  answer: DrainDown;
  shown: string | null;
  /** Show on the section where the level would stop. */
  onShow: (what: string | null) => void;
}

export function Dangers({ answer, shown, onShow }: Props) {
  const cut = answer.power_cut;
  return (
    <section aria-label="What could go wrong">
      <h2>What could go wrong, and how much water</h2>
      <p>
        <Figure title="Litres on the floor" lines={answer.working}>
          {answer.verdict}
        </Figure>
      </p>
      <List>
        {answer.mishaps.map((m) => (
          <li key={m.code}>
            <button
              type="button"
              aria-pressed={shown === m.code}
              onClick={() => {
                onShow(shown === m.code ? null : m.code);
              }}
            >
              <b>{m.what}</b>
              <span>
                {show(m.litres, "L", m.litres < 10 ? 1 : 0)}
                {m.minutes && m.minutes >= 1 ? `, ${m.minutes.toFixed(0)} min` : ""}
              </span>
              <small>
                {m.why} {m.prevention}
              </small>
              {m.heater && <Dry>{m.heater}</Dry>}
            </button>
          </li>
        ))}
      </List>
      <details>
        <summary>When the power fails</summary>
        <dl>
          <dt>First minute</dt>
          <dd>{cut.minute}</dd>
          <dt>First hour</dt>
          <dd>{cut.hour}</dd>
          <dt>A night</dt>
          <dd>{cut.night}</dd>
          <dt>When it is back</dt>
          <dd>{cut.on_return}</dd>
        </dl>
      </details>
    </section>
  );
}

const Dry = styled.small`
  && {
    color: var(--alarm);
  }
`;

const List = styled.ul`
  button {
    width: 100%;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 12px;
    text-align: left;
    border: 0;
    border-bottom: 1px solid var(--line);
    border-left: 4px solid transparent;
    background: none;
    padding: 4px 6px 4px 8px;
    cursor: pointer;
    min-height: 44px;
  }
  button[aria-pressed="true"] {
    background: var(--silt);
    border-left-color: var(--alarm);
  }
  small {
    grid-column: 1 / -1;
    color: var(--ink-soft);
    font-size: 0.9062rem;
  }
`;
