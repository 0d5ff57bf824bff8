/** Filter stage: whether the present filters are enough, the ranking, each flow; choosing one, or one more. */
import { useRef, useState } from "react";
import { styled } from "styled-components";
import { useDraft, type Draft } from "../../api/drafts";
import { opening, standing, useView } from "../../api/compute";
import type { FilterPlan, FilterView, Together } from "../../api/schemas";
import { HeadBudget } from "../../charts/HeadBudget";
import { Interval } from "../../charts/Interval";
import { OperatingPoint } from "../../charts/OperatingPoint";
import { SizingRules } from "../../charts/SizingRules";
import { Caution, Figure, InlineButton, Lead, phone, ProblemNote, Verdict } from "../../kit";
import { Section } from "../../section/Section";
import type { SectionLabel } from "../../section/Labels";
import { hanging } from "../../shared/installedFilters";
import { TwoColumns } from "../../shared/TwoColumns";
import { type StageProps } from "../../shared/stageProps";
import { AirLift } from "./AirLift";
import { Choosing } from "./Choosing";
import { Folds, keepOwn } from "./Folds";
import { Hanging } from "./InstalledFilters";
import { OwnFilter } from "./OwnFilter";
import { Margins } from "./Margins";
import { Moving } from "../../shared/CurrentsLegend";
import { RankedList } from "./RankedList";
import { bare, show } from "../../quantity/format";

export default function FilterStage({ tankId, logbook, tables }: StageProps) {
  const draft = useDraft<FilterPlan>(tankId, "filter", logbook.plans.filter, logbook.filter_plan?.id ?? null);
  const [seen, setSeen] = useState<string[]>([]);
  const shop = useRef<HTMLDetailsElement>(null);
  const asked = useView(tankId, "filter", { filter_plan: draft.value, seen });
  const view = standing(asked);
  const asksForBox = inHand(logbook) && draft.value.own_filters.length === 0;
  return (
    <TwoColumns
      opening={opening(asked, "Working out the flow of every filter on this tank…")}
      drawing={
        <FilterDrawing
          tankId={tankId}
          logbook={logbook}
          tables={tables}
          view={view}
          installed={hanging(draft.value)}
        />
      }
      beside={view && <Advice view={view} />}
    >
      {asksForBox && (
        <section aria-label="The filter in hand">
          <Verdict>A filter in hand: what is printed on its box?</Verdict>
          <OwnFilter
            onAdd={(f) => {
              keepOwn(draft, [f]);
              setSeen([f.id]);
            }}
          />
        </section>
      )}
      <ProblemNote problem={asked.error} />
      {view && (
        <Shown
          tankId={tankId}
          draft={draft}
          view={view}
          old={asked.isPlaceholderData}
          second={asksForBox}
          onSee={setSeen}
          onShop={() => {
            if (!shop.current) return;
            shop.current.open = true;
            shop.current.scrollIntoView({ block: "start" });
            shop.current.querySelector("input")?.focus();
          }}
        />
      )}
      <Folds
        tankId={tankId}
        draft={draft}
        view={view}
        onSee={setSeen}
        saved={logbook.filter_plan != null}
        shop={shop}
      />
    </TwoColumns>
  );
}

/** Whether the tank was added with only a filter, and none is installed yet. */
function inHand({ situation, plans }: StageProps["logbook"]): boolean {
  return (
    situation?.body.kind === "situation" &&
    situation.body.stands === "filter-in-hand" &&
    plans.filter.filters.length === 0
  );
}

function FilterDrawing({
  logbook,
  tables,
  view,
  installed,
}: StageProps & { view?: FilterView; installed: ReturnType<typeof hanging> }) {
  const { tank, stock } = logbook.plans;
  const shared = {
    plan: tank,
    volume: view?.volume,
    animals: stock.animals,
    species: [...tables.species, ...stock.own_species],
  };
  const shown = view?.shown;
  if (!shown)
    return (
      <Section {...shared} filters={installed} labels={[]} caption="The tank, without a filter that fits." />
    );
  return (
    <Section
      {...shared}
      filters={shown.filters.map((f) => ({
        key: f.installed.key,
        filter: f.installed.filter,
        fitting: f.installed.plan,
      }))}
      labels={labelsOf(shown)}
      currents={shown.currents}
      caption={`${shown.name} on this tank: ${show(shown.delivered_lph, "L/h")} delivered.`}
    />
  );
}

function Advice({ view }: { view: FilterView }) {
  const { ranking, shown } = view;
  return (
    <>
      {shown && <Moving currents={shown.currents} />}
      {ranking.enough && <Enough>{ranking.enough}</Enough>}
      {ranking.changes.slice(0, 2).map((c, i) => (
        <Change key={c.filter_id} $first={i === 0}>
          {c.text}
        </Change>
      ))}
      {shown && <Cautions view={view} shown={shown} />}
    </>
  );
}

interface ShownProps extends HeadlineProps {
  tankId: number;
  draft: Draft<FilterPlan>;
  onSee: (ids: string[]) => void;
}

/** The verdict, its buttons, the rules on one scale, the flow and the ranking. */
function Shown({ tankId, draft, view, old, second, onSee, onShop }: ShownProps) {
  return (
    <>
      <Headline view={view} old={old} second={second} onShop={onShop} />
      <Choosing
        tankId={tankId}
        draft={draft}
        view={view}
        onChosen={() => {
          onSee([]);
        }}
      />
      {view.hanging && <Hanging tankId={tankId} draft={draft} set={view.hanging} />}
      <SizingRules requirement={view.requirement} netL={view.volume.net_l} candidate={candidate(view)} />
      <Flow view={view} onSee={onSee} />
    </>
  );
}

/** Operating point of the filter shown, beside the ranking. */
function Flow({ view, onSee }: Pick<ShownProps, "view" | "onSee">) {
  const filters = view.shown?.filters ?? [];
  const only = filters.length === 1 ? filters[0]?.installed : undefined;
  const pumped = only?.flow.pumped;
  return (
    <>
      <Beside $alone={!only}>
        {only && (
          <div>
            {pumped && <OperatingPoint answer={pumped} />}
            {only.flow.lifted && <AirLift installed={only} />}
          </div>
        )}
        <RankedList answer={view.ranking} shown={filters.map((f) => f.installed.filter.id)} onSee={onSee} />
      </Beside>
      {pumped && (
        <>
          <HeadBudget answer={pumped} />
          <Interval answer={pumped} serviceDay={only.flow.service_days} />
        </>
      )}
    </>
  );
}

interface HeadlineProps {
  view: FilterView;
  /** Whether a newer answer is loading. */
  old: boolean;
  /** Whether another headline stands over it. */
  second: boolean;
  onShop: () => void;
}

function Headline({ view, old, second, onShop }: HeadlineProps) {
  return (
    <Answer aria-busy={old} data-old={old || undefined}>
      <Verdict $small as={second ? "h2" : "h1"} data-enough={view.enough ?? undefined}>
        {view.verdict}
      </Verdict>
      {view.shown && (
        <Lead>
          <Moves view={view} shown={view.shown} />{" "}
          {view.assumed.length > 0 && `Assumed: ${view.assumed.join("; ")}. `}
          <InlineButton onPress={onShop}>A box in your hand?</InlineButton>
        </Lead>
      )}
      {view.shown && <Margins margins={view.shown.margins} />}
      {view.shown && (
        <Small>
          <Figure title="Noise where it is heard" lines={view.shown.noise.working} of="level_db">
            {view.shown.noise.verdict}
          </Figure>
        </Small>
      )}
    </Answer>
  );
}

function Moves({ view, shown }: { view: FilterView; shown: Together }) {
  const many = shown.filters.length > 1;
  const tested = shown.filters.some((f) => f.expect_lph != null);
  const expected = shown.filters.reduce(
    (sum, f) => sum + (f.expect_lph ?? f.installed.flow.delivered_lph),
    0,
  );
  return (
    <>
      <b>{shown.name}</b> {shown.chosen ? "moves" : "would move"}{" "}
      <Figure title={`${shown.name}: delivered flow`} lines={shown.working} of="delivered_lph">
        {show(shown.delivered_lph, "L/h")}
      </Figure>{" "}
      here, not the {bare(shown.box_lph, "L/h")} on {many ? "their boxes" : "its box"}:{" "}
      {shown.turnovers_per_hour.toFixed(1)} times your {show(view.volume.net_l, "L")} clean,{" "}
      {shown.service_turnovers_per_hour.toFixed(1)} in service.{" "}
      {!many && shown.filters[0]?.installed.flow.loop}{" "}
      {tested && `By your last flow test expect ${show(expected, "L/h")}.`}
    </>
  );
}

function Cautions({ view, shown }: { view: FilterView; shown: Together }) {
  const ids = shown.filters.map((f) => f.installed.filter.id);
  const caveats = view.ranking.ranked.filter((c) => ids.includes(c.filter_id)).flatMap((c) => c.caveats);
  return (
    <>
      {[...new Set(caveats)].map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
      {shown.currents.troubled.length > 0 && (
        <Caution>
          <Figure title="Currents" lines={shown.currents.working}>
            {shown.currents.verdict}
          </Figure>{" "}
          {shown.currents.remedies.join(" ")}
        </Caution>
      )}
    </>
  );
}

function candidate(view: FilterView) {
  const { shown } = view;
  if (!shown) return null;
  return {
    name: shown.name,
    box_lph: shown.box_lph,
    delivered_lph: shown.delivered_lph,
    dirty_lph: shown.service_lph,
    // Where nothing is packed yet: its media volume full of ceramic.
    media_kg: shown.filters.reduce(
      (sum, f) =>
        sum +
        (f.installed.media.length
          ? (f.media?.has_kg ?? 0)
          : (view.ranking.ranked.find((c) => c.filter_id === f.installed.filter.id)?.media_kg ?? 0)),
      0,
    ),
  };
}

function labelsOf(shown: Together): SectionLabel[] {
  const labels: SectionLabel[] = [
    {
      at: "outlet",
      lines: [
        `${show(shown.delivered_lph, "L/h")} ${shown.filters.length > 1 ? "come out together" : "comes out"}`,
        `${shown.filters.length > 1 ? "the boxes say" : "the box says"} ${bare(shown.box_lph, "L/h")}`,
      ],
    },
  ];
  const hose = shown.filters[0]?.installed.flow.pumped?.head_budget.find((p) => p.role === "hose");
  if (
    shown.filters.length === 1 &&
    shown.filters[0]?.installed.plan.runs.some((r) => r.role === "return-hose") &&
    hose
  )
    labels.push({
      at: "hose",
      lines: [
        `${show(shown.filters[0].installed.plan.hose_m, "m", 1)} of hose`,
        `costs ${show(hose.head_m, "m", 2)} head`,
      ],
    });
  return labels;
}

const Answer = styled.div`
  display: grid;
  gap: 6px;
  &[data-old] {
    opacity: 0.6;
  }
`;
const Small = styled.p`
  color: var(--ink-soft);
  font-size: 15px;
`;
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
const Beside = styled.div<{ $alone: boolean }>`
  display: grid;
  grid-template-columns: ${(p) => (p.$alone ? "minmax(0, 1fr)" : "minmax(0, 0.95fr) minmax(0, 1.05fr)")};
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
