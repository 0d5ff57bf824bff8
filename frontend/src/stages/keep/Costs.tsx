/** Yearly cost of the tank, by device. */
import { styled } from "styled-components";
import type { KeepView } from "../../api/schemas";
import { Figure } from "../../kit";
import { money } from "../../quantity/format";

export function Costs({
  costs: { year, assumed, bought, bought_count },
}: {
  costs: NonNullable<KeepView["costs"]>;
}) {
  return (
    <>
      <p>
        <Figure title="A year of this tank" lines={year.working} of="money_year">
          {year.verdict}
        </Figure>
      </p>
      <Table>
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">kWh a year</th>
            <th scope="col">Money a year</th>
          </tr>
        </thead>
        <tbody>
          {year.rows.map((row) => (
            <tr key={row.name}>
              <th scope="row">{row.name}</th>
              <td>{row.kwh_year == null ? "" : row.kwh_year.toFixed(0)}</td>
              <td>{money(row.money_year)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {bought_count > 0 && (
        <p>
          Bought so far: {money(bought)}, {bought_count} {bought_count === 1 ? "thing" : "things"}.
        </p>
      )}
      <small>Assumed: {assumed.join(", ")}.</small>
    </>
  );
}

const Table = styled.table`
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  th,
  td {
    text-align: right;
    padding: 4px 0 4px 24px;
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
`;
