/** Layout of a stage: drawing beside the work, stacked on a phone. */
import type { ReactNode } from "react";
import { styled } from "styled-components";
import { Waiting } from "../kit";
import { useNarrow } from "../kit/usePhone";

interface TwoColumnsProps {
  drawing: ReactNode;
  /** Under the drawing on a wide screen, after the work on a phone. */
  beside?: ReactNode;
  /** Placeholder while the first answer is loading, so that nothing shifts a moment later. */
  opening?: string;
  children: ReactNode;
}

export function TwoColumns({ drawing, beside: below, opening, children: work }: TwoColumnsProps) {
  const narrow = useNarrow();
  const children = opening ? <Waiting>{opening}</Waiting> : work;
  const beside = opening ? undefined : below;
  // In reading order: left column, then right; stacked on a phone.
  return narrow ? (
    <Split>
      <div className="drawing">{drawing}</div>
      <div className="work">{children}</div>
      {beside && <div>{beside}</div>}
    </Split>
  ) : (
    <Split data-wide>
      <div>
        {drawing}
        {beside}
      </div>
      <div className="work">{children}</div>
    </Split>
  );
}

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 12px 30px;
  > div {
    display: grid;
    align-content: start;
    gap: 14px;
    min-width: 0;
  }
  .drawing {
    max-width: 560px;
  }
  &[data-wide] {
    grid-template-columns: minmax(0, 560px) minmax(0, 1fr);
  }
  /* The section stays visible beside longer work; content beneath it scrolls behind it. */
  &[data-wide] > div > figure:first-child {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--paper);
    padding: 6px 0;
    margin: -6px 0;
  }
  @media print {
    &[data-wide] > div > figure:first-child {
      position: static;
    }
  }
`;
