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
  font-size: 15.5px;
  outline: none;
  p {
    margin: 4px 0 0;
  }
`;
