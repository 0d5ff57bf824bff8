/** Kinds and sizes in figures: what the map shows, for who would rather read it. */
import { styled } from "styled-components";
import type { FilterView } from "../api/schemas";
import { Fold, phone } from "../kit";
import { bare, unitName } from "../quantity/format";

export function TypeTable({ kinds }: { kinds: FilterView["types"]["kinds"] }) {
  return (
    <Fold summary="As a table">
      <Figures>
        <thead>
          <tr>
            <th scope="col">Kind</th>
            <th scope="col">Box says, {unitName("L/h")}</th>
            <th scope="col">Smaller</th>
            <th scope="col">Larger</th>
            <th scope="col">Cleaned</th>
            <th scope="col">Heard, dB</th>
            <th scope="col">Draws, W</th>
          </tr>
        </thead>
        <tbody>
          {kinds.map((row) => (
            <tr key={row.kind}>
              <th scope="row">
                {row.count > 1 && `${row.count} × `}
                {row.title}
              </th>
              {row.low_lph != null && row.high_lph != null ? (
                <>
                  <td>
                    {bare(row.low_lph, "L/h")} to {bare(row.high_lph, "L/h")}
                  </td>
                  <td>{row.binds_low}</td>
                  <td>{row.binds_high}</td>
                  <td>{row.serviced}</td>
                  <td>{row.noise_db?.toFixed(0)}</td>
                  <td>{row.watts?.toFixed(0)}</td>
                </>
              ) : (
                <td colSpan={6}>{row.barred}</td>
              )}
            </tr>
          ))}
        </tbody>
      </Figures>
    </Fold>
  );
}

const Figures = styled.table`
  border-collapse: collapse;
  font-size: 0.9375rem;
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 3px 12px 3px 0;
    border-bottom: 1px solid var(--line);
  }
  ${phone} {
    display: block;
    overflow-x: auto;
  }
`;
