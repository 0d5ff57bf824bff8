/** Page for whoever looks after the tank: before leaving, what may wait, what a neighbour does. */
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import { useKeep, useTank } from "../../api/tanks";
import { Opening } from "../../shared/NotFetched";
import { Page } from "../../shared/Page";
import { Button, Figure, Lead, Verdict } from "../../kit";
import { Bar } from "../../kit";

export default function AwaySheet() {
  const tankId = Number(useParams().tankId);
  const tank = useTank(tankId);
  const view = useKeep(tankId);
  const name = tank.data?.tank.name ?? "Tank";
  const page = view.data?.holiday;
  return (
    <Page name={tank.data?.tank.name}>
      <title>{`${name}: while away · Reedmace`}</title>
      <Opening asked={[view]}>Writing the page…</Opening>
      {view.data && !page && (
        <>
          <Verdict>Say when you are away, and this page is written for those days.</Verdict>
          <Link to={`/tanks/${tankId}/keep`}>To Keep</Link>
        </>
      )}
      {page && (
        <Sheet>
          <Verdict>{name}, while we are away</Verdict>
          <Lead>
            <Figure title="Portions" lines={page.working}>
              {page.verdict}
            </Figure>
          </Lead>
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
          <h2>For whoever looks in</h2>
          <Numbered lines={page.neighbour} />
          <h2>Before going</h2>
          <Numbered lines={page.before} />
          <h2>What may wait</h2>
          <Numbered lines={page.may_wait} />
        </Sheet>
      )}
    </Page>
  );
}

function Numbered({ lines }: { lines: string[] }) {
  return (
    <ol>
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ol>
  );
}

const Sheet = styled.div`
  display: grid;
  gap: 10px;
  max-width: 720px;
  ol {
    list-style: decimal;
    padding-left: 1.4em;
    display: grid;
    gap: 6px;
  }
  @media print {
    .screen-only {
      display: none;
    }
  }
`;
