/** Filter stage: whether the present filters are enough, the ranking, each flow; choosing one, or one more. */
import { useRef, useState, type ReactNode } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { useDraft, type Draft } from "../../api/drafts";
import { opening, standing, useView } from "../../api/compute";
import type { FilterPlan, FilterView } from "../../api/schemas";
import { SizingRules } from "../../charts/SizingRules";
import { Figure, Fold, InlineButton, Lead, ProblemNote, Verdict } from "../../kit";
import { hanging } from "../../shared/installedFilters";
import { KindLinks } from "../../shared/KindLinks";
import { DrawingHere, TwoColumns } from "../../shared/TwoColumns";
import { TypeMap } from "../../shared/TypeMap";
import { type StageProps } from "../../shared/stageProps";
import { AirLift } from "./AirLift";
import { Choosing } from "./Choosing";
import { FilterDrawing } from "./FilterDrawing";
import { Folds } from "./Folds";
import { Hanging } from "./InstalledFilters";
import { OwnFilter } from "./OwnFilter";
import { Margins } from "./Margins";
import { Moving } from "../../shared/CurrentsLegend";
import { Pairs } from "./Pairs";
import { PumpedFlow } from "./PumpedFlow";
import { ShelfHere } from "./ShelfHere";
import { WhatMatters } from "./WhatMatters";
import { Answer, Small, isReal, type HeadlineProps, Headline, Cautions } from "./FilterHeadline";

export default function FilterStage({ tankId, logbook, tables }: StageProps) {
  const draft = useDraft<FilterPlan>(tankId, "filter", logbook.plans.filter, logbook.filter_plan?.id ?? null);
  const [seen, setSeen] = useState<string[]>([]);
  const shop = useRef<HTMLDetailsElement>(null);
  const asked = useView(tankId, "filter", { filter_plan: draft.value, seen });
  const view = standing(asked);
  const asksForBox =
    inHand(logbook) && draft.value.own_filters.length === 0 && !view?.shelf.rows.some((row) => row.id > 0);
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
            onAdd={(id) => {
              setSeen([id]);
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
          seen={seen}
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

function Advice({ view }: { view: FilterView }) {
  const { ranking, shown } = view;
  return (
    <>
      {shown && <Margins margins={shown.margins} />}
      {shown && (
        <Small>
          <Figure title="Noise where it is heard" lines={shown.noise.working} of="level_db">
            {shown.noise.verdict}
          </Figure>
        </Small>
      )}
      {shown && <Moving currents={shown.currents} />}
      {ranking.enough && <Enough>{ranking.enough}</Enough>}
      {ranking.changes.slice(0, 2).map((c, i) => (
        <Change key={c.filter_id} $first={i === 0}>
          {c.text}
        </Change>
      ))}
      {shown && <Cautions view={view} shown={shown} />}
      <Flow view={view} />
      <SizingRules requirement={view.requirement} netL={view.volume.net_l} candidate={candidate(view)} />
    </>
  );
}

interface ShownProps extends HeadlineProps {
  tankId: number;
  /** Ids looked at: of usual boxes by the map, or of the keeper's own. */
  seen: string[];
  draft: Draft<FilterPlan>;
  onSee: (ids: string[]) => void;
}

/** Kind and size first while nothing hangs, unless a real box is looked at; then its buttons, the boxes, the flow. */
function Shown(props: ShownProps) {
  const { tankId, draft, view, seen, onSee } = props;
  const mapFirst = !view.hanging && !(seen.length > 0 && isReal(view.shown));
  const choosing = (
    <Choosing
      tankId={tankId}
      draft={draft}
      view={view}
      onChosen={() => {
        onSee([]);
      }}
    />
  );
  return (
    <>
      {mapFirst ? <MapFirst {...props} choosing={choosing} /> : <SetFirst {...props} choosing={choosing} />}
      {view.ranking.pairs.length > 0 && (
        <Fold summary="Two, so that one may fail">
          <Pairs answer={view.ranking} shown={seen} onSee={onSee} />
        </Fold>
      )}
      {!mapFirst && (
        <Fold summary="Kinds and sizes on this tank">
          <TypeAndSize {...props} second />
        </Fold>
      )}
    </>
  );
}

/** Which kind and how big, before anything hangs. */
function MapFirst({ choosing, ...props }: ShownProps & { choosing: ReactNode }) {
  const { view, old, onShop, seen, onSee } = props;
  return (
    <>
      <TypeAndSize {...props}>
        {choosing}
        <DrawingHere />
      </TypeAndSize>
      <ShelfHere shelf={view.shelf} seen={seen} onSee={onSee} />
      <Headline view={view} old={old} second onShop={onShop} />
    </>
  );
}

/** What hangs, or the real box looked at. */
function SetFirst({ choosing, ...props }: ShownProps & { choosing: ReactNode }) {
  const { tankId, draft, view, old, second, onShop, seen, onSee } = props;
  return (
    <>
      <Headline view={view} old={old} second={second} onShop={onShop} />
      {choosing}
      <DrawingHere />
      {view.hanging && <Hanging tankId={tankId} draft={draft} set={view.hanging} />}
      <ShelfHere shelf={view.shelf} seen={seen} onSee={onSee} />
    </>
  );
}

/** Kind and size: what matters, the answer in a sentence, the map. */
function TypeAndSize({
  tankId,
  draft,
  view,
  old,
  second,
  seen,
  onSee,
  onShop,
  children,
}: ShownProps & { children?: ReactNode }) {
  const { types } = view;
  return (
    <Answer aria-busy={old} data-old={old || undefined}>
      <WhatMatters draft={draft} types={types} />
      <Verdict $small as={second ? "h2" : "h1"}>
        {types.verdict}
      </Verdict>
      <Lead>
        <KindLinks text={types.why} />{" "}
        {view.ranking.too_many && <Link to={`/tanks/${tankId}/stock`}>Change the animals</Link>}{" "}
        {view.assumed.length > 0 && `Assumed: ${view.assumed.join("; ")}. `}
        <InlineButton onPress={onShop}>I have seen a box</InlineButton>
      </Lead>
      {children}
      <TypeMap tankId={tankId} types={types} shelf={view.shelf.rows} seen={seen} onSee={onSee} />
    </Answer>
  );
}

/** Operating point of the filter shown. */
function Flow({ view }: Pick<ShownProps, "view">) {
  const filters = view.shown?.filters ?? [];
  const only = filters.length === 1 ? filters[0]?.installed : undefined;
  const pumped = only?.flow.pumped;
  if (!only) return null;
  return (
    <Fold summary={pumped ? "Where the flow goes: hoses, media and dirt" : "How the air lifts it"}>
      {pumped && <PumpedFlow flow={only.flow} pumped={pumped} />}
      {only.flow.lifted && <AirLift installed={only} />}
    </Fold>
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

const Change = styled.p<{ $first: boolean }>`
  font:
    italic 400 ${(p) => (p.$first ? 1.1875 : 1.0625)}rem / 1.3 Vollkorn,
    serif;
  border-left: 3px solid ${(p) => (p.$first ? "var(--seed)" : "var(--line)")};
  padding-left: 12px;
`;
const Enough = styled.p`
  background: var(--reed-fill);
  padding: 8px 12px;
  border-left: 4px solid var(--reed);
`;
