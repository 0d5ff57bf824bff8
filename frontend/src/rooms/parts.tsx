/** Layout of the room's folds: fields side by side, and a table of figures. */
import { styled } from "styled-components";

export const Fields = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(120px, 1fr));
  gap: 8px 14px;
  align-items: end;
  padding: 6px 0;
`;
export const Figures = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9375rem;
  th,
  td {
    text-align: right;
    vertical-align: bottom;
    padding: 3px 0 3px 8px;
    border-bottom: 1px solid var(--line);
    font-weight: 400;
  }
  th:first-child {
    text-align: left;
    padding-left: 0;
  }
  thead th {
    color: var(--ink-soft);
  }
  tr[data-fault] th {
    color: var(--alarm);
    font-weight: 600;
  }
`;
export const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  > div {
    max-width: 230px;
  }
`;
