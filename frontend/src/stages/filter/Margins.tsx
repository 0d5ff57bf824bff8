/** Biology, clarity and movement: three separate verdicts. */
import { styled } from "styled-components";
import type { FilterView } from "../../api/schemas";
import { Explained, phone, Term } from "../../kit";

type Margin = NonNullable<FilterView["shown"]>["margins"][number];

const NAMES: Record<Margin["about"], string> = {
  biology: "Filter bacteria",
  clarity: "Clear water",
  movement: "Movement",
};
const WORDS = { biology: "film", clarity: "clear-water", movement: "movement" } as const;
const LEVELS: Record<Margin["level"], string> = {
  ample: "ample",
  enough: "enough",
  short: "short",
  "too-much": "too strong",
};

export function Margins({ margins }: { margins: Margin[] }) {
  return (
    <Three aria-label="Three verdicts">
      {margins.map((m) => (
        <li key={m.about} data-level={m.level}>
          <b>
            <Term of={WORDS[m.about]}>{NAMES[m.about]}</Term>
          </b>{" "}
          <span>{LEVELS[m.level]}</span>
          <p>{m.about === "movement" ? <Explained text={m.words} /> : m.words}</p>
        </li>
      ))}
    </Three>
  );
}

const Three = styled.ul`
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 0 18px;
  font-size: 0.9375rem;
  ${phone} {
    grid-template-columns: 1fr;
    gap: 6px;
  }
  li {
    border-top: 3px solid var(--reed);
    padding-top: 5px;
  }
  li[data-level="enough"] {
    border-top-style: double;
  }
  li[data-level="short"],
  li[data-level="too-much"] {
    border-top: 3px dashed var(--seed);
  }
  span {
    color: var(--ink-soft);
    float: right;
  }
  p {
    margin: 2px 0 0;
    color: var(--ink-soft);
  }
`;
