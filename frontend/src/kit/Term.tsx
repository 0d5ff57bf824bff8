/** A glossary word: a tap shows two lines on it. */
import type { ReactNode } from "react";
import { Button as AriaButton, Dialog, DialogTrigger, Popover } from "react-aria-components";
import { styled } from "styled-components";
import { useTables } from "../api/tables";
import type { Tables } from "../api/schemas";

interface Props {
  of: Tables["words"][number]["key"];
  children: ReactNode;
}

export function Term({ of, children }: Props) {
  const word = useTables().data?.words.find((w) => w.key === of);
  if (!word) return <>{children}</>;
  return (
    <DialogTrigger>
      <Asked>{children}</Asked>
      <Said placement="bottom start">
        <Dialog aria-label={word.word}>
          <b>{word.word}</b>
          <p>{word.meaning}</p>
        </Dialog>
      </Said>
    </DialogTrigger>
  );
}

/** Words that a sentence of ours may hold, and what explains each. */
const IN_SENTENCES: [RegExp, Props["of"]][] = [
  [/\bfilm\b/i, "film"],
  [/\bdKH\b/, "dkh"],
  [/\bkPa\b/, "kpa"],
  [/\bin service\b/, "in-service"],
  [/\b(?:of|m) head\b/, "head"],
  [/\bturnover\b/i, "turnover"],
  [/\bsiphon break\b/i, "siphon-break"],
  [/\bcheck valve\b/i, "check-valve"],
  [/\bdrip loop\b/i, "drip-loop"],
  [/\bguard sponge\b/i, "guard"],
  [/\bconditioner\b/i, "conditioner"],
  [/\bchloramine\b/i, "chloramine"],
];

/** A sentence whose first word of the trade is explained at a tap. */
export function Explained({ text }: { text: string }) {
  const found = IN_SENTENCES.map(([word, of]) => ({ at: word.exec(text), of }))
    .filter((one) => one.at !== null)
    .sort((a, b) => (a.at?.index ?? 0) - (b.at?.index ?? 0))[0];
  if (!found?.at) return <>{text}</>;
  const [word] = found.at;
  return (
    <>
      {text.slice(0, found.at.index)}
      <Term of={found.of}>{word}</Term>
      {text.slice(found.at.index + word.length)}
    </>
  );
}

const Asked = styled(AriaButton)`
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  border-bottom: 1.5px dashed var(--ink-soft);
  padding: 0;
  cursor: help;
  &[data-hovered] {
    border-bottom-color: var(--seed);
  }
`;
const Said = styled(Popover)`
  max-width: min(340px, calc(100vw - 24px));
  background: var(--field);
  border: 1px solid var(--ink-soft);
  border-radius: 4px;
  box-shadow: 0 4px 18px var(--shade);
  padding: 10px 14px;
  font-size: 0.9688rem;
  outline: none;
  p {
    margin: 4px 0 0;
  }
`;
