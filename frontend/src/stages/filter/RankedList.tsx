/** The ranking: single filters best first, then pairs of which each carries the load. */
import { styled } from "styled-components";
import type { RankAnswer } from "../../api/schemas";
import { money, show } from "../../quantity/format";

interface Props {
  answer: RankAnswer;
  /** Ids shown: one filter, or both of a pair. */
  shown: string[];
  onSee: (ids: string[]) => void;
}

const SINGLES = 4;
const PAIRS = 2;

export function RankedList({ answer, shown, onSee }: Props) {
  return (
    <div>
      <h2>For your priorities</h2>
      <Ranked aria-label="Filters that fit, best first">
        {answer.ranked.slice(0, SINGLES).map((c) => (
          <Row
            key={c.filter_id}
            ids={[c.filter_id]}
            {...{ shown, onSee }}
            name={c.name}
            flow={c.delivered_lph}
            words={c.reason}
            cost={`${Number(c.watts.toFixed(1))} W · ${money(c.price, 0)}${c.air_pump_price > 0 ? " with its air pump" : ""}`}
          />
        ))}
      </Ranked>
      {answer.pairs.length > 0 && (
        <>
          <h3>Two, so that one may fail</h3>
          <Ranked aria-label="Pairs, best first">
            {answer.pairs.slice(0, PAIRS).map((p) => (
              <Row
                key={p.name}
                ids={p.filter_ids}
                {...{ shown, onSee }}
                name={p.name}
                flow={p.delivered_lph}
                words={`would come ${p.would_rank === 1 ? "first" : `number ${p.would_rank}`} among the single ones`}
                cost={`${Number(p.watts.toFixed(1))} W · ${money(p.price, 0)}${p.air_pump_price > 0 ? " with its air pump" : ""}`}
              />
            ))}
          </Ranked>
        </>
      )}
    </div>
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
    font-size: 14px;
    line-height: 1.2;
  }
`;
