/** Printed care card: tasks by day in the coming weeks, and how each filter is cleaned. */
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useKeep, useTank } from "../../api/tanks";
import { Opening } from "../../shared/NotFetched";
import { Page } from "../../shared/Page";
import { Button, Verdict } from "../../kit";
import { Bar } from "../../kit";
import { LOCALE } from "../../quantity/locale";

export default function CareSheet() {
  const tankId = Number(useParams().tankId);
  const name = useTank(tankId).data?.tank.name;
  const view = useKeep(tankId);
  const rows = view.data?.rows ?? [];
  return (
    <Page name={name}>
      <title>{`${name ?? "Tank"}: care · Reedmace`}</title>
      <Opening asked={[view]}>Writing the card…</Opening>
      {view.data && (
        <Sheet>
          <Verdict>{name}: what is done when</Verdict>
          <Bar className="screen-only">
            <Button
              onPress={() => {
                window.print();
              }}
            >
              Print
            </Button>
            <Link to={`/tanks/${tankId}/keep`}>Back to Keep</Link>
          </Bar>
          {rows.length === 0 && <p>Nothing is due in the coming weeks.</p>}
          <Days>
            {rows.map((row) => (
              <li key={`${row.task.what}-${row.task.filter_key ?? ""}-${row.at}`}>
                <i aria-hidden="true" />
                <time dateTime={row.at}>
                  {new Date(row.at).toLocaleDateString(LOCALE, {
                    weekday: "short",
                    day: "numeric",
                    month: "short",
                  })}
                </time>
                {row.task.title}
              </li>
            ))}
          </Days>
          {view.data.filters.map((f) => (
            <section key={f.key}>
              <h2>
                {f.cleaning.title}: {f.name}
              </h2>
              <ol>
                {f.cleaning.steps.map((step) => (
                  <li key={step.id}>
                    <b>{step.title}.</b> {step.detail}
                    {step.caution && <em> {step.caution}</em>}
                  </li>
                ))}
              </ol>
            </section>
          ))}
        </Sheet>
      )}
    </Page>
  );
}

const Sheet = styled.div`
  display: grid;
  gap: 12px;
  max-width: 760px;
  ol {
    list-style: decimal;
    padding-left: 1.4em;
  }
  em {
    font-style: italic;
  }
`;
const Days = styled.ul`
  columns: 2 280px;
  li {
    display: grid;
    grid-template-columns: 18px 96px minmax(0, 1fr);
    gap: 8px;
    padding: 2px 0;
    break-inside: avoid;
  }
  i {
    width: 14px;
    height: 14px;
    border: 1px solid var(--ink);
    align-self: center;
  }
  time {
    color: var(--ink-soft);
  }
`;
