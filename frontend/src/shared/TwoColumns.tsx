/** Layout of a stage: drawing beside the work, stacked on a phone. */
import { createContext, useContext, type ReactNode } from "react";
import { styled } from "styled-components";
import { WaitingPage } from "../kit";
import { useNarrow } from "../kit/usePhone";

interface TwoColumnsProps {
  /** Beside the work; stacked, where `DrawingHere` stands. */
  drawing: ReactNode;
  /** Under the drawing on a wide screen, after the work where columns are stacked. */
  beside?: ReactNode;
  /** Placeholder while the first answer is loading, so that nothing shifts a moment later. */
  opening?: string;
  children: ReactNode;
}

export function TwoColumns({ drawing, beside: below, opening, children: work }: TwoColumnsProps) {
  const narrow = useNarrow();
  const children = opening ? <WaitingPage>{opening}</WaitingPage> : work;
  const beside = opening ? undefined : below;
  // In reading order: left column, then right; stacked, the drawing stands where the work says so.
  return narrow ? (
    <Stacked.Provider value={drawing}>
      <Split>
        <div className="work">
          {opening && <DrawingHere />}
          {children}
        </div>
        {beside && <div>{beside}</div>}
      </Split>
    </Stacked.Provider>
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

const Stacked = createContext<ReactNode>(null);

/** The place of the drawing where columns are stacked: under the verdict and its button. */
export function DrawingHere() {
  const drawing = useContext(Stacked);
  return drawing ? <div className="drawing">{drawing}</div> : null;
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
  /* The section stays visible beside longer work, with what is marked to stay with it; what is read off it scrolls
     behind. */
  &[data-wide] > div > figure:first-child,
  &[data-wide] > div > [data-stays] {
    position: sticky;
    top: 0;
    z-index: 1;
    background: var(--paper);
    padding: 6px 0;
    margin: -6px 0;
  }
  /* A drawing that stays would cover the fields and lines under it, and most of a low window. */
  &[data-wide] > div:has(input, textarea, [role="combobox"], [data-lines]) > figure:first-child {
    position: static;
  }
  @media print, (max-height: 700px) {
    &[data-wide] > div > figure:first-child,
    &[data-wide] > div > [data-stays] {
      position: static;
    }
  }
`;
