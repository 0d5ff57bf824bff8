/** Help: words, kinds, methods, how things are done by hand, and questions people ask; searched as one types. */
import { useEffect, useState, type ReactNode } from "react";
import { Link, useLocation } from "react-router";
import { styled } from "styled-components";
import type { Tables } from "../api/schemas";
import { useTables } from "../api/tables";
import { Lead, narrow, TextField, Verdict } from "../kit";
import { KindLinks } from "../shared/KindLinks";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";

export default function HelpPage() {
  const tables = useTables();
  return (
    <Page>
      <title>Help · Reedmace</title>
      <Opening asked={[tables]}>Opening the book…</Opening>
      {tables.data && <Help tables={tables.data} />}
    </Page>
  );
}

interface Item {
  key: string;
  title: string;
  text: ReactNode;
  /** What a search goes through. */
  words: string;
}
interface Part {
  name: string;
  items: Item[];
}

function item(key: string, title: string, text: string, more?: ReactNode): Item {
  return {
    key,
    title,
    text: (
      <>
        <KindLinks text={text} /> {more}
      </>
    ),
    words: `${title} ${text}`.toLowerCase(),
  };
}

function partsOf(tables: Tables): Part[] {
  return [
    {
      name: "Questions people ask",
      items: tables.questions.map((q) => item(q.key, q.question, q.answer)),
    },
    {
      name: "How to weigh, measure, read",
      items: tables.how_to.map((h) => item(h.key, h.title, h.text)),
    },
    {
      name: "Ways to cycle",
      items: tables.methods.map((m) => item(m.method, m.title, m.about)),
    },
    {
      name: "Kinds of filter",
      items: tables.kinds.map((k) =>
        item(k.kind, k.title, "", <Link to={`/kinds/${k.kind}`}>How it works, and for whom</Link>),
      ),
    },
    { name: "Words", items: tables.words.map((w) => item(w.key, w.word, w.meaning)) },
  ];
}

function Help({ tables }: { tables: Tables }) {
  const [sought, seek] = useState("");
  const { hash } = useLocation();
  useEffect(() => {
    if (!hash) return;
    // What is linked is shown, whatever was searched for.
    seek("");
    const frame = requestAnimationFrame(() => {
      document.getElementById(decodeURIComponent(hash.slice(1)))?.scrollIntoView();
    });
    return () => {
      cancelAnimationFrame(frame);
    };
  }, [hash]);
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean);
  const found = partsOf(tables)
    .map((part) => ({
      ...part,
      items: part.items.filter((one) => words.every((w) => one.words.includes(w))),
    }))
    .filter((part) => part.items.length > 0);
  const count = found.reduce((sum, part) => sum + part.items.length, 0);
  return (
    <Sheet>
      <Verdict>What do you want to know?</Verdict>
      <TextField
        label="A word or two"
        value={sought}
        onChange={seek}
        placeholder="nitrite, power cut, sponge…"
      />
      <p role="status">{words.length > 0 && (count ? `${count} found.` : "Nothing of that name here.")}</p>
      <Parts>
        {found.map((part) => (
          <section key={part.name} aria-label={part.name}>
            <h2>{part.name}</h2>
            <dl>
              {part.items.map((one) => (
                <div key={one.key} id={one.key}>
                  <dt>
                    <a href={`#${one.key}`}>{one.title}</a>
                  </dt>
                  <dd>{one.text}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </Parts>
      <Lead>
        Facts marked common practice come from keepers, not from papers; where they disagree, each stage shows
        the schools side by side. For programs: the <a href="/api/reference">reference of the interface</a>.
      </Lead>
    </Sheet>
  );
}

const Sheet = styled.div`
  display: grid;
  gap: 10px;
  max-width: 1180px;
  > :nth-child(2) {
    max-width: 420px;
  }
`;
const Parts = styled.div`
  columns: 2;
  column-gap: 40px;
  ${narrow} {
    columns: 1;
  }
  h2 {
    margin: 14px 0 4px;
    padding-bottom: 4px;
    border-bottom: 2px solid var(--line);
    break-after: avoid;
  }
  dt > a,
  dd > a:only-child {
    display: inline-block;
    min-height: 24px;
  }
  dl > div {
    padding: 6px 0 8px;
    border-bottom: 1px solid var(--line);
    break-inside: avoid;
    scroll-margin-top: 12px;
  }
  dl > div:target {
    border-left: 4px solid var(--seed);
    padding-left: 10px;
  }
  dt {
    font-weight: 600;
  }
  dt a {
    color: inherit;
    text-decoration-color: var(--line);
    text-underline-offset: 3px;
  }
  dd {
    max-width: 64ch;
  }
`;
