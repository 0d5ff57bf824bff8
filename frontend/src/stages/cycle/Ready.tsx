/** Readiness by every standard, its confidence, and the nitrogen balance. */
import { styled } from "styled-components";
import type { CycleState } from "../../api/schemas";
import { Figure, Lead, Term } from "../../kit";
import { fixed } from "../../quantity/format";

export function Ready({ state }: { state: CycleState }) {
  const { readiness, balance } = state;
  if (!readiness) return null;
  return (
    <>
      <section aria-label="Standards of ready">
        <h2>
          Ready, by each standard (
          {readiness.confidence === "none" ? "no tests yet" : `${readiness.confidence} confidence`})
        </h2>
        <Table>
          <tbody>
            {readiness.standards.map((s) => (
              <tr key={s.standard} data-followed={s.followed || undefined}>
                <th scope="row">
                  {s.title}
                  {s.followed && <i> (followed here: {readiness.why_followed})</i>}
                </th>
                <td>
                  {s.cleared} of {s.needed}
                </td>
                <td>{s.passes ? "passes" : s.missing}</td>
              </tr>
            ))}
          </tbody>
        </Table>
        {readiness.clears && (
          <Lead>
            <Figure title="What it clears now" lines={readiness.working}>
              {readiness.clears}
            </Figure>
          </Lead>
        )}
        <Lead>
          What counts as a <Term of="proof">proof</Term>.
        </Lead>
        <Lead>How sure: {readiness.confidence_why.join(", ")}.</Lead>
      </section>
      {balance && (
        <section aria-label="Nitrogen balance">
          <h2>Nitrogen, put in and found (mg/L as N)</h2>
          <Lead>
            <Figure title="Nitrogen balance" lines={balance.working}>
              {balance.verdict}
            </Figure>{" "}
            At most {balance.most_nitrate_ppm.toFixed(0)} ppm of nitrate can come of it.
          </Lead>
          <Books
            rows={[
              ["put in", balance.added_mg_n_l],
              ["to be expected", balance.expected_mg_n_l],
              ["found", balance.found_mg_n_l],
            ]}
          />
        </section>
      )}
    </>
  );
}

function Books({ rows }: { rows: [string, number | null | undefined][] }) {
  const most = Math.max(...rows.map(([, v]) => v ?? 0), 0.1);
  return (
    <Bars>
      {rows.map(([name, value]) => (
        <li key={name}>
          <span>{name}</span>
          <i
            style={{ width: `${((value ?? 0) / most) * 100}%` }}
            data-found={name === "found" || undefined}
          />
          <b>{value == null ? "not yet tested" : `${fixed(value, 1)} mg/L`}</b>
        </li>
      ))}
    </Bars>
  );
}

export const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9375rem;
  th {
    font-weight: 400;
    text-align: left;
  }
  thead th {
    color: var(--ink-soft);
  }
  th,
  td {
    border-bottom: 1px solid var(--line);
    padding: 4px 12px 4px 0;
    vertical-align: top;
  }
  td:nth-child(2) {
    white-space: nowrap;
  }
  tr[data-followed] th {
    font-weight: 600;
  }
  tr[data-followed] th i {
    font-weight: 400;
  }
`;
const Bars = styled.ul`
  max-width: 560px;
  li {
    display: grid;
    grid-template-columns: 110px 1fr 90px;
    gap: 10px;
    align-items: center;
    font-size: 0.9375rem;
    padding: 2px 0;
  }
  i {
    height: 10px;
    background: var(--seed-fill);
    border: 1px solid var(--seed);
  }
  i[data-found] {
    background: var(--water-fill);
    border-color: var(--water);
  }
  b {
    text-align: right;
    font-weight: 400;
  }
`;
