/** Filter: what each would really deliver here, ranked, with reasons; choose one, or two. */
import { useRef, useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { useDraft } from "../../api/drafts";
import { useCompute } from "../../api/hooks";
import type { Candidate, Filter, FilterFlow, FilterPlan } from "../../api/schemas";
import { Interval } from "../../charts/Interval";
import { HeadBudget } from "../../charts/HeadBudget";
import { OperatingPoint } from "../../charts/OperatingPoint";
import { Schools } from "../../charts/Schools";
import { Button, Caution, Figure, InlineButton, Lead, phone, ProblemNote, Verdict, Waiting } from "../../kit";
import { Section, type SectionLabel } from "../../section/Section";
import { filterPlan, SaveBar, stockPlan, tankPlan, TwoColumns, type StageProps } from "../shared";
import { AirSupply } from "./AirSupply";
import { CatalogueFiles } from "./CatalogueFiles";
import { Compare } from "./Compare";
import { LeftOut } from "./LeftOut";
import { MediaBuilder } from "./MediaBuilder";
import { Overflow } from "./Overflow";
import { OwnFilter } from "./OwnFilter";
import { PlumbingForm } from "./PlumbingForm";
import { PriorityForm } from "./PriorityForm";
import { RankedList } from "./RankedList";

export function FilterStage({ tankId, standing, tables, rank, calibration }: StageProps) {
  const draft = useDraft<FilterPlan>(
    tankId,
    "filter",
    filterPlan(standing),
    standing.filter_plan?.id ?? null,
  );
  const shop = useRef<HTMLDetailsElement>(null);
  const [seen, setSeen] = useState<string[] | null>(null);
  const plan = tankPlan(standing);
  const { animals } = stockPlan(standing);
  const volume = useCompute("tank-volume", plan.tank);
  const v = volume.data;
  const own = draft.value.own_filters ?? [];
  const plumbing = draft.value.plumbing ?? {};
  const ranking = useCompute("rank-filters", {
    ...rank,
    plumbing,
    priorities: draft.value.priorities,
    own_filters: own,
    price_per_kwh: draft.value.price_per_kwh,
  });
  const netL = rank.room.net_l;
  const requirement = useCompute("flow-requirement", {
    net_l: netL,
    animals: rank.animals,
    own_species: rank.own_species,
  });
  const load = useCompute("waste-load", {
    net_l: netL,
    animals: rank.animals,
    own_species: rank.own_species,
  });
  const ranked = ranking.data?.ranked ?? [];
  const everything = [...tables.catalogue, ...own];
  const plannedIds = [draft.value.chosen?.id, draft.value.second?.id].filter((id) => id !== undefined);
  const shownIds = seen ?? (plannedIds.length ? plannedIds : [ranked[0]?.filter_id ?? ""]);
  const [filter, second] = shownIds.map((id) => everything.find((f) => f.id === id) ?? null);
  const pair = ranking.data?.pairs.find((p) => second && p.filter_ids.join() === shownIds.join());
  const candidate = ranked.find((c) => c.filter_id === filter?.id);
  const flow = useCompute(
    "filter-flow",
    filter
      ? {
          filter,
          room: rank.room,
          plumbing,
          media: filter.id === draft.value.chosen?.id ? draft.value.media : [],
          animals: rank.animals,
          own_species: rank.own_species,
        }
      : null,
  );
  const path = filter && !flow.error && !flow.isPlaceholderData ? flow.data : undefined;
  const point = path?.pumped ?? undefined;
  const delivered = pair?.delivered_lph ?? point?.delivered_lph ?? path?.lifted?.delivered_lph;
  const dirty = pair?.dirty_lph ?? candidate?.dirty_lph ?? point?.dirty_lph ?? path?.lifted?.dirty_lph;
  const box = (filter?.box_lph ?? 0) + (second?.box_lph ?? 0);
  const name = pair?.name ?? filter?.name ?? "";
  const set = (change: (now: FilterPlan) => FilterPlan) => {
    draft.set(change);
  };
  const planned = plannedIds.join() === shownIds.join();
  return (
    <TwoColumns
      drawing={
        <>
          <Section
            plan={plan}
            volume={v}
            animals={animals}
            species={[...tables.species, ...(stockPlan(standing).own_species ?? [])]}
            filter={filter}
            second={second}
            labels={labelsOf(filter, delivered, box, point)}
            caption={
              delivered !== undefined
                ? `${name} on this tank: ${delivered.toFixed(0)} L/h delivered.`
                : "The tank, without a filter that fits."
            }
          />
        </>
      }
      beside={
        <>
          {ranking.data?.enough && <Enough>{ranking.data.enough}</Enough>}
          {ranking.data?.changes.slice(0, 2).map((c, i) => (
            <Change key={c.filter_id} $first={i === 0}>
              {c.text}
            </Change>
          ))}
          <SaveBar
            tankId={tankId}
            draft={draft}
            words={plannedIds.length ? `Save with ${planNames(draft.value)}` : "Save without choosing"}
            describe={(b) =>
              `${planNames(b) || "no filter chosen"}, ${b.plumbing?.hose_length_m ?? 2.8} m of hose`
            }
            extra={
              filter &&
              !planned && (
                <Button
                  onPress={() => {
                    set((p) => ({ ...p, chosen: filter, second: second ?? null, media: [] }));
                  }}
                >
                  Choose {name}
                </Button>
              )
            }
          />
          {candidate?.caveats.map((c) => (
            <Caution key={c}>{c}</Caution>
          ))}
          {path?.jet && path.jet.troubled.length > 0 && (
            <Caution>
              <Figure title="Speed at mid-tank" lines={path.jet.working}>
                {path.jet.verdict}
              </Figure>{" "}
              {path.jet.remedies.join(" ")}
            </Caution>
          )}
        </>
      }
    >
      <ProblemNote problem={ranking.error ?? volume.error ?? flow.error} />
      {!ranking.data && !ranking.error && (
        <Waiting>Working out the flow of every filter on this tank…</Waiting>
      )}
      {filter && delivered !== undefined && dirty !== undefined && (
        <>
          <Verdict $small>
            {name} would move{" "}
            <em>
              <Figure title={`${name}: delivered flow`} lines={path?.working ?? ranking.data?.working}>
                {delivered.toFixed(0)} litres an hour
              </Figure>
            </em>{" "}
            {filter.kind === "canister" || filter.kind === "sump" ? "through your hoses" : "on your tank"},
            not the {box.toFixed(0)} on {second ? "their boxes" : "its box"}.
          </Verdict>
          <Lead>
            That is {(delivered / netL).toFixed(1)} times your {netL.toFixed(0)} L clean,{" "}
            {(dirty / netL).toFixed(1)} in service; careful keepers ask{" "}
            {((ranking.data?.asked_low_lph ?? 0) / netL).toFixed(1)} to{" "}
            {((ranking.data?.asked_high_lph ?? 0) / netL).toFixed(1)}. {path?.loop}{" "}
            {calibration != null &&
              planned &&
              `By your last flow test expect ${(calibration * delivered).toFixed(0)} L/h. `}
            {!standing.stock_plan && "No animals are chosen yet: a community tank is assumed. "}
            <InlineButton
              onPress={() => {
                if (!shop.current) return;
                shop.current.open = true;
                shop.current.scrollIntoView({ block: "start" });
                shop.current.querySelector("input")?.focus();
              }}
            >
              A box in your hand?
            </InlineButton>
          </Lead>
        </>
      )}
      {ranking.data && !filter && <Verdict>{ranking.data.verdict}</Verdict>}
      {requirement.data && (
        <Schools
          requirement={requirement.data}
          netL={netL}
          candidate={asCandidate(candidate, name, box, delivered, dirty)}
        />
      )}
      <Beside>
        <div>
          {point && <OperatingPoint answer={point} />}
          {path?.lifted && filter && <AirLift filter={filter} path={path} />}
        </div>
        {ranking.data && <RankedList answer={ranking.data} shown={shownIds} onSee={setSeen} />}
      </Beside>
      {point && <HeadBudget answer={point} />}
      {point && candidate && <Interval answer={point} serviceDay={candidate.service_day} />}
      <Folds>
        <details ref={shop}>
          <summary>In the shop: a filter from its box</summary>
          <OwnFilter
            onAdd={(f: Filter) => {
              set((p) => ({ ...p, own_filters: [...(p.own_filters ?? []).filter((o) => o.id !== f.id), f] }));
              setSeen([f.id]);
            }}
          />
        </details>
        <details>
          <summary>What matters to you</summary>
          <PriorityForm
            priorities={draft.value.priorities ?? ranking.data?.priorities}
            candidate={candidate}
            pricePerKwh={draft.value.price_per_kwh ?? 0.3}
            onChange={(change) => {
              set((p) => ({ ...p, ...change }));
            }}
          />
        </details>
        <details>
          <summary>Plumbing of a canister or sump</summary>
          <PlumbingForm
            plumbing={plumbing}
            onChange={(change) => {
              set((p) => ({ ...p, plumbing: { ...p.plumbing, ...change } }));
            }}
          />
        </details>
        {ranking.data && (
          <details>
            <summary>Compare up to four side by side</summary>
            <Compare answer={ranking.data} pricePerKwh={draft.value.price_per_kwh ?? 0.3} />
          </details>
        )}
        {draft.value.chosen && (
          <details>
            <summary>Media in {draft.value.chosen.name}, in the order the water meets them</summary>
            <MediaBuilder
              filter={draft.value.chosen}
              netL={netL}
              plumbing={plumbing}
              riseM={path?.rise_m ?? 0}
              feedGDay={load.data && Math.max(load.data.feed_g_day, 0.2)}
              heavyStock={requirement.data?.heavy}
              baskets={draft.value.media ?? []}
              onChange={(media) => {
                set((p) => ({ ...p, media }));
              }}
            />
          </details>
        )}
        {filter?.air_l_min != null && (
          <details>
            <summary>The air pump for it, or for a room of them</summary>
            <AirSupply filter={filter} depthCm={rank.room.water_depth_cm} />
          </details>
        )}
        {filter?.kind === "sump" && (
          <details>
            <summary>Overflow, drain and run-back</summary>
            <Overflow returnLph={delivered ?? filter.box_lph} surfaceCm2={v?.surface_cm2 ?? 1000} />
          </details>
        )}
        <details>
          <summary>
            {ranking.data?.excluded_count ?? 0} left out, and why; {ranking.data?.fitting_count ?? 0} fit
          </summary>
          {ranking.data && <LeftOut answer={ranking.data} />}
        </details>
        <details>
          <summary>The catalogue as a file</summary>
          <CatalogueFiles
            onTaken={(filters) => {
              set((p) => ({
                ...p,
                own_filters: [
                  ...(p.own_filters ?? []).filter((o) => !filters.some((f) => f.id === o.id)),
                  ...filters,
                ].slice(-200),
              }));
            }}
          />
        </details>
        {standing.filter_plan && (
          <p>
            <Link to={`/tanks/${tankId}/buying`}>Shopping list and comparison, to print</Link>
          </p>
        )}
      </Folds>
    </TwoColumns>
  );
}

function planNames(plan: FilterPlan): string {
  return [plan.chosen?.name, plan.second?.name].filter(Boolean).join(" and ");
}

function asCandidate(
  candidate: Candidate | undefined,
  name: string,
  box: number,
  delivered: number | undefined,
  dirty: number | undefined,
) {
  if (delivered === undefined || dirty === undefined) return null;
  return {
    name,
    box_lph: box,
    delivered_lph: delivered,
    dirty_lph: dirty,
    media_kg: candidate?.media_kg ?? 0,
  };
}

function labelsOf(
  filter: Filter | null | undefined,
  delivered: number | undefined,
  box: number,
  point: FilterFlow["pumped"] | undefined,
): SectionLabel[] {
  if (!filter || delivered === undefined) return [];
  const labels: SectionLabel[] = [
    { at: "outlet", lines: [`${delivered.toFixed(0)} L/h comes out`, `the box says ${box.toFixed(0)}`] },
  ];
  const hose = point?.head_budget.find((p) => p.part.includes("hose") && !p.part.includes("entrance"));
  if ((filter.kind === "canister" || filter.kind === "sump") && hose)
    labels.push({
      at: "hose",
      lines: [hose.part.replace(/ \d+ mm/, ""), `costs ${hose.head_m.toFixed(2)} m head`],
    });
  return labels;
}

function AirLift({ filter, path }: { filter: Filter; path: FilterFlow }) {
  const lift = path.lifted;
  if (!lift) return null;
  return (
    <>
      <h2>What the air lifts</h2>
      <Lead>
        <Figure title="Air lift" lines={lift.working}>
          {filter.air_l_min} L/min of air in a {filter.tube_bore_mm} mm tube lifts{" "}
          {lift.delivered_lph.toFixed(0)} L/h
        </Figure>{" "}
        through clean foam, {lift.dirty_lph.toFixed(0)} when dirty, and {lift.evaporated_lph.toFixed(0)} if
        the water falls 2 cm below the outlet. Cut the tube to {lift.uplift_cut_cm.toFixed(0)} cm above the
        air inlet and it stays under.
      </Lead>
    </>
  );
}

const Change = styled.p<{ $first: boolean }>`
  font:
    italic 400 ${(p) => (p.$first ? 19 : 17)}px / 1.3 Vollkorn,
    serif;
  border-left: 3px solid ${(p) => (p.$first ? "var(--seed)" : "var(--line)")};
  padding-left: 12px;
`;
const Enough = styled.p`
  background: var(--reed-fill);
  padding: 8px 12px;
  border-left: 4px solid var(--reed);
`;
const Beside = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 0.95fr) minmax(0, 1.05fr);
  gap: 20px;
  border-top: 1px solid var(--line);
  padding-top: 8px;
  > div {
    display: grid;
    gap: 6px;
    align-content: start;
    min-width: 0;
  }
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
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
`;
