/** The first page is the tool: what brings you, and that question's first figures; no account is asked for. */
import { useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { beGuest } from "../shared/guest";
import { useCompute } from "../api/compute";
import { newKey } from "../api/outbox";
import { range } from "../api/range";
import type { Body, NewTankIn, SessionState, Tables, TankPlan } from "../api/schemas";
import { useEnter } from "../api/session";
import { tablesOptions, useTables } from "../api/tables";
import { Bar, Button, Fields, Lead, narrow, ProblemNote, Verdict } from "../kit";
import { QuantityField } from "../kit/quantities";
import { show, twinOf } from "../quantity/format";
import { Section } from "../section/Section";
import { Page } from "../shared/Page";
import { SITUATIONS, type Stands } from "../shared/situations";

type Way = "new" | "trouble" | "cycle" | "box" | "runs" | "look";

const WAYS: [Way, string, string][] = [
  ["new", "A new tank", "which filter, then step by step to the first fish"],
  ["trouble", "Fish are in, and something is wrong", "what to do in the next hour"],
  ["cycle", "Weeks into a cycle", "when will it be ready? tests from paper or a file"],
  ["box", "A box in the shop", "will it do? four numbers, or paste its label"],
  ["runs", "A tank that runs", "swap a filter, keep it well, many tanks"],
  ["look", "Just to look", "the kinds of filter, or somebody else’s tanks"],
];

/** How the tank of each way stands, and what its button says. */
const BEGINS: Partial<Record<Way, { stands: Stands; next: string; stage?: string }>> = {
  // Its sizes were asked for here.
  new: { stands: "empty", stage: "stock", next: "Next: who will live in it" },
  trouble: { stands: "animals-in", next: "Next: what to do now" },
  cycle: { stands: "cycling", next: "Next: its tests" },
  runs: { stands: "running", next: "Next: who lives in it" },
};

interface Sizes {
  litres: number | null;
  length: number | null;
  width: number | null;
  height: number | null;
}
const NOTHING: Sizes = { litres: null, length: null, width: null, height: null };

export function FirstPage({ session }: { session: SessionState }) {
  const [way, setWay] = useState<Way>("new");
  const [sizes, setSizes] = useState(NOTHING);
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

/** A typed tank, as the drawing and the plan take it; null before its first figure. */
function planOf({ tank, surroundings }: TankPlan, { litres, length, width, height }: Sizes): TankPlan | null {
  if (length !== null || width !== null || height !== null)
    return {
      kind: "tank-plan",
      by_litres: false,
      tank: {
        ...tank,
        length_cm: length ?? tank.length_cm,
        width_cm: width ?? tank.width_cm,
        height_cm: height ?? tank.height_cm,
        counted_l: litres,
      },
      surroundings,
    };
  return null;
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

interface PanelProps {
  way: Way;
  sizes: Sizes;
  onSizes: (sizes: Sizes) => void;
  tables?: Tables;
  demoOpen: boolean;
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

function BeginForm({ way, sizes, onSizes, tables }: PanelProps) {
  const [since, setSince] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [busy, setBusy] = useState(false);
  const begin = useBegin(way, tables);
  const how = BEGINS[way];
  const day = how && SITUATIONS[how.stands].since;
  const set = (key: keyof Sizes) => ({
    value: sizes[key],
    onChange: (value: number) => {
      onSizes({ ...sizes, [key]: value });
    },
    onClear: () => {
      onSizes({ ...sizes, [key]: null });
    },
  });
  const go = async () => {
    setBusy(true);
    try {
      await begin(sizes, since);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
      setBusy(false);
    }
  };
  return (
    <Ask>
      <h2>How big is it?</h2>
      <Fields $min={112}>
        <QuantityField label="It holds" unit="L" {...range("CounterQuestion.litres")} {...set("litres")} />
        <QuantityField
          label="or length"
          unit="cm"
          onVolume={(litres) => {
            onSizes({ ...sizes, litres, length: null });
          }}
          {...range("TankVolumeQuestion.length_cm")}
          {...set("length")}
        />
        <QuantityField label="Width" unit="cm" {...range("TankVolumeQuestion.width_cm")} {...set("width")} />
        <QuantityField
          label="Height"
          unit="cm"
          {...range("TankVolumeQuestion.height_cm")}
          {...set("height")}
        />
      </Fields>
      {day && (
        <Since>
          {day}{" "}
          <input
            type="date"
            value={since}
            max={new Date().toISOString().slice(0, 10)}
            onChange={(e) => {
              setSince(e.target.value);
            }}
          />
        </Since>
      )}
      <ProblemNote problem={problem} />
      <Bar>
        <Button isDisabled={busy} onPress={() => void go()}>
          {how?.next}
        </Button>
        <span>{sizes === NOTHING ? "Not known yet? It can be said later." : ""}</span>
      </Bar>
    </Ask>
  );
}

/** Makes a guest and the tank, writes what was typed, and opens the stage where this way begins. */
function useBegin(way: Way, tables?: Tables) {
  const enter = useEnter();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const key = useRef(newKey());
  return async (sizes: Sizes, since: string) => {
    const how = BEGINS[way];
    if (!how) return;
    enter(await beGuest());
    // Whoever is quicker than the tables waits for them: what was typed is never left out.
    const { form_defaults } = tables ?? (await queries.query(tablesOptions));
    const plan = planOf(form_defaults.tank, sizes);
    const body: NewTankIn = { name: "My tank", stands: how.stands };
    if (since) body.since = new Date(`${since}T12:00`).toISOString();
    if (!plan && sizes.litres !== null) body.litres = sizes.litres;
    const tank = await ask(client.POST("/api/tanks", { body, headers: { "Idempotency-Key": key.current } }));
    if (plan) await write(tank.id, plan);
    await queries.invalidateQueries({ queryKey: ["tanks"] });
    await navigate(`/tanks/${tank.id}/${how.stage ?? SITUATIONS[how.stands].stage}`);
  };
}

async function write(tankId: number, body: Body): Promise<void> {
  const entry = { key: newKey(), at: new Date().toISOString(), body };
  await ask(
    client.POST("/api/tanks/{tank_id}/entries", { params: { path: { tank_id: tankId } }, body: entry }),
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
const Ask = styled.section`
  display: grid;
  gap: 8px;
  max-width: 640px;
`;
const Since = styled.label`
  display: flex;
  gap: 10px;
  align-items: center;
  flex-wrap: wrap;
  input {
    min-height: 44px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--field);
    padding: 4px 8px;
    font: inherit;
    color: inherit;
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
