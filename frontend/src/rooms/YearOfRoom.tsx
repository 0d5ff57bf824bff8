/** A year of the room in three ways: money, sockets, hours, and the reach of one failure. */
import { styled } from "styled-components";
import type { RoomView } from "../api/schemas";
import { Figure } from "../kit";
import { money } from "../quantity/format";

export function RoomYear({ year }: { year: NonNullable<RoomView["year"]> }) {
  return (
    <details>
      <summary>A year of these tanks, three ways</summary>
      <p>
        <Figure title="A year of the room" lines={year.working}>
          {year.verdict}
        </Figure>
      </p>
      <Table>
        <thead>
          <tr>
            <td />
            {year.ways.map((w) => (
              <th key={w.way} scope="col">
                {w.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {ROWS.map(([name, of]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {year.ways.map((w) => (
                <td key={w.way}>{of(w)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </details>
  );
}

type Way = NonNullable<RoomView["year"]>["ways"][number];
const ROWS: readonly (readonly [string, (way: Way) => string])[] = [
  ["To buy", (w) => money(w.buy_money, 0)],
  ["Energy of a year", (w) => `${money(w.year_money, 0)}, ${w.kwh_year.toFixed(0)} kWh`],
  ["Sockets", (w) => String(w.sockets_count)],
  ["Care", (w) => `${w.hours_year.toFixed(0)} hours a year`],
  ["One failure", (w) => w.one_failure],
  ["Disease", (w) => w.disease],
];

const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9375rem;
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 4px 10px 4px 0;
    border-bottom: 1px solid var(--line);
    font-weight: 400;
  }
  thead th {
    font-weight: 600;
  }
  tbody th {
    color: var(--ink-soft);
  }
`;
