/** How something is done by hand, shown in two lines where it is asked for. */
import type { ReactNode } from "react";
import { styled } from "styled-components";
import type { Tables } from "../api/schemas";
import { useTables } from "../api/tables";

type Key = Tables["how_to"][number]["key"];

interface Props {
  of: Key | Key[];
  /** The question they answer. Default: the first one's own title. */
  children?: ReactNode;
}

export function HowTo({ of, children }: Props) {
  const keys = [of].flat();
  const found = useTables().data?.how_to.filter((one) => keys.includes(one.key)) ?? [];
  if (!found[0]) return null;
  return (
    <Lines>
      <summary>{children ?? found[0].title}</summary>
      {found.map((one) => (
        <p key={one.key}>
          {found.length > 1 && <b>{one.title}. </b>}
          {one.text}
        </p>
      ))}
    </Lines>
  );
}

const Lines = styled.details`
  font-size: 0.9375rem;
  color: var(--ink-soft);
  max-width: 60ch;
  summary {
    width: fit-content;
    text-decoration: underline dotted;
    text-underline-offset: 3px;
  }
`;
