/** The end of a lesson: the truth uncovered over what was read, and each decision with what else it would have become. */
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { beginsAt, useBeginLesson, useEndOfLesson, type EndOfLesson } from "../api/practice";
import { useTables } from "../api/tables";
import { useTank } from "../api/tanks";
import { Truth } from "../charts/Truth";
import { Button, Fold, Lead, ProblemNote, Verdict } from "../kit";
import { Section } from "../section/Section";
import { hanging } from "../shared/installedFilters";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { kitPpm } from "../quantity/ppm";
import { money, show } from "../quantity/format";

export default function EndPage() {
  const tankId = Number(useParams().tankId);
  const asked = useEndOfLesson(tankId);
  return (
    <Page>
      <title>The end of a lesson · Reedmace</title>
      <Opening asked={[asked]}>Uncovering it…</Opening>
      {asked.data && <Uncovered tankId={tankId} page={asked.data} />}
    </Page>
  );
}

/** The tank as it stands at the end, with who lives in it. */
function Standing({ tankId, page }: { tankId: number; page: EndOfLesson }) {
  const tank = useTank(tankId).data;
  const tables = useTables().data;
  if (!tank || !tables) return null;
  const { plans } = tank.state;
  const alive = page.truth.at(-1)?.alive_count ?? 0;
  return (
    <Section
      plan={plans.tank}
      filters={hanging(plans.filter)}
      animals={alive > 0 ? plans.stock.animals : []}
      species={tables.species}
      caption={`The tank on day ${page.days.toFixed(0)}: ${alive === 0 ? "nobody lives in it" : `${alive} animals alive`}.`}
    />
  );
}

function Uncovered({ tankId, page }: { tankId: number; page: EndOfLesson }) {
  const begin = useBeginLesson();
  const navigate = useNavigate();
  return (
    <>
      <Verdict>{page.label ? `${page.label}: ${page.verdict}` : page.verdict}</Verdict>
      <Lead>
        {page.title}. {page.teaches}{" "}
        {!page.won && page.lesson !== "free" && `The usual mistake: ${page.mistake}`}
      </Lead>
      <Split>
        <Beside tankId={tankId} page={page} />
        <div className="work truth">
          <Uncover page={page} />
        </div>
        <div className="work">
          {page.cost_most && (
            <p className="cost">
              <b>What cost most.</b> {page.cost_most}{" "}
              <Link to={`/help#${page.rule}`}>The rule behind it</Link>
            </p>
          )}
          {page.good.length > 0 && (
            <>
              <h2>Done well</h2>
              <ul>
                {page.good.map((one) => (
                  <li key={one}>{one}</li>
                ))}
              </ul>
            </>
          )}
          <Decisions page={page} />
          <p>
            <Link to={`/help#${page.rule}`}>What the help says on it</Link>
          </p>
          <ProblemNote problem={begin.error} />
          <div className="row">
            {page.lesson !== "free" && (
              <Button
                onPress={() => {
                  begin.mutate(
                    { lesson: page.lesson },
                    { onSuccess: (made) => void navigate(beginsAt(made)) },
                  );
                }}
              >
                Again, with another tank
              </Button>
            )}
            <Link to="/practice">All lessons</Link>
          </div>
          <Standing tankId={tankId} page={page} />
        </div>
      </Split>
    </>
  );
}

/** Every tank of a lesson side by side: how it ended, what nobody could see of it, and the way to its page. */
function Beside({ tankId, page }: { tankId: number; page: EndOfLesson }) {
  if (page.beside.length === 0) return null;
  const uncovered = page.beside.some((one) => one.uncovers);
  return (
    <Table aria-label="Tanks side by side">
      <thead>
        <tr>
          <th scope="col">Tank</th>
          <th scope="col">How it ended</th>
          {uncovered && <th scope="col">In truth</th>}
        </tr>
      </thead>
      <tbody>
        {page.beside.map((one) => (
          <tr key={one.tank_id} data-here={one.tank_id === tankId || undefined}>
            <th scope="row">
              {one.tank_id === tankId ? (
                one.label
              ) : (
                <Link to={`/practice/${one.tank_id}/end`}>{one.label}</Link>
              )}
            </th>
            <td>
              {one.won ? "✓ " : "✗ "}
              {one.verdict}
            </td>
            {uncovered && <td>{one.uncovers}</td>}
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

/** Least ammonia or nitrite, mg N/L, for which a curve is drawn where nothing was read. */
const SEEN_MG_N_L = 0.05;

/** What was true of the water, where there was anything in it, of the filter, and of the animals. */
function Uncover({ page }: { page: EndOfLesson }) {
  const tables = useTables().data;
  const water =
    page.read.length > 0 ||
    page.truth.some((at) => Math.max(at.ammonia_mg_n_l, at.nitrite_mg_n_l) > SEEN_MG_N_L);
  return (
    <>
      {tables && water && <Truth page={page} share={kitPpm(tables, undefined)} />}
      {page.equipment.length > 0 && (
        <>
          <h2>What the filter truly did</h2>
          <ul>
            {page.equipment.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </>
      )}
      {(water || page.happened.length > 0) && (
        <p>
          This tank was made with {page.structure}. The forecast did not know it.
          {page.happened.length > 0 && ` ${page.happened.join(" ")}`}
        </p>
      )}
      {page.deaths.length > 0 && (
        <ul aria-label="Deaths">
          {page.deaths.map((death) => (
            <li key={death}>{death}</li>
          ))}
        </ul>
      )}
    </>
  );
}

function Decisions({ page }: { page: EndOfLesson }) {
  const other = page.decisions.filter((d) => !d.followed);
  const [every, setEvery] = useState(false);
  const shown = every ? page.decisions : other.slice(-8);
  if (page.decisions.length === 0) return null;
  return (
    <>
      <h2>Your decisions</h2>
      <p>
        You did what the advice said in {page.decisions.length - other.length} of {page.decisions.length}.{" "}
        {other.length > 0 &&
          "Where you did not, the same tank was run again from that moment as advised. Money is at usual prices of animals, water and current:"}
      </p>
      {shown.length > 0 && (
        <Table>
          <thead>
            <tr>
              <th scope="col">Day</th>
              <th scope="col">Advised</th>
              <th scope="col">Done</th>
              <th scope="col">It cost</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((d) => (
              <tr key={d.day}>
                <td>{d.day.toFixed(0)}</td>
                <td>
                  {d.advised}
                  <small>Believed: {d.believed}</small>
                </td>
                <td>{d.done}</td>
                <td>{costs(d)}</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
      {page.decisions.length > shown.length && (
        <Fold summary="Every decision">
          <Button
            $quiet
            onPress={() => {
              setEvery(true);
            }}
          >
            Show all {page.decisions.length}
          </Button>
        </Fold>
      )}
    </>
  );
}

function costs(d: EndOfLesson["decisions"][number]): string {
  if (d.followed) return "as advised";
  const parts = [
    d.lost_more_count > 0 && `${d.lost_more_count} animals`,
    d.lost_more_count < 0 && `${-d.lost_more_count} animals fewer lost`,
    d.days_longer >= 1 && `${d.days_longer.toFixed(0)} days`,
    d.days_longer <= -1 && `${(-d.days_longer).toFixed(0)} days sooner`,
    d.litres_more >= 1 && `${show(d.litres_more, "L")} more changed`,
    d.litres_more <= -1 && `${show(-d.litres_more, "L")} less changed`,
    d.money_more > 0 && `about ${money(d.money_more)}`,
    d.money_more < 0 && `about ${money(-d.money_more)} less`,
  ].filter(Boolean);
  return parts.length > 0 ? parts.join(", ") : "nothing";
}

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 28px;
  > table {
    grid-column: 2;
    align-self: start;
  }
  > .truth {
    grid-column: 1;
    grid-row: 1 / span 2;
  }
  .work {
    display: grid;
    gap: 8px;
    align-content: start;
  }
  .cost {
    border-left: 5px solid var(--seed);
    padding-left: 10px;
  }
  .row {
    display: flex;
    gap: 16px;
    align-items: center;
  }
  ul {
    padding-left: 18px;
    list-style: disc;
  }
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
    > table,
    > .truth {
      grid-column: 1;
      grid-row: auto;
    }
  }
`;
const Table = styled.table`
  border-collapse: collapse;
  font-size: 0.9375rem;
  th,
  td {
    text-align: left;
    padding: 4px 10px 4px 0;
    border-bottom: 1px solid var(--line);
    vertical-align: top;
  }
  td small {
    display: block;
    color: var(--ink-soft);
  }
  thead th {
    color: var(--ink-soft);
    font-weight: 400;
  }
  tbody th {
    font-weight: 400;
    white-space: nowrap;
  }
  tr[data-here] th {
    font-weight: 600;
  }
`;
