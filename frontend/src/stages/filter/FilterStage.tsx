/** Filter: what each would really deliver here, ranked, with reasons; choose one. */
import { useState } from "react";
import { styled } from "styled-components";
import { useDraft } from "../../api/drafts";
import { useCompute } from "../../api/hooks";
import type { Candidate, Excluded, Filter, FilterPlan } from "../../api/schemas";
import { OperatingPoint } from "../../charts/OperatingPoint";
import { Schools } from "../../charts/Schools";
import {
  Button,
  Caution,
  Fields,
  Figure,
  Lead,
  NumberBox,
  phone,
  ProblemNote,
  Slider,
  Verdict,
  Waiting,
} from "../../kit";
import { QuantityField } from "../../quantity";
import { Section, type SectionLabel } from "../../section/Section";
import { filterPlan, SaveBar, stockPlan, tankPlan, TwoColumns, type StageProps } from "../shared";
import { OwnFilter } from "./OwnFilter";
import { operatingQuestion } from "./questions";

const PRIORITIES = [
  ["price", "Cheap to buy"],
  ["running_cost", "Cheap to run"],
  ["quiet", "Quiet"],
  ["easy_clean", "Easy to clean"],
  ["clear_water", "Clear water"],
  ["hidden", "Out of sight"],
  ["room_in_tank", "Leaves the tank free"],
  ["flood_safety", "Little that can flood"],
  ["power_cut", "Rides out a power cut"],
  ["chemical", "Takes chemical media"],
] as const;
const START = {
  price: 3,
  running_cost: 1,
  quiet: 3,
  easy_clean: 3,
  clear_water: 2,
  hidden: 2,
  room_in_tank: 1,
  flood_safety: 2,
  power_cut: 2,
  chemical: 0,
};

export function FilterStage({ tankId, standing, tables }: StageProps) {
  const draft = useDraft<FilterPlan>(
    tankId,
    "filter",
    filterPlan(standing),
    standing.filter_plan?.id ?? null,
  );
  const [seen, setSeen] = useState<string | null>(null);
  const plan = tankPlan(standing);
  const around = plan.surroundings ?? {};
  const { animals } = stockPlan(standing);
  const volume = useCompute("tank-volume", plan.tank);
  const v = volume.data;
  const own = draft.value.own_filters ?? [];
  const plumbing = draft.value.plumbing ?? {};
  const ranking = useCompute(
    "rank-filters",
    v
      ? {
          room: {
            net_l: v.net_l,
            water_depth_cm: v.water_depth_cm,
            length_cm: v.inside_length_cm,
            width_cm: v.inside_width_cm,
            rim_to_water_cm: plan.tank.fill_below_rim_cm,
            behind_cm: around.behind_cm,
            beneath_cm: around.stand_height_cm,
            sockets: around.sockets,
            salt_water: around.salt_water,
          },
          animals,
          plumbing,
          priorities: draft.value.priorities,
          own_filters: own,
          price_per_kwh: draft.value.price_per_kwh,
        }
      : null,
  );
  const requirement = useCompute("flow-requirement", v ? { net_l: v.net_l, animals } : null);
  const load = useCompute("waste-load", v ? { net_l: v.net_l, animals } : null);
  const ranked = ranking.data?.ranked ?? [];
  const chosen = draft.value.chosen ?? null;
  const candidate = ranked.find((c) => c.filter_id === (seen ?? chosen?.id)) ?? ranked[0];
  const filter = [...tables.catalogue, ...own].find((f) => f.id === candidate?.filter_id) ?? null;
  const question =
    v && filter ? operatingQuestion(filter, plan, plumbing, v, load.data?.feed_g_day ?? 1) : null;
  const point = useCompute("operating-point", question);
  const curve = question && !point.error && !point.isPlaceholderData ? point.data : undefined;
  const set = (change: (now: FilterPlan) => FilterPlan) => {
    draft.set(change);
  };
  const setPlumbing = (change: Partial<NonNullable<FilterPlan["plumbing"]>>) => {
    set((p) => ({ ...p, plumbing: { ...p.plumbing, ...change } }));
  };
  const labels: SectionLabel[] = [];
  if (candidate && filter) {
    labels.push({
      at: "outlet",
      lines: [
        `${candidate.delivered_lph.toFixed(0)} L/h comes out`,
        `the box says ${candidate.box_lph.toFixed(0)}`,
      ],
    });
    const hose = curve?.head_budget.find((p) => p.part.includes("hose"));
    if (filter.kind === "canister" && hose)
      labels.push({ at: "hose", lines: [hose.part, `costs ${hose.head_m.toFixed(2)} m of head`] });
  }
  return (
    <TwoColumns
      drawing={
        <Section
          plan={plan}
          volume={v}
          animals={animals}
          species={tables.species}
          filter={filter}
          labels={labels}
          caption={
            candidate
              ? `${candidate.name} on this tank: ${candidate.delivered_lph.toFixed(0)} L/h delivered.`
              : "The tank, without a filter that fits."
          }
        />
      }
      beside={
        <>
          {ranking.data?.single_change && <Change>{ranking.data.single_change}</Change>}
          <div>
            <h2>For your priorities</h2>
            <Ranked aria-label="Filters that fit, best first">
              {ranked.slice(0, 4).map((c) => (
                <li key={c.filter_id}>
                  <button
                    type="button"
                    aria-pressed={c.filter_id === candidate?.filter_id}
                    onClick={() => {
                      setSeen(c.filter_id);
                    }}
                  >
                    <b>{c.name}</b>
                    <span>{c.delivered_lph.toFixed(0)} L/h</span>
                    <small>{c.reason}</small>
                    <small>
                      {c.watts} W · {c.price.toFixed(0)}
                    </small>
                  </button>
                </li>
              ))}
            </Ranked>
          </div>
        </>
      }
    >
      <ProblemNote problem={ranking.error ?? volume.error} />
      {!ranking.data && !ranking.error && (
        <Waiting>Working out the flow of every filter on this tank…</Waiting>
      )}
      {candidate && (
        <>
          <Verdict>
            {candidate.name} would move{" "}
            <em>
              <Figure
                title={`${candidate.name}: delivered flow`}
                lines={curve?.working ?? ranking.data?.working}
              >
                {candidate.delivered_lph.toFixed(0)} litres an hour
              </Figure>
            </em>{" "}
            {filter?.kind === "canister" ? "through your hoses" : "on your tank"}, not the{" "}
            {candidate.box_lph.toFixed(0)} on its box.
          </Verdict>
          <Lead>
            That is {candidate.turnovers_per_hour.toFixed(1)} times your {v?.net_l.toFixed(0)} L clean,{" "}
            {(candidate.dirty_lph / (v?.net_l ?? 1)).toFixed(1)} in service; careful keepers ask{" "}
            {((ranking.data?.asked_low_lph ?? 0) / (v?.net_l ?? 1)).toFixed(1)} to{" "}
            {((ranking.data?.asked_high_lph ?? 0) / (v?.net_l ?? 1)).toFixed(1)}.{" "}
            {filter?.kind === "canister" && (plumbing.rise_to_open_air_m ?? 0) === 0
              ? "Both hose ends are under water, so the height costs nothing. "
              : ""}
            {!standing.stock_plan && "No animals are chosen yet: a community tank is assumed."}
          </Lead>
        </>
      )}
      {ranking.data && !candidate && <Verdict>{ranking.data.verdict}</Verdict>}
      {requirement.data && v && (
        <Schools requirement={requirement.data} netL={v.net_l} candidate={candidate} />
      )}
      <Pair>
        <div>
          {curve ? (
            <OperatingPoint answer={curve} />
          ) : (
            candidate && filter?.kind === "sponge" && <AirLift filter={filter} candidate={candidate} />
          )}
        </div>
        <div>
          {candidate?.caveats.map((c) => (
            <Caution key={c}>{c}</Caution>
          ))}
          <SaveBar
            tankId={tankId}
            draft={draft}
            words={chosen ? `Save with ${chosen.name}` : "Save without choosing"}
            describe={(b) =>
              `${b.chosen?.name ?? "no filter chosen"}, ${b.plumbing?.hose_length_m ?? 2.8} m of hose`
            }
            extra={
              filter &&
              filter.id !== chosen?.id && (
                <Button
                  onPress={() => {
                    set((p) => ({ ...p, chosen: filter }));
                  }}
                >
                  Choose {filter.name}
                </Button>
              )
            }
          />
        </div>
      </Pair>
      <Folds>
        <details>
          <summary>Plumbing of a canister</summary>
          <Fields>
            <QuantityField
              label="Both hoses together"
              kind="length"
              value={(plumbing.hose_length_m ?? 2.8) * 100}
              onChange={(cm) => {
                setPlumbing({ hose_length_m: cm / 100 });
              }}
            />
            <NumberBox
              label="Hose bore, mm (0: the filter’s own)"
              value={plumbing.hose_bore_mm ?? 0}
              min={0}
              max={60}
              onChange={(mm) => {
                setPlumbing({ hose_bore_mm: mm >= 6 ? mm : null });
              }}
            />
            <QuantityField
              label="Rise to open air"
              kind="length"
              value={(plumbing.rise_to_open_air_m ?? 0) * 100}
              onChange={(cm) => {
                setPlumbing({ rise_to_open_air_m: cm / 100 });
              }}
              hint="0 when both ends are under water"
            />
            <NumberBox
              label="U-bends"
              value={count(plumbing, "u-bend", 2)}
              min={0}
              max={10}
              onChange={(n) => {
                setPlumbing({ fittings: fittings(plumbing, "u-bend", n) });
              }}
            />
            <NumberBox
              label="Elbows"
              value={count(plumbing, "elbow", 0)}
              min={0}
              max={10}
              onChange={(n) => {
                setPlumbing({ fittings: fittings(plumbing, "elbow", n) });
              }}
            />
            <NumberBox
              label="Spray bars"
              value={count(plumbing, "spray-bar", 1)}
              min={0}
              max={2}
              onChange={(n) => {
                setPlumbing({ fittings: fittings(plumbing, "spray-bar", n) });
              }}
            />
          </Fields>
        </details>
        <details>
          <summary>What matters to you</summary>
          <Sliders>
            {PRIORITIES.map(([key, label]) => (
              <Slider
                key={key}
                label={label}
                value={draft.value.priorities?.[key] ?? START[key]}
                onChange={(value) => {
                  set((p) => ({ ...p, priorities: { ...START, ...p.priorities, [key]: value } }));
                }}
              />
            ))}
            <NumberBox
              label="Price of a kWh"
              value={draft.value.price_per_kwh ?? 0.3}
              min={0}
              max={100}
              onChange={(value) => {
                set((p) => ({ ...p, price_per_kwh: value }));
              }}
            />
          </Sliders>
          {candidate && (
            <table>
              <caption>What each gave {candidate.name}</caption>
              <tbody>
                {candidate.contributions.map((c) => (
                  <tr key={c.priority}>
                    <th scope="row">
                      {c.priority === "flow"
                        ? "Flow fits"
                        : (PRIORITIES.find(([k]) => k === c.priority)?.[1] ?? c.priority)}
                    </th>
                    <td>{c.points.toFixed(1)} points</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </details>
        <details>
          <summary>A filter of your own, from its box</summary>
          <OwnFilter
            onAdd={(f: Filter) => {
              set((p) => ({ ...p, own_filters: [...(p.own_filters ?? []).filter((o) => o.id !== f.id), f] }));
              setSeen(f.id);
            }}
          />
        </details>
        <details>
          <summary>
            {ranking.data?.excluded_count ?? 0} left out, and why; {ranking.data?.fitting_count ?? 0} fit
          </summary>
          <Left>
            {ranking.data?.excluded.map((e: Excluded) => (
              <li key={e.filter_id}>
                <b>{e.name}</b>: {e.reason}.{" "}
                <i>
                  {e.remedy[0]?.toUpperCase()}
                  {e.remedy.slice(1)}
                </i>
                {e.would_rank != null && ` and it would come ${ordinal(e.would_rank)}`}.
              </li>
            ))}
            {ranked.slice(4).map((c) => (
              <li key={c.filter_id}>
                <b>{c.name}</b> fits: {c.delivered_lph.toFixed(0)} L/h, {c.reason}.
              </li>
            ))}
          </Left>
        </details>
      </Folds>
    </TwoColumns>
  );
}

function AirLift({ filter, candidate }: { filter: Filter; candidate: Candidate }) {
  return (
    <Lead>
      {filter.air_l_min} L/min of air in a {filter.tube_bore_mm} mm tube lifts{" "}
      {candidate.delivered_lph.toFixed(0)} L/h through clean foam and {candidate.dirty_lph.toFixed(0)} after a
      month. No pump stands in the water.
    </Lead>
  );
}

type Kind = NonNullable<NonNullable<FilterPlan["plumbing"]>["fittings"]>[number]["kind"];
const USUAL: { kind: Kind; count: number }[] = [
  { kind: "strainer", count: 1 },
  { kind: "entrance", count: 1 },
  { kind: "u-bend", count: 2 },
  { kind: "quick-valve", count: 1 },
  { kind: "spray-bar", count: 1 },
  { kind: "exit", count: 1 },
];
function count(plumbing: NonNullable<FilterPlan["plumbing"]>, kind: Kind, usual: number): number {
  if (!plumbing.fittings) return usual;
  return plumbing.fittings.find((f) => f.kind === kind)?.count ?? 0;
}
function fittings(plumbing: NonNullable<FilterPlan["plumbing"]>, kind: Kind, n: number) {
  const rest = (plumbing.fittings ?? USUAL).filter((f) => f.kind !== kind);
  return n > 0 ? [...rest, { kind, count: n }] : rest;
}
function ordinal(n: number): string {
  return n === 1 ? "first" : n === 2 ? "second" : n === 3 ? "third" : `number ${n}`;
}

const Change = styled.p`
  font:
    italic 400 19px/1.35 Vollkorn,
    serif;
  border-left: 3px solid var(--seed);
  padding-left: 12px;
`;
const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 22px;
  border-top: 1px solid var(--line);
  padding-top: 10px;
  > div {
    display: grid;
    gap: 8px;
    align-content: start;
  }
  ${phone} {
    grid-template-columns: 1fr;
  }
`;
const Ranked = styled.ol`
  button {
    width: 100%;
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 0 10px;
    text-align: left;
    border: 0;
    border-left: 4px solid transparent;
    border-bottom: 1px solid var(--line);
    background: none;
    padding: 4px 6px 4px 8px;
    cursor: pointer;
    min-height: 44px;
  }
  button[aria-pressed="true"] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  small {
    color: var(--ink-soft);
    font-size: 14.5px;
    line-height: 1.25;
  }
`;
const Folds = styled.div`
  summary {
    cursor: pointer;
    font-weight: 600;
    padding: 8px 0;
    min-height: 44px;
    display: list-item;
  }
  details {
    border-top: 1px solid var(--line);
  }
  details[open] {
    padding-bottom: 12px;
  }
  table {
    border-collapse: collapse;
    margin-top: 10px;
  }
  caption {
    text-align: left;
    color: var(--ink-soft);
  }
  th {
    font-weight: 400;
    text-align: left;
    padding-right: 20px;
  }
`;
const Sliders = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px 22px;
`;
const Left = styled.ul`
  display: grid;
  gap: 5px;
  font-size: 15px;
`;
