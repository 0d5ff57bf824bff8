/** The page of a filter kind: how it works, for whom, what it costs; without any tank or account. */
import { Link, useParams } from "react-router";
import { styled } from "styled-components";
import type { KindPage as Kind, TankPlan } from "../api/schemas";
import { useKinds } from "../api/shelf";
import { useTables } from "../api/tables";
import { Lead, phone, Verdict } from "../kit";
import { show } from "../quantity/format";
import { Section } from "../section/Section";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";

/** A tank of 80 by 35 by 40 cm, for the drawing. */
function sketch({ tank, surroundings }: TankPlan): TankPlan {
  return {
    kind: "tank-plan",
    by_litres: false,
    tank: { ...tank, length_cm: 80, width_cm: 35, height_cm: 40, substrate_depth_cm: 4 },
    surroundings: { ...surroundings, behind_cm: 14, stand_height_cm: 70 },
  };
}

export default function KindPage() {
  const { kind } = useParams();
  const kinds = useKinds();
  const tables = useTables();
  const page = kinds.data?.kinds.find((k) => k.kind === kind) ?? kinds.data?.kinds[0];
  return (
    <Page>
      <title>{`${page?.title ?? "Filters"} · Reedmace`}</title>
      <Kinds aria-label="Kinds of filter">
        {kinds.data?.kinds.map((k) => (
          <Link key={k.kind} to={`/kinds/${k.kind}`} aria-current={k === page ? "page" : undefined}>
            {k.title}
          </Link>
        ))}
      </Kinds>
      <Opening asked={[kinds]}>Opening the page…</Opening>
      {page && (
        <Split>
          {tables.data && (
            <Section
              plan={sketch(tables.data.form_defaults.tank)}
              filters={[{ key: page.kind, filter: page.usual }]}
              caption={`${page.title}, of a usual size, on a tank of 80 cm.`}
            />
          )}
          <About page={page} />
        </Split>
      )}
    </Page>
  );
}

function About({ page }: { page: Kind }) {
  const { about } = page;
  return (
    <Text>
      <Verdict>{page.title}</Verdict>
      <Lead>{about.how}</Lead>
      <Pair>
        <section>
          <h2>Good at</h2>
          <List lines={about.good} />
        </section>
        <section>
          <h2>Not good at</h2>
          <List lines={about.poor} />
        </section>
      </Pair>
      <h2>Who picks it</h2>
      <p>{about.picked_for}</p>
      <h2>Who argues against it</h2>
      <p>{about.argued}</p>
      <h2>Cleaning</h2>
      <p>{about.cleaning}</p>
      <h2>Cost and wear</h2>
      <p>
        {about.costs} It is made in sizes of about {show(page.smallest_lph, "L/h")} to{" "}
        {show(page.largest_lph, "L/h")}.
      </p>
      <Pair>
        <section>
          <h2>In the box</h2>
          <List lines={about.in_box} />
        </section>
        <section>
          <h2>To buy besides</h2>
          <List lines={about.besides} />
        </section>
      </Pair>
      <p>
        All of this is common practice. <Link to="/counter">Does a box do for a tank?</Link>
      </p>
    </Text>
  );
}

function List({ lines }: { lines: string[] }) {
  return (
    <ul>
      {lines.map((line) => (
        <li key={line}>{line}</li>
      ))}
    </ul>
  );
}

const Kinds = styled.nav`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  border-bottom: 1px solid var(--line);
  margin-bottom: 14px;
  a {
    min-height: 44px;
    display: grid;
    align-content: center;
    color: var(--ink-soft);
    text-decoration: none;
  }
  a[aria-current] {
    color: var(--ink);
    font-weight: 600;
    border-bottom: 3px solid var(--seed);
  }
  @media print {
    display: none;
  }
`;
const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 520px) minmax(0, 640px);
  gap: 12px 36px;
  align-items: start;
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
    > :first-child {
      order: 2;
    }
  }
`;
const Text = styled.article`
  display: grid;
  gap: 6px;
  h2 {
    margin-top: 8px;
  }
  ul {
    margin: 0;
    padding-left: 18px;
    list-style: "– ";
  }
`;
const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 28px;
  ${phone} {
    grid-template-columns: 1fr;
  }
`;
