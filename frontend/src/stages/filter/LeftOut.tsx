/** Filters that do not fit and what would admit them; and those further down the ranking. */
import { styled } from "styled-components";
import type { RankAnswer } from "../../api/schemas";
import { show } from "../../quantity/format";

export function LeftOut({ answer }: { answer: RankAnswer }) {
  return (
    <>
      {answer.changes.length > 0 && (
        <List aria-label="What single change would alter the answer">
          {answer.changes.map((c) => (
            <li key={c.filter_id}>
              <i>{c.text}</i>
            </li>
          ))}
        </List>
      )}
      <List aria-label="Left out">
        {answer.excluded.map((e) => (
          <li key={e.filter_id}>
            <b>{e.name}</b>: {e.reason}. <Sentence>{e.remedy}</Sentence>
            {e.would_rank != null &&
              ` and it would come ${e.would_rank === 1 ? "first" : `number ${e.would_rank}`}`}
            .
          </li>
        ))}
        {answer.ranked.slice(4).map((c) => (
          <li key={c.filter_id}>
            <b>{c.name}</b> fits: {show(c.delivered_lph, "L/h")}, {c.reason}.
          </li>
        ))}
      </List>
    </>
  );
}

const List = styled.ul`
  display: grid;
  gap: 5px;
  font-size: 0.9375rem;
  padding-bottom: 10px;
`;

const Sentence = styled.i`
  display: inline-block;
  &::first-letter {
    text-transform: uppercase;
  }
`;
