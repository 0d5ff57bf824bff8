/** Two filters side by side, of which each carries the load: so that one may fail. */
import { styled } from "styled-components";
import type { RankAnswer } from "../../api/schemas";
import { money, short, show } from "../../quantity/format";

interface Props {
  answer: RankAnswer;
  /** Ids shown. */
  shown: string[];
  onSee: (ids: string[]) => void;
}

const MOST = 2;

export function Pairs({ answer, shown, onSee }: Props) {
  if (!answer.pairs.length) return null;
  return (
    <section aria-label="Pairs">
      <Ranked aria-label="Pairs, best first">
        {answer.pairs.slice(0, MOST).map((p) => (
          <Row
            key={p.filter_ids.join()}
            ids={p.filter_ids}
            {...{ shown, onSee }}
            name={p.name}
            flow={p.delivered_lph}
            words={`would come ${p.would_rank === 1 ? "first" : `number ${p.would_rank}`} among the single ones`}
            cost={[`${short(p.watts, 1)} W`, p.price_known && money(p.price, 0)].filter(Boolean).join(" · ")}
          />
        ))}
      </Ranked>
    </section>
  );
}

interface RowProps {
  ids: string[];
  shown: string[];
  onSee: (ids: string[]) => void;
  name: string;
  flow: number;
  words: string;
  cost: string;
}

function Row({ ids, shown, onSee, name, flow, words, cost }: RowProps) {
  return (
    <li>
      <button
        type="button"
        aria-pressed={ids.join() === shown.join()}
        onClick={() => {
          onSee(ids);
        }}
      >
        <b>{name}</b>
        <span>{show(flow, "L/h")}</span>
        <small>{words}</small>
        <small>{cost}</small>
      </button>
    </li>
  );
}

const Ranked = styled.ol`
  button {
    width: 100%;
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 0 10px;
    text-align: left;
    border: 0;
    border-left: 4px solid transparent;
    border-bottom: 1px solid var(--line);
    background: none;
    padding: 3px 4px 3px 8px;
    cursor: pointer;
    min-height: 44px;
    line-height: 1.3;
  }
  button[aria-pressed="true"] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  small {
    color: var(--ink-soft);
    font-size: 0.875rem;
    line-height: 1.2;
  }
`;
