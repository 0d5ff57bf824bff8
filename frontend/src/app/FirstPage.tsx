/** The first page is the tool: what brings you, and that question's first figures; no account is asked for. */
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { beGuest } from "../shared/guest";
import { useCompute } from "../api/compute";
import type { SessionState, Tables } from "../api/schemas";
import { useEnter } from "../api/session";
import { useTables } from "../api/tables";
import { Bar, Button, Lead, narrow, ProblemNote, Verdict } from "../kit";
import { show, twinOf } from "../quantity/format";
import { Section } from "../section/Section";
import { Page } from "../shared/Page";
import { Ask, BeginForm, NO_SIZES, type PanelProps, planOf, type Sizes, type Way } from "./BeginForm";

const WAYS: [Way, string, string][] = [
  ["new", "A new tank", "which filter, then step by step to the first fish"],
  ["trouble", "Fish are in, and something is wrong", "what to do in the next hour"],
  ["cycle", "Weeks into a cycle", "when will it be ready? tests from paper or a file"],
  ["box", "A box in the shop", "will it do? four numbers, or paste its label"],
  ["runs", "A tank that runs", "swap a filter, keep it well, many tanks"],
  ["look", "Just to look", "the kinds of filter, or somebody else’s tanks"],
];

export function FirstPage({ session }: { session: SessionState }) {
  const [way, setWay] = useState<Way>("new");
  const [sizes, setSizes] = useState(NO_SIZES);
  const tables = useTables();
  return (
    <Page>
      <title>Reedmace: the right filter for your aquarium</title>
      <Head>
        <Verdict>
          The right filter for your aquarium, fitted dry, <em>and the day fish may come.</em>
        </Verdict>
        <Lead>
          Free, no account needed. What you make is yours, kept for 30 days and for good once you say so.{" "}
          <Link to="/sign-in">Sign in</Link>
        </Lead>
      </Head>
      <Split>
        <Ways way={way} onWay={setWay} demoOpen={session.demo_open} />
        <div id="ask">
          {tables.data && <Drawn tables={tables.data} sizes={sizes} />}
          <Panel
            way={way}
            sizes={sizes}
            onSizes={setSizes}
            tables={tables.data}
            demoOpen={session.demo_open}
          />
        </div>
      </Split>
    </Page>
  );
}

function Ways({ way, onWay, demoOpen }: { way: Way; onWay: (way: Way) => void; demoOpen: boolean }) {
  return (
    <div>
      <h2 id="brings">What brings you?</h2>
      <Rows role="group" aria-labelledby="brings">
        {WAYS.map(([key, title, words]) => (
          <button
            key={key}
            type="button"
            aria-pressed={key === way}
            onClick={() => {
              onWay(key);
              // On a narrow screen its question stands below.
              document.getElementById("ask")?.scrollIntoView({ block: "nearest" });
            }}
          >
            <b>{title}</b>
            <span>{words}</span>
          </button>
        ))}
      </Rows>
      {demoOpen && <Demo />}
    </div>
  );
}

/** The demo keeper's tanks, in a copy that is forgotten after a day unless it is kept. */
function Demo() {
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const enter = useEnter();
  const go = async () => {
    try {
      enter(await ask(client.POST("/api/session/demo")));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <Bar>
      <ProblemNote problem={problem} />
      <Button $quiet onPress={() => void go()}>
        Look round as the demo keeper
      </Button>
    </Bar>
  );
}

function Drawn({ tables, sizes }: { tables: Tables; sizes: Sizes }) {
  const blank = tables.form_defaults.tank;
  const plan = planOf(blank, sizes) ?? blank;
  const volume = useCompute("tank-volume", sizes.litres === null ? plan.tank : null);
  const typed = planOf(blank, sizes) !== null;
  const litres = sizes.litres ?? (typed ? volume.data?.net_l : undefined);
  return (
    <Figure>
      <Section
        plan={plan}
        volume={typed ? volume.data : undefined}
        dimensions={typed}
        caption="Your tank, front and side."
      />
      <p role="status">
        {litres !== undefined && (
          <>
            It holds <b>{show(litres, "L")}</b>, {twinOf(litres, "L")}
            {volume.data && sizes.litres === null && `, and weighs ${show(volume.data.filled_kg, "kg")} full`}
            .
          </>
        )}
      </p>
    </Figure>
  );
}

function Panel(props: PanelProps) {
  if (props.way === "box")
    return (
      <Ask>
        <h2>Does it do for that tank?</h2>
        <p>Litres, animals, and what is printed on the box: yes or no in one line. Nothing is stored.</p>
        <Go to="/counter">To the counter</Go>
      </Ask>
    );
  if (props.way === "look")
    return (
      <Ask>
        <h2>Eight kinds of filter</h2>
        <p>
          How each works, for whom, and what it asks of you
          {props.demoOpen && "; or a keeper’s tanks, to try everything on"}.
        </p>
        <Go to="/kinds">The kinds of filter</Go>
        <Rehearse />
      </Ask>
    );
  return <BeginForm key={props.way} {...props} />;
}

/** The first lesson, as a guest: a whole cycle in minutes. */
function Rehearse() {
  const enter = useEnter();
  const navigate = useNavigate();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const go = async () => {
    try {
      enter(await beGuest());
      const made = await ask(client.POST("/api/practice/tanks", { body: { lesson: "first-cycle" } }));
      await navigate(`/tanks/${made.tank_id}/cycle`);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <>
      <p>
        Or run a first cycle in ten minutes, on a tank that is not real: make the mistakes where they cost
        nobody.
      </p>
      <ProblemNote problem={problem} />
      <Bar>
        <Button $quiet onPress={() => void go()}>
          Practise a first cycle
        </Button>
      </Bar>
    </>
  );
}

const Head = styled.div`
  max-width: 860px;
  margin-bottom: 14px;
  h1 em {
    font-style: normal;
    color: var(--seed);
  }
`;
const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 540px) minmax(0, 1fr);
  gap: 18px 44px;
  align-items: start;
  > div {
    display: grid;
    gap: 10px;
  }
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Rows = styled.div`
  display: grid;
  gap: 8px;
  button {
    display: grid;
    text-align: left;
    min-height: 54px;
    padding: 6px 16px;
    border: 1px solid var(--line);
    border-left: 5px solid transparent;
    border-radius: 4px;
    background: var(--field);
    color: inherit;
    cursor: pointer;
    line-height: 1.3;
  }
  button[aria-pressed="true"] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  span {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
`;
const Figure = styled.div`
  max-width: 390px;
  p {
    min-height: 24px;
  }
  ${narrow} {
    display: none;
  }
`;
const Go = styled(Link)`
  justify-self: start;
  background: var(--ink);
  color: var(--on-ink);
  padding: 10px 18px;
  border-radius: 4px;
  font-weight: 600;
  text-decoration: none;
`;
