/** Take it to the shop: what to ask for, on half a page; kept on the phone for a shop without a connection. */
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useView } from "../api/compute";
import type { FilterView } from "../api/schemas";
import { useKinds } from "../api/shelf";
import { useTank } from "../api/tanks";
import { Bar, Button, Lead, Verdict } from "../kit";
import { bare, show, twinOf } from "../quantity/format";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";

export default function CardSheet() {
  const { tankId, kind } = useParams();
  const id = Number(tankId);
  const tank = useTank(id);
  const view = useView(id, "filter", {});
  const row = view.data?.types.kinds.find((k) => k.kind === kind) ?? view.data?.types.kinds[0];
  const name = tank.data?.tank.name ?? "Tank";
  return (
    <Page name={tank.data?.tank.name}>
      <title>{`${name}: for the shop · Reedmace`}</title>
      <Opening asked={[view]}>Writing the card…</Opening>
      {view.data && row && <Card name={name} view={view.data} row={row} tankId={id} />}
    </Page>
  );
}

interface Props {
  name: string;
  view: FilterView;
  row: FilterView["types"]["kinds"][number];
  tankId: number;
}

function Card({ name, view, row, tankId }: Props) {
  const kinds = useKinds();
  const about = kinds.data?.kinds.find((k) => k.kind === row.kind)?.about;
  const others = view.types.kinds.filter((k) => k.fits && k !== row).slice(0, 2);
  return (
    <Sheet>
      <Verdict>{row.ask_for}</Verdict>
      <Lead>
        For {name}: {show(view.volume.net_l, "L")}, {twinOf(view.volume.net_l, "L")}.
        {row.size_lph != null && !row.counted && (
          <>
            {" "}
            Best about {show(row.size_lph, "L/h")} ({twinOf(row.size_lph, "L/h")}).
          </>
        )}
      </Lead>
      <ul>
        {row.look_for.map((line) => (
          <li key={line}>
            <span className="tick" aria-hidden="true" /> {line}
          </li>
        ))}
      </ul>
      {row.fits && row.moves_low_lph != null && row.moves_high_lph != null && (
        <p>
          In service it moves {bare(row.moves_low_lph, "L/h")} to {show(row.moves_high_lph, "L/h")} here, by
          the make. Smaller: {row.binds_low}. Larger: {row.binds_high}.
        </p>
      )}
      {about && (
        <p>
          <b>Besides:</b> {about.besides.join(", ")}.
        </p>
      )}
      {others.length > 0 && (
        <p>
          <b>Would do too:</b> {others.map((k) => k.ask_for).join(" ")}
        </p>
      )}
      <Bar className="screen-only">
        <Button
          onPress={() => {
            window.print();
          }}
        >
          Print
        </Button>
        <Link to={`/tanks/${tankId}/filter`}>I have seen a box, back to Filter</Link>
        <Link to={`/kinds/${row.kind}`}>How it works</Link>
      </Bar>
    </Sheet>
  );
}

const Sheet = styled.article`
  display: grid;
  gap: 10px;
  max-width: 640px;
  border: 2px solid var(--ink);
  border-radius: 4px;
  padding: 18px 22px;
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  .tick {
    display: inline-block;
    width: 13px;
    height: 13px;
    border: 1.5px solid var(--ink-soft);
    margin-right: 7px;
    vertical-align: -1px;
  }
  @media print {
    font-size: 0.8125rem;
    h1 {
      font-size: 1.25rem;
    }
  }
`;
