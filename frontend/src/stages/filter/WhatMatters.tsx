/** What matters to the keeper, as one row of plain choices; each press redraws the answer. */
import { styled } from "styled-components";
import type { Draft } from "../../api/drafts";
import type { FilterPlan, FilterView } from "../../api/schemas";

const WORDS: Partial<Record<string, string>> = {
  young_safe: "young and shrimp safe",
  quiet: "quiet",
  easy_clean: "easy to clean",
  clear_water: "clear water",
  price: "cheap to buy",
  running_cost: "cheap to run",
  hidden: "out of sight",
  redundant: "one may fail",
};

export function WhatMatters({ draft, types }: { draft: Draft<FilterPlan>; types: FilterView["types"] }) {
  return (
    <Wishes role="group" aria-label="What matters">
      <span>What matters</span>
      {types.wishes.map((wish) => (
        <button
          key={wish.priority}
          type="button"
          aria-pressed={wish.chosen}
          onClick={() => {
            draft.set((p) => ({ ...p, priorities: wish.pressed }));
          }}
        >
          {WORDS[wish.priority] ?? wish.priority}
        </button>
      ))}
    </Wishes>
  );
}

const Wishes = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  span {
    color: var(--ink-soft);
    font-size: 0.9375rem;
    margin-right: 4px;
  }
  button {
    min-height: 44px;
    padding: 2px 12px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: none;
    color: inherit;
    font-size: 0.9375rem;
    cursor: pointer;
  }
  button[aria-pressed="true"] {
    background: var(--reed-fill);
    border-color: var(--reed);
    font-weight: 600;
  }
`;
