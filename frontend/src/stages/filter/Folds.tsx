/** Folds of the Filter stage: a box in hand, priorities, hoses, comparison, exclusions, files. */
import type { RefObject } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { phone } from "../../kit";
import type { Draft } from "../../api/drafts";
import type { FilterPlan, FilterView } from "../../api/schemas";
import { AirSupply } from "./AirSupply";
import { Compare } from "./Compare";
import { LeftOut } from "./LeftOut";
import { OwnFilter } from "./OwnFilter";
import { PlumbingForm } from "./PlumbingForm";
import { PriorityForm } from "../../shared/PriorityForm";
import { SuppliesForm } from "./SuppliesForm";

interface Props {
  tankId: number;
  draft: Draft<FilterPlan>;
  view?: FilterView;
  onSee: (ids: string[]) => void;
  saved: boolean;
  /** The fold for a box in hand, to be opened from elsewhere. */
  shop: RefObject<HTMLDetailsElement | null>;
}

export function Folds({ tankId, draft, view, onSee, saved, shop }: Props) {
  const shown = view?.shown?.filters ?? [];
  const air = shown.find((f) => f.installed.filter.air_l_min != null);
  return (
    <Stack>
      <details ref={shop}>
        <summary>In the shop: a filter from its box</summary>
        <OwnFilter
          onAdd={(id) => {
            onSee([id]);
          }}
        />
      </details>
      {view && (
        <details>
          <summary>What matters to you</summary>
          <PriorityForm
            priorities={draft.value.priorities ?? view.ranking.priorities}
            candidate={view.ranking.ranked.find((c) => c.filter_id === shown[0]?.installed.filter.id)}
            pricePerKwh={view.price_per_kwh}
            onChange={(change) => {
              draft.set((p) => ({ ...p, ...change }));
            }}
          />
        </details>
      )}
      <details>
        <summary>Hoses, for a filter not chosen yet</summary>
        <PlumbingForm
          plumbing={draft.value.plumbing}
          onChange={(change) => {
            draft.set((p) => ({ ...p, plumbing: { ...p.plumbing, ...change } }));
          }}
        />
      </details>
      {view && (
        <details>
          <summary>Compare up to four side by side</summary>
          <Compare answer={view.ranking} />
        </details>
      )}
      {view && (
        <details>
          <summary>{view.supplies.skimmer ? "Air, warmth and skimmer" : "Air and warmth"}</summary>
          <SuppliesForm
            plan={draft.value}
            view={view}
            onChange={(change) => {
              draft.set((p) => ({ ...p, ...change }));
            }}
          />
        </details>
      )}
      {air && (
        <details>
          <summary>The air pump for it, or for a room of them</summary>
          <AirSupply
            filter={air.installed.filter}
            depthCm={air.installed.plan_question.site.water_depth_cm}
          />
        </details>
      )}
      {view && (
        <details>
          <summary>
            {view.ranking.excluded_count} left out, and why; {view.ranking.fitting_count} fit
          </summary>
          <LeftOut answer={view.ranking} />
        </details>
      )}
      {saved && (
        <p>
          <Link to={`/tanks/${tankId}/buying`}>Shopping list and comparison, to print</Link>
        </p>
      )}
    </Stack>
  );
}

const Stack = styled.div`
  summary {
    cursor: pointer;
    font-weight: 600;
    padding: 6px 0;
    min-height: 36px;
    display: list-item;
    ${phone} {
      padding: 8px 0;
      min-height: 44px;
    }
  }
  details {
    border-top: 1px solid var(--line);
  }
  details[open] {
    padding-bottom: 12px;
  }
`;
