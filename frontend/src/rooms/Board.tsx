/** Board: every tank of the room in a row, urgent ones first. */
import { Link } from "react-router";
import { styled } from "styled-components";
import type { BoardRow, RoomView } from "../api/schemas";
import { phone, YesNo } from "../kit";
import { fixed, show } from "../quantity/format";
import { MARKS, standsOf } from "./state";
import { LOCALE } from "../quantity/locale";

interface Props {
  rows: BoardRow[];
  air: RoomView["air"];
  chosen: number[];
  onChoose: (ids: number[]) => void;
}

export function Board({ rows, air, chosen, onChoose }: Props) {
  const got = new Map(air?.outlets.map((o) => [o.key, o.air_l_min] as const) ?? []);
  return (
    <Rows aria-label="The board, what cannot wait first">
      {rows.map((row) => {
        const stands = standsOf(row);
        const litres = row.air_keys.reduce((sum, key) => sum + (got.get(key) ?? 0), 0);
        const next = row.next[0];
        return (
          <li key={row.tank_id} data-stands={stands}>
            <YesNo
              label={row.name}
              value={chosen.includes(row.tank_id)}
              onChange={(on) => {
                onChoose(on ? [...chosen, row.tank_id] : chosen.filter((id) => id !== row.tank_id));
              }}
            />
            <div>
              <p>
                {MARKS[stands] && <i aria-hidden="true">{MARKS[stands]} </i>}
                {row.urgent ? (
                  <Link to={`/tanks/${row.tank_id}/cycle`}>{row.verdict}</Link>
                ) : next ? (
                  <>
                    <Link to={`/tanks/${row.tank_id}/${next.stage}`}>{next.title}</Link>{" "}
                    <small>{dayWords(next.at)}</small>
                  </>
                ) : (
                  <Link to={`/tanks/${row.tank_id}/tank`}>{row.verdict}</Link>
                )}
              </p>
              <small>{facts(row, litres).join(" · ")}</small>
            </div>
          </li>
        );
      })}
    </Rows>
  );
}

function facts(row: BoardRow, airLitres: number): string[] {
  if (row.at_odds) return [];
  const found = [row.who, show(row.net_l, "L")];
  if (row.quarantine) found.unshift(row.quarantine);
  if (row.flow_lph != null) found.push(`flow ${show(row.flow_lph, "L/h")}`);
  if (row.air_keys.length && airLitres > 0) found.push(`air ${fixed(airLitres, 2)} L/min`);
  if (row.tested_at) found.push(`tested ${new Date(row.tested_at).toLocaleDateString(LOCALE)}`);
  for (const seed of row.seeds)
    found.push(`${seed.name} seeds since ${new Date(seed.since).toLocaleDateString(LOCALE)}`);
  return found;
}

function dayWords(at: string): string {
  const days = Math.ceil((new Date(at).getTime() - Date.now()) / 86_400_000);
  if (days <= -1) return `${-days} ${days === -1 ? "day" : "days"} late`;
  if (days <= 0) return "now";
  return days === 1
    ? "tomorrow"
    : new Date(at).toLocaleDateString(LOCALE, { weekday: "short", day: "numeric", month: "short" });
}

const Rows = styled.ul`
  > li {
    display: grid;
    grid-template-columns: 140px minmax(0, 1fr);
    gap: 2px 12px;
    align-items: start;
    padding: 5px 0 5px 8px;
    border-top: 1px solid var(--line);
    border-left: 4px solid transparent;
  }
  > li[data-stands="urgent"] {
    border-left-color: var(--alarm);
    background: var(--silt);
  }
  > li[data-stands="due"] {
    border-left-color: var(--seed);
  }
  label {
    font-weight: 600;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  i {
    font-style: normal;
    color: var(--seed);
  }
  li[data-stands="urgent"] i {
    color: var(--alarm);
    font-weight: 700;
  }
  ${phone} {
    > li {
      grid-template-columns: 116px minmax(0, 1fr);
    }
  }
`;
