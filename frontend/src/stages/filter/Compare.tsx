/** Up to four filters side by side. */
import { useState } from "react";
import { styled } from "styled-components";
import type { Candidate, RankAnswer } from "../../api/schemas";
import { YesNo } from "../../kit";
import { fixed, money, short, show } from "../../quantity/format";

const MOST = 4;
const OFFERED = 10;

export function Compare({ answer }: { answer: RankAnswer }) {
  const [ids, setIds] = useState<string[]>([]);
  const best = answer.ranked.slice(0, OFFERED);
  const picked = ids.filter((id) => best.some((c) => c.filter_id === id));
  const shown = picked.length ? picked : best.slice(0, 3).map((c) => c.filter_id);
  return (
    <>
      <Choices>
        {best.map((c) => (
          <YesNo
            key={c.filter_id}
            label={c.name}
            value={shown.includes(c.filter_id)}
            onChange={(on) => {
              setIds(on ? [...shown, c.filter_id].slice(-MOST) : shown.filter((id) => id !== c.filter_id));
            }}
          />
        ))}
      </Choices>
      <ComparisonTable candidates={best.filter((c) => shown.includes(c.filter_id))} />
    </>
  );
}

const LINES: [string, (c: Candidate) => string][] = [
  ["Kind", (c) => c.kind],
  ["On the box", (c) => show(c.box_lph, "L/h")],
  ["Delivered, clean", (c) => show(c.delivered_lph, "L/h")],
  ["In service", (c) => show(c.dirty_lph, "L/h")],
  ["Times the tank", (c) => fixed(c.turnovers_per_hour, 1)],
  ["Cleaned about every", (c) => `${c.service_day.toFixed(0)} days`],
  [
    "Film for",
    (c) => `${c.carries_times_count >= 100 ? "over 100" : fixed(c.carries_times_count, 1)} × the load`,
  ],
  ["Media if ceramic", (c) => show(c.media_kg, "kg", 1)],
  ["Lifts over", (c) => (c.rise_m > 0 ? show(c.rise_m * 100, "cm") : "nothing")],
  ["Power", (c) => `${short(c.watts, 1)} W`],
  ["Noise here, at a metre", (c) => `${c.noise_db.toFixed(0)} dB`],
  ["To buy", (c) => (c.price_known ? c.price.toFixed(0) : "no price named")],
  ["Three years, with power", (c) => (c.price_known ? money(c.money_three_years, 0) : "no price named")],
  ["For it, against it", (c) => c.reason],
  ["Points of 100", (c) => c.score.toFixed(0)],
];

export function ComparisonTable({ candidates }: { candidates: Candidate[] }) {
  return (
    <Scroll>
      <table>
        <thead>
          <tr>
            <th scope="col">
              <span>On this tank</span>
            </th>
            {candidates.map((c) => (
              <th key={c.filter_id} scope="col">
                {c.name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {LINES.map(([label, cell]) => (
            <tr key={label}>
              <th scope="row">{label}</th>
              {candidates.map((c) => (
                <td key={c.filter_id}>{cell(c)}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}

const Choices = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 0 18px;
  margin-bottom: 8px;
`;
const Scroll = styled.div`
  overflow-x: auto;
  table {
    border-collapse: collapse;
    font-size: 0.9375rem;
    width: 100%;
  }
  th,
  td {
    text-align: left;
    vertical-align: top;
    padding: 4px 14px 4px 0;
    border-bottom: 1px solid var(--line);
  }
  tbody th {
    font-weight: 400;
    color: var(--ink-soft);
    white-space: nowrap;
  }
`;
