/** Check of the plan before it starts: water, temperature steps, alkalinity use. */
import { styled } from "styled-components";
import type { CycleStartView, CyclePlan } from "../../api/schemas";
import { Figure, Fold, Lead, Term } from "../../kit";
import { Columns } from "../../kit";
import { fixed, show } from "../../quantity/format";

interface Props {
  plan: CyclePlan;
  judged: CycleStartView["judged"];
}

const WORD = { fine: "fine", watch: "watch", first: "first" } as const;

export function PlanJudged({ plan, judged: a }: Props) {
  const fine = a.conditions.filter((c) => c.level === "fine");
  return (
    <section aria-label="The plan judged">
      <h2>
        <Figure title="The plan judged" lines={a.working}>
          {a.verdict}
        </Figure>
      </h2>
      <Columns>
        <div>
          <h3>
            Alkalinity (<Term of="kh">KH</Term>)
          </h3>
          <Lead>
            Until it passes about {fixed(a.nitrogen_mg_n_l, 1)} mg/L of nitrogen go through the film and eat{" "}
            <b>
              {fixed(a.kh_eaten_dkh, 1)} <Term of="dkh">dKH</Term>
            </b>
            ; this water has {fixed(plan.start_kh_dkh, 1)}.{" "}
            {a.kh_short_dkh > 0.1 ? (
              <>
                Holding it at 4 takes <b>{a.bicarbonate_g.toFixed(0)} g of bicarbonate</b> over the whole
                cycle.
                {a.kh_gone_day != null && ` Left alone it is gone about day ${a.kh_gone_day.toFixed(0)}.`}
              </>
            ) : (
              "That is enough."
            )}
          </Lead>
        </div>
        <div>
          {a.heat.length > 0 && (
            <>
              <h3>Heat</h3>
              <ul>
                {a.heat.map((h) => (
                  <li key={h.when}>
                    {h.when}: to <b>{show(h.to_c, "°C")}</b>
                    {h.days >= 0.5
                      ? `, over ${Math.ceil(h.days)} day${Math.ceil(h.days) > 1 ? "s" : ""}`
                      : ""}
                    .
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      </Columns>
      <Conditions of={a.conditions.filter((c) => c.level !== "fine")} />
      {fine.length > 0 && (
        <Fold summary={`Fine as it is: ${fine.map((c) => c.what).join(", ")}`}>
          <Conditions of={fine} />
        </Fold>
      )}
    </section>
  );
}

function Conditions({ of }: { of: Props["judged"]["conditions"] }) {
  return (
    <Judgements>
      {of.map((c) => (
        <li key={c.what} data-level={c.level}>
          <b>{c.what}</b>
          <i>{WORD[c.level]}</i>
          <span>
            {c.text} {c.remedy}
          </span>
        </li>
      ))}
    </Judgements>
  );
}

const Judgements = styled.ul`
  li {
    display: grid;
    grid-template-columns: 104px 48px 1fr;
    gap: 4px 8px;
    padding: 4px 0;
    border-bottom: 1px solid var(--line);
    font-size: 0.9375rem;
  }
  b {
    font-weight: 600;
  }
  i {
    color: var(--ink-soft);
  }
  li[data-level="first"] i {
    color: var(--alarm);
    font-weight: 600;
  }
  li[data-level="watch"] i {
    color: var(--seed);
    font-weight: 600;
  }
  li[data-level="fine"] i {
    color: var(--reed);
  }
`;
