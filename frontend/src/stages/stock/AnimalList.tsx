/** The chosen animals: today's length, number, and daily load. */
import { range } from "../../api/range";
import { styled } from "styled-components";
import type { Animals, Species, StockView } from "../../api/schemas";
import { Button } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { bare, fixed, show, sizeOf, unitName } from "../../quantity/format";

interface Props {
  animals: Animals[];
  known: Species[];
  load: StockView["load"] | undefined;
  onChange: (change: (animals: Animals[]) => Animals[]) => void;
}

export function AnimalList({ animals, known, load, onChange }: Props) {
  const nameOf = (id: string) => known.find((s) => s.id === id)?.common_name ?? id;
  return (
    <>
      {animals.length > 0 && (
        <Heads aria-hidden="true">
          <span />
          <span>grown</span>
          <span>{unitName("cm")} today</span>
          <span>how many</span>
          <span />
        </Heads>
      )}
      <List aria-label="Animals chosen">
        {animals.map((a) => {
          const s = known.find((x) => x.id === a.species_id);
          const line = load?.lines.find((l) => l.species_id === a.species_id);
          return (
            <li key={a.species_id}>
              <div>
                <b>{nameOf(a.species_id)}</b>
                {s && (
                  <small>
                    <i>{s.scientific_name}</i>, {sizeOf(s.adult_length_cm)} {unitName("cm")} grown,{" "}
                    {bare(s.temperature_low_c, "°C")} to {show(s.temperature_high_c, "°C")}, pH {s.ph_low} to{" "}
                    {s.ph_high}, {s.current} current
                  </small>
                )}
              </div>
              <span>
                {line ? `${fixed(line.ammonia_mg_n_day, 1)} mg N/day` : ""}
                {line?.growing && <small>{fixed(line.today_mg_n_day, 1)} at today’s size</small>}
              </span>
              <div data-head={`${unitName("cm")} today`}>
                <QuantityField
                  hideLabel
                  unit="cm"
                  label={`Length of ${nameOf(a.species_id)} today`}
                  value={a.length_cm ?? s?.adult_length_cm ?? null}
                  {...range("Animals.length_cm")}
                  onChange={(cm) => {
                    onChange((now) =>
                      now.map((x) =>
                        x.species_id === a.species_id
                          ? { ...x, length_cm: s && cm >= s.adult_length_cm ? null : cm }
                          : x,
                      ),
                    );
                  }}
                />
              </div>
              <div data-count={a.species_id} data-head="how many">
                <NumberBox
                  hideLabel
                  label={`How many ${nameOf(a.species_id)}`}
                  value={a.count}
                  {...range("Animals.count")}
                  onChange={(count) => {
                    onChange((now) => now.map((x) => (x.species_id === a.species_id ? { ...x, count } : x)));
                  }}
                />
              </div>
              <Button
                $quiet
                aria-label={`Remove ${nameOf(a.species_id)}`}
                onPress={() => {
                  onChange((now) => now.filter((x) => x.species_id !== a.species_id));
                }}
              >
                Remove
              </Button>
            </li>
          );
        })}
      </List>
    </>
  );
}

const Heads = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 100px 62px 62px 92px;
  gap: 14px;
  font-size: 0.875rem;
  color: var(--ink-soft);
  margin-bottom: -10px;
  @media (max-width: 45em) {
    display: none;
  }
`;
const List = styled.ul`
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 100px 62px 62px auto;
    gap: 4px 14px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid var(--line);
  }
  small {
    display: block;
    color: var(--ink-soft);
    font-size: 0.9062rem;
  }
  span {
    color: var(--ink-soft);
  }
  @media (max-width: 45em) {
    li {
      grid-template-columns: minmax(0, 1fr) 76px 76px auto;
      align-items: end;
    }
    li > div:first-child {
      grid-column: 1 / -1;
    }
    [data-head]::before {
      content: attr(data-head);
      display: block;
      font-size: 0.875rem;
      color: var(--ink-soft);
    }
  }
`;
