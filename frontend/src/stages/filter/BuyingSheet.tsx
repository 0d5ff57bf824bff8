/** Shopping list and comparison on one sheet, for the screen and for paper. */
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { saveCsv } from "../../api/client";
import { useCompute, useTables, useTank } from "../../api/hooks";
import { Page } from "../../app/Page";
import { Button, Figure, Lead, ProblemNote, Verdict, Waiting } from "../../kit";
import { Bar, filterPlan, stockPlan } from "../shared";
import { ComparisonTable } from "./Compare";

export default function BuyingSheet() {
  const tankId = Number(useParams().tankId);
  const tank = useTank(tankId);
  const tables = useTables();
  const standing = tank.data?.standing;
  const plan = standing ? filterPlan(standing) : null;
  const stock = standing ? stockPlan(standing) : null;
  const cycle = standing?.cycle_plan?.body;
  const guard = (stock?.animals ?? []).some(
    (a) =>
      [...(stock?.own_species ?? []), ...(tables.data?.species ?? [])].find((s) => s.id === a.species_id)
        ?.needs_guard,
  );
  const rank = tank.data?.rank;
  const question =
    plan?.chosen && rank
      ? {
          filter: plan.chosen,
          plumbing: plan.plumbing,
          media: plan.media,
          net_l: rank.room.net_l,
          depth_cm: rank.room.water_depth_cm,
          needs_guard: guard,
          filters_count: plan.second?.id === plan.chosen.id ? 2 : 1,
          ...(cycle?.kind === "cycle-plan" ? { product: cycle.product, target_ppm: cycle.target_ppm } : {}),
        }
      : null;
  const list = useCompute("shopping-list", question);
  const ranking = useCompute("rank-filters", rank ?? null);
  return (
    <Page name={tank.data?.tank.name}>
      <title>{`${tank.data?.tank.name ?? "Tank"}: to buy · Reedmace`}</title>
      <ProblemNote problem={list.error ?? ranking.error} />
      {!tank.data && <Waiting>Writing the list…</Waiting>}
      {tank.data && !question && (
        <>
          <Verdict>Choose a filter first: the list is made for it.</Verdict>
          <Link to={`/tanks/${tankId}/filter`}>To the Filter stage</Link>
        </>
      )}
      {list.data && question && (
        <Sheet>
          <Verdict>
            To buy for {tank.data?.tank.name}: {plan?.chosen?.name}
            {plan?.second && plan.second.id !== plan.chosen?.id ? ` and ${plan.second.name}` : ""}.
          </Verdict>
          <Lead>
            <Figure title="Quantities" lines={list.data.working}>
              {list.data.verdict}
            </Figure>{" "}
            Amounts come from your own water and plumbing.
          </Lead>
          <Bar className="screen-only">
            <Button
              onPress={() => {
                window.print();
              }}
            >
              Print
            </Button>
            <Button
              $quiet
              onPress={() => void saveCsv("/api/compute/shopping-list.csv", question, "shopping-list.csv")}
            >
              As CSV
            </Button>
            <Link to={`/tanks/${tankId}/filter`}>Back to Filter</Link>
          </Bar>
          <table>
            <thead>
              <tr>
                <th scope="col">
                  <span className="tick" aria-hidden="true" /> Item
                </th>
                <th scope="col">How much</th>
                <th scope="col">Why</th>
              </tr>
            </thead>
            <tbody>
              {list.data.items.map((i) => (
                <tr key={i.item} data-need={i.need}>
                  <th scope="row">
                    <span className="tick" aria-hidden="true" /> {i.item}
                    {i.need !== "needed" && <i> ({i.need})</i>}
                  </th>
                  <td>
                    {Number(i.amount.toPrecision(3))}{" "}
                    {i.unit === "piece" && i.amount !== 1 ? "pieces" : i.unit}
                  </td>
                  <td>{i.why}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {ranking.data && (
            <>
              <h2>The best four on this tank</h2>
              <ComparisonTable
                candidates={ranking.data.ranked.slice(0, 4)}
                pricePerKwh={rank?.price_per_kwh ?? 0.3}
              />
            </>
          )}
        </Sheet>
      )}
    </Page>
  );
}

const Sheet = styled.div`
  display: grid;
  gap: 12px;
  max-width: 940px;
  > table {
    border-collapse: collapse;
    font-size: 15.5px;
  }
  > table th,
  > table td {
    text-align: left;
    vertical-align: top;
    padding: 4px 16px 4px 0;
    border-bottom: 1px solid var(--line);
  }
  > table tbody th {
    font-weight: 600;
  }
  > table td:nth-child(2) {
    white-space: nowrap;
  }
  .tick {
    display: inline-block;
    width: 13px;
    height: 13px;
    border: 1.5px solid var(--ink-soft);
    margin-right: 7px;
    vertical-align: -1px;
  }
  thead .tick {
    visibility: hidden;
  }
  @media print {
    font-size: 12px;
    h1 {
      font-size: 20px;
    }
    table {
      font-size: 11.5px !important;
    }
  }
`;
