/** Shopping list and comparison on one sheet, for screen and paper. */
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useBuying, useTank } from "../../api/tanks";
import { useView } from "../../api/compute";
import { Page } from "../../shared/Page";
import { Button, Figure, Lead, Verdict, Waiting } from "../../kit";
import { Bar } from "../../kit";
import { hanging } from "../../shared/installedFilters";
import { ComparisonTable } from "./Compare";

const MOST = 4;

export default function BuyingSheet() {
  const tankId = Number(useParams().tankId);
  const tank = useTank(tankId);
  const list = useBuying(tankId);
  const view = useView(tankId, "filter", {});
  const chosen = tank.data ? hanging(tank.data.state.plans.filter) : [];
  return (
    <Page name={tank.data?.tank.name}>
      <title>{`${tank.data?.tank.name ?? "Tank"}: to buy · Reedmace`}</title>
      {list.isPending && <Waiting>Writing the list…</Waiting>}
      {tank.data && list.isError && (
        <>
          <Verdict>Choose a filter first: the list is made for it.</Verdict>
          <Link to={`/tanks/${tankId}/filter`}>To the Filter stage</Link>
        </>
      )}
      {list.data && (
        <Sheet>
          <Verdict>
            To buy for {tank.data?.tank.name}: {chosen.map((f) => f.filter.name).join(" and ")}.
          </Verdict>
          <Lead>
            <Figure title="Quantities" lines={list.data.working}>
              {list.data.verdict}
            </Figure>{" "}
            Lengths and pieces are those of your own fitting plan.
          </Lead>
          <Bar className="screen-only">
            <Button
              onPress={() => {
                window.print();
              }}
            >
              Print
            </Button>
            <a href={`/api/tanks/${tankId}/buying.csv`} download>
              As CSV
            </a>
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
          {view.data && (
            <>
              <h2>The best four on this tank</h2>
              <ComparisonTable candidates={view.data.ranking.ranked.slice(0, MOST)} />
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
