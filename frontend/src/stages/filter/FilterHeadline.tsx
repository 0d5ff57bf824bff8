/** The verdict on what hangs there or is looked at, its moves and cautions. */
import { styled } from "styled-components";
import type { FilterView, Together } from "../../api/schemas";
import { Caution, Figure, InlineButton, Lead, Verdict } from "../../kit";
import { bare, fixed, show } from "../../quantity/format";

/** Whether a set holds a box that somebody sells, not only usual ones. */
export function isReal(set: Together | null): boolean {
  return set?.filters.some((f) => !f.typical) ?? false;
}

export interface HeadlineProps {
  view: FilterView;
  /** Whether a newer answer is loading. */
  old: boolean;
  /** Whether another headline stands over it. */
  second: boolean;
  onShop: () => void;
}

export function Headline({ view, old, second, onShop }: HeadlineProps) {
  return (
    <Answer aria-busy={old} data-old={old || undefined}>
      <Verdict $small as={second ? "h2" : "h1"} data-enough={view.enough ?? undefined}>
        {view.verdict}
      </Verdict>
      {view.shown && (
        <Lead>
          <Moves view={view} shown={view.shown} />{" "}
          {!second && view.assumed.length > 0 && `Assumed: ${view.assumed.join("; ")}. `}
          {!second && <InlineButton onPress={onShop}>A box in your hand?</InlineButton>}
        </Lead>
      )}
      {view.differences.length > 0 && <Differences view={view} />}
    </Answer>
  );
}

/** What changes if what is looked at hangs instead. */
function Differences({ view }: { view: FilterView }) {
  return (
    <Small as="ul">
      {view.differences.map((d) => (
        <li key={d.name}>
          {d.name}: {d.now}, then <b>{d.then}</b>
        </li>
      ))}
    </Small>
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
      {fixed(shown.turnovers_per_hour, 1)} times your {show(view.volume.net_l, "L")} clean,{" "}
      {fixed(shown.service_turnovers_per_hour, 1)} in service.{" "}
      {!many && shown.filters[0]?.installed.flow.loop}{" "}
      {tested && `By your last flow test expect ${show(expected, "L/h")}.`}
    </>
  );
}

export function Cautions({ view, shown }: { view: FilterView; shown: Together }) {
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

export const Answer = styled.div`
  display: grid;
  gap: 6px;
  &[data-old] {
    opacity: 0.6;
  }
`;

export const Small = styled.p`
  color: var(--ink-soft);
  font-size: 0.9375rem;
`;
