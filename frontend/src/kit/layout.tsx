/** Layouts shared by stages: a bar of buttons, a row of facts, columns. */
import { styled } from "styled-components";

export const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  > span {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  > a {
    min-height: 24px;
    display: inline-flex;
    align-items: center;
  }
`;

export const Facts = styled.dl`
  display: flex;
  flex-wrap: wrap;
  gap: 6px 26px;
  border-top: 1px solid var(--line);
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
  dt {
    font-size: 0.9062rem;
    color: var(--ink-soft);
  }
  dd {
    font-size: 1.1875rem;
    font-weight: 600;
  }
  small {
    font-weight: 400;
    font-size: 0.9062rem;
    color: var(--ink-soft);
  }
`;

export const Columns = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(270px, 1fr));
  gap: 14px 26px;
  align-items: start;
  > * {
    min-width: 0;
  }
`;
