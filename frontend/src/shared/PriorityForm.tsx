/** Priorities, 0 to 5, and the contribution of each for the filter shown. */
import { range } from "../api/range";
import { styled } from "styled-components";
import type { Candidate, FilterPlan, Priorities } from "../api/schemas";
import { Slider, Waiting } from "../kit";
import { NumberBox } from "../kit/quantities";
import { fixed } from "../quantity/format";

const LABELS: Record<keyof Priorities, string> = {
  price: "Cheap to buy",
  running_cost: "Cheap to run",
  quiet: "Quiet",
  easy_clean: "Easy to clean",
  clear_water: "Clear water",
  hidden: "Out of sight",
  room_in_tank: "Leaves the tank free",
  flood_safety: "Little that can flood",
  young_safe: "Safe for young and shrimp",
  power_cut: "Rides out a power cut",
  chemical: "Takes chemical media",
  expandable: "Room to grow",
  redundant: "A spare if one fails",
};

interface Props {
  /** As set, or the default for this site. */
  priorities: Priorities | undefined;
  candidate: Candidate | undefined;
  pricePerKwh: number;
  onChange: (change: Partial<Pick<FilterPlan, "priorities" | "price_per_kwh">>) => void;
}

export function PriorityForm({ priorities, candidate, pricePerKwh, onChange }: Props) {
  if (!priorities) return <Waiting>Looking at the room…</Waiting>;
  return (
    <>
      <Sliders>
        {(Object.keys(LABELS) as (keyof Priorities)[]).map((key) => (
          <Slider
            key={key}
            label={LABELS[key]}
            value={priorities[key]}
            onChange={(value) => {
              onChange({ priorities: { ...priorities, [key]: value } });
            }}
          />
        ))}
        <NumberBox
          label="Price of a kWh"
          value={pricePerKwh}
          {...range("RunningCostQuestion.price_per_kwh")}
          onChange={(value) => {
            onChange({ price_per_kwh: value });
          }}
        />
      </Sliders>
      {candidate && (
        <Points>
          <caption>
            What each gave {candidate.name}: {candidate.score.toFixed(0)} points of 100
          </caption>
          <tbody>
            {candidate.contributions.map((c) => (
              <tr key={c.priority}>
                <th scope="row">
                  {c.priority === "flow" ? "Flow fits" : LABELS[c.priority as keyof Priorities]}
                </th>
                <td>
                  <i style={{ width: `${c.points * 4}px` }} />
                  {fixed(c.points, 1)}
                </td>
              </tr>
            ))}
          </tbody>
        </Points>
      )}
    </>
  );
}

const Sliders = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 8px 22px;
`;
const Points = styled.table`
  border-collapse: collapse;
  margin-top: 10px;
  font-size: 0.9375rem;
  caption {
    text-align: left;
    color: var(--ink-soft);
  }
  th {
    font-weight: 400;
    text-align: left;
    padding-right: 20px;
  }
  i {
    display: inline-block;
    height: 10px;
    background: var(--reed);
    margin-right: 8px;
  }
`;
