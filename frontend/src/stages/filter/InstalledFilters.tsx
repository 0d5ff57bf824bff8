/** Installed filters: each with its flow, media and hoses, and a button to remove it. */
import { lazy } from "react";
import { styled } from "styled-components";
import type { Draft } from "../../api/drafts";
import { useWrite } from "../../api/entries";
import type { FilterPlan, FittedFilter, InstalledView, Together } from "../../api/schemas";
import { Figure, Fold, InlineButton, ProblemNote } from "../../kit";
import { OverflowNote } from "./OverflowNote";
import { PlumbingForm } from "./PlumbingForm";
import { bare, show } from "../../quantity/format";

/** Lazily loaded: dragging layers is a large part of the page, and rarely used. */
const MediaBuilder = lazy(() => import("./MediaBuilder"));

interface Props {
  tankId: number;
  draft: Draft<FilterPlan>;
  set: Together;
}

export function Hanging({ tankId, draft, set }: Props) {
  const write = useWrite(tankId);
  const change = (key: string, next: Partial<FittedFilter>) => {
    draft.set((plan) => ({
      ...plan,
      filters: plan.filters.map((f) => (f.key === key ? { ...f, ...next } : f)),
    }));
  };
  return (
    <section aria-label="On this tank">
      <h2>On this tank</h2>
      <List>
        {set.filters.map((one) => (
          <li key={one.installed.key}>
            <Row
              one={one}
              typed={draft.value.filters.find((f) => f.key === one.installed.key)}
              busy={write.isPending}
              onOff={() => {
                const filters = draft.value.filters.map((f) =>
                  f.key === one.installed.key ? { ...f, retired: true } : f,
                );
                write.mutate(
                  { body: { ...draft.value, filters }, basedOn: draft.basedOn },
                  { onSuccess: draft.drop },
                );
              }}
              onChange={(next) => {
                change(one.installed.key, next);
              }}
            />
          </li>
        ))}
      </List>
      {set.filters.length > 1 && (
        <p>
          Together{" "}
          <Figure title="Together" lines={set.working} of="delivered_lph">
            {show(set.delivered_lph, "L/h")} clean, {bare(set.service_lph, "L/h")} in service
          </Figure>
          ; the dirt of the tank is shared as the water is.{" "}
          <Figure title="Energy" lines={set.cost.working} of="kwh_year">
            {set.cost.kwh_year.toFixed(0)} kWh a year.
          </Figure>
        </p>
      )}
      <ProblemNote problem={write.error} />
    </section>
  );
}

interface RowProps {
  one: InstalledView;
  /** The filter in the draft, which is ahead of the view while it is computed. */
  typed?: FittedFilter;
  busy: boolean;
  onOff: () => void;
  onChange: (next: Partial<FittedFilter>) => void;
}

function Row({ one, typed, busy, onOff, onChange }: RowProps) {
  const { installed, media, next_baskets, overflow } = one;
  const baskets = typed?.media ?? installed.media;
  const hosed = installed.plan.runs.some((r) => r.role === "return-hose");
  return (
    <>
      <p className="name">
        <b>{installed.filter.name}</b>
        {!installed.runs && <em> stands still</em>}
        <span>
          <Figure title={`${installed.filter.name}: flow`} lines={installed.flow.working} of="delivered_lph">
            {show(installed.flow.delivered_lph, "L/h")}
          </Figure>
          , {bare(installed.flow.service_lph, "L/h")} in service, {one.cleaned}
        </span>
        <InlineButton isDisabled={busy} onPress={onOff}>
          Take it off
        </InlineButton>
      </p>
      <Fold summary={`Media in ${installed.filter.name}, in the order the water meets them`}>
        <MediaBuilder
          filter={installed.filter}
          baskets={baskets}
          // Presses may come faster than the view's answer, which then lacks the latest baskets.
          next={next_baskets[Math.max(baskets.length - installed.media.length, 0)]}
          answer={media}
          onChange={(media) => {
            onChange({ media });
          }}
        />
      </Fold>
      {hosed && (
        <details>
          <summary>Hoses and fittings of {installed.filter.name}</summary>
          <PlumbingForm
            plumbing={typed?.plumbing ?? installed.plumbing}
            laidM={installed.plan.hose_m}
            onChange={(next) => {
              onChange({ plumbing: { ...(typed?.plumbing ?? installed.plumbing), ...next } });
            }}
          />
        </details>
      )}
      {overflow && (
        <details>
          <summary>Overflow, run-back, socks, evaporation</summary>
          <OverflowNote answer={overflow} socks={one.socks} evaporation={one.evaporation} />
        </details>
      )}
    </>
  );
}

const List = styled.ul`
  > li {
    border-top: 1px solid var(--line);
    padding: 4px 0;
  }
  .name {
    display: flex;
    flex-wrap: wrap;
    gap: 2px 12px;
    align-items: baseline;
  }
  .name > span {
    flex: 1 1 220px;
  }
  .name em {
    color: var(--alarm);
  }
  summary {
    cursor: pointer;
    min-height: 40px;
    padding: 6px 0;
    font-weight: 600;
  }
`;
