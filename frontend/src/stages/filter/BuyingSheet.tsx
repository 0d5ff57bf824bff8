/** Shopping list and comparison on one sheet, for screen and paper. */
import { useState } from "react";
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { ProblemError } from "../../api/client";
import { useWrite } from "../../api/entries";
import { range } from "../../api/range";
import type { FilterView, ShoppingListAnswer } from "../../api/schemas";
import { useBuying, useTank } from "../../api/tanks";
import { useView } from "../../api/compute";
import { Opening } from "../../shared/NotFetched";
import { Page } from "../../shared/Page";
import { Button, Figure, Lead, Verdict, YesNo } from "../../kit";
import { Bar } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { money, withMark } from "../../quantity/format";
import { hanging } from "../../shared/installedFilters";
import { ComparisonTable } from "./Compare";

const MOST = 4;

export default function BuyingSheet() {
  const tankId = Number(useParams().tankId);
  const tank = useTank(tankId);
  const list = useBuying(tankId);
  const view = useView(tankId, "filter", {});
  const unchosen = list.error instanceof ProblemError && list.error.status === 422;
  const chosen = tank.data ? hanging(tank.data.state.plans.filter) : [];
  return (
    <Page name={tank.data?.tank.name}>
      <title>{`${tank.data?.tank.name ?? "Tank"}: to buy · Reedmace`}</title>
      {!unchosen && <Opening asked={[tank, list]}>Writing the list…</Opening>}
      {unchosen && (
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
          <Items tankId={tankId} items={list.data.items} />
          {view.data && <Comparison view={view.data} />}
        </Sheet>
      )}
    </Page>
  );
}

function Items({ tankId, items }: { tankId: number; items: ShoppingListAnswer["items"] }) {
  const [ticks, tick] = useTicks(tankId);
  return (
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
        {items.map((i) => (
          <tr key={i.item} data-need={i.need}>
            <th scope="row">
              <span className="tick print-only" aria-hidden="true" />
              <span className="screen-only">
                <YesNo
                  label={i.item}
                  value={ticks.has(i.item)}
                  onChange={(on) => {
                    tick(i.item, on);
                  }}
                />
              </span>
              <span className="print-only">{i.item}</span>
              {i.need !== "needed" && <i> ({i.need})</i>}
              {ticks.has(i.item) && <Paid tankId={tankId} item={i.item} />}
            </th>
            <td>
              {withMark(String(Number(i.amount.toPrecision(3))))}{" "}
              {i.unit === "piece" && i.amount !== 1 ? "pieces" : i.unit}
            </td>
            <td>{i.why}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What was paid for a ticked thing: it goes into the logbook, and so into the costs; offline it is sent later. */
function Paid({ tankId, item }: { tankId: number; item: string }) {
  const [price, setPrice] = useState<number | null>(null);
  const [written, setWritten] = useState<number | null>(null);
  const write = useWrite(tankId);
  if (written !== null) return <small role="status"> {money(written)}, in the costs</small>;
  return (
    <PaidRow
      className="screen-only"
      onSubmit={(e) => {
        e.preventDefault();
        if (price === null) return;
        write.mutate(
          { body: { kind: "purchase", item, price } },
          {
            onSuccess: () => {
              setWritten(price);
            },
          },
        );
      }}
    >
      <NumberBox
        label={`Paid for ${item}`}
        hideLabel
        hint="paid"
        value={price}
        {...range("Purchase.price")}
        onChange={setPrice}
        onClear={() => {
          setPrice(null);
        }}
      />
      <Button type="submit" $quiet isDisabled={price === null || write.isPending}>
        Into the costs
      </Button>
    </PaidRow>
  );
}

/** While the filter is only planned: others to compare it with. */
function Comparison({ view }: { view: FilterView }) {
  if (!view.hanging?.filters.some((f) => f.typical)) return null;
  return (
    <>
      <h2>The best four on this tank</h2>
      <ComparisonTable candidates={view.ranking.ranked.slice(0, MOST)} />
    </>
  );
}

/** What was ticked in the shop, kept on this device, so that no connection is needed. */
function useTicks(tankId: number): [Set<string>, (item: string, on: boolean) => void] {
  const key = `reedmace.bought.${tankId}`;
  const [ticks, setTicks] = useState(() => new Set(readTicks(key)));
  return [
    ticks,
    (item, on) => {
      const next = new Set(ticks);
      if (on) next.add(item);
      else next.delete(item);
      setTicks(next);
      localStorage.setItem(key, JSON.stringify([...next]));
    },
  ];
}

function readTicks(key: string): string[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? "[]") as string[];
  } catch {
    return [];
  }
}

const PaidRow = styled.form`
  display: flex;
  align-items: start;
  gap: 8px;
  input {
    width: 6em;
  }
`;
const Sheet = styled.div`
  display: grid;
  gap: 12px;
  max-width: 940px;
  > table {
    border-collapse: collapse;
    font-size: 0.9688rem;
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
    font-size: 0.75rem;
    h1 {
      font-size: 1.25rem;
    }
    table {
      font-size: 0.7188rem !important;
    }
  }
`;
