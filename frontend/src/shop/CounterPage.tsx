/** The counter: litres, animals and up to four boxes on one page, yes or no in its first line; nothing is stored. */
import { useState } from "react";
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { range } from "../api/range";
import type { CounterAnswer, Tables } from "../api/schemas";
import { useSession } from "../api/session";
import { useCounter } from "../api/shelf";
import { useTables } from "../api/tables";
import { Bar, Button, Caution, Figure, Lead, narrow, phone, ProblemNote, Select, Verdict } from "../kit";
import { NumberBox, QuantityField } from "../kit/quantities";
import { show } from "../quantity/format";
import { EMPTY_LABEL, LabelForm, saysEnough } from "../shared/LabelForm";
import { KindLinks } from "../shared/KindLinks";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { ROOMS } from "../shared/roomKinds";
import { SpeciesPicker } from "../shared/SpeciesPicker";
import { TypeMap } from "../shared/TypeMap";
import { MOST_BOXES, type Asked, BLANK, fromAddress, addressOf, questionOf } from "./counterQuestion";

export default function CounterPage() {
  const tables = useTables();
  return (
    <Page>
      <title>Does this box do? · Reedmace</title>
      <Opening asked={[tables]}>Opening the counter…</Opening>
      {tables.data && <Counter tables={tables.data} />}
    </Page>
  );
}

function Counter({ tables }: { tables: Tables }) {
  const [asked, setAsked] = useState(fromAddress);
  const [seen, setSeen] = useState<string[]>([]);
  const answer = useCounter(questionOf(asked));
  const set = (change: Partial<Asked>) => {
    const next = { ...asked, ...change };
    setAsked(next);
    window.history.replaceState(window.history.state, "", addressOf(next));
  };
  return (
    <Stack>
      <Answer answer={asked.litres === null ? undefined : answer.data} />
      <ProblemNote problem={answer.error} />
      <Split>
        <div>
          <Form tables={tables} asked={asked} onChange={set} />
          <Boxes asked={asked} answer={answer.data} onChange={set} />
        </div>
        {asked.litres !== null && answer.data && (
          <TypeMap types={answer.data.types} shelf={answer.data.boxes} seen={seen} onSee={setSeen} />
        )}
      </Split>
      <Foot
        asked={asked}
        onBlank={() => {
          set(BLANK);
        }}
      />
    </Stack>
  );
}

function Answer({ answer }: { answer?: CounterAnswer }) {
  if (!answer)
    return (
      <>
        <Verdict>Does this box do for that tank?</Verdict>
        <Lead>Litres, animals, and what is printed on the box. Nothing is stored.</Lead>
      </>
    );
  return (
    <div aria-live="polite">
      <Verdict>{answer.verdict}</Verdict>
      <Lead>
        <KindLinks text={answer.why} />{" "}
        <Figure title="What the tank asks" lines={answer.working}>
          {show(answer.asked_low_lph, "L/h")} is asked in service.
        </Figure>{" "}
        Assumed: {answer.assumed.join("; ")}.
      </Lead>
      {answer.clashes.map((text) => (
        <Caution key={text}>{text}</Caution>
      ))}
      {answer.boxes.length > 0 && (
        <p>
          <b>Any shop can fill:</b> {answer.ask_for} {answer.ask_why}
        </p>
      )}
    </div>
  );
}

function Form({
  tables,
  asked,
  onChange,
}: {
  tables: Tables;
  asked: Asked;
  onChange: (change: Partial<Asked>) => void;
}) {
  const nameOf = (id: string) => tables.species.find((s) => s.id === id)?.common_name ?? id;
  return (
    <Row>
      <QuantityField
        label="The tank holds"
        unit="L"
        value={asked.litres}
        {...range("CounterQuestion.litres")}
        onChange={(litres) => {
          onChange({ litres });
        }}
        onClear={() => {
          onChange({ litres: null });
        }}
      />
      <SpeciesPicker
        species={tables.species}
        taken={asked.animals.map((a) => a.species_id)}
        onPick={(species_id) => {
          const count = tables.species.find((s) => s.id === species_id)?.together ?? 1;
          onChange({ animals: [...asked.animals, { species_id, count, length_cm: null }] });
        }}
      />
      <Select
        label="It stands in a"
        value={asked.room}
        onChange={(room) => {
          onChange({ room });
        }}
        options={ROOMS}
      />
      <QuantityField
        label="Glass to wall"
        unit="cm"
        value={asked.behind}
        {...range("CounterQuestion.behind_cm")}
        onChange={(behind) => {
          onChange({ behind });
        }}
        onClear={() => {
          onChange({ behind: null });
        }}
      />
      {asked.animals.map((a) => (
        <Animal key={a.species_id} data-count={a.species_id}>
          <NumberBox
            label={nameOf(a.species_id)}
            value={a.count}
            {...range("Animals.count")}
            onChange={(count) => {
              onChange({
                animals: asked.animals.map((x) => (x.species_id === a.species_id ? { ...x, count } : x)),
              });
            }}
          />
          <Button
            $quiet
            aria-label={`Remove ${nameOf(a.species_id)}`}
            onPress={() => {
              onChange({ animals: asked.animals.filter((x) => x.species_id !== a.species_id) });
            }}
          >
            ×
          </Button>
        </Animal>
      ))}
    </Row>
  );
}

function Boxes({
  asked,
  answer,
  onChange,
}: {
  asked: Asked;
  answer?: CounterAnswer;
  onChange: (change: Partial<Asked>) => void;
}) {
  // The answer numbers the boxes that say enough, in their order.
  const numbers = asked.boxes.map((_, i) => asked.boxes.slice(0, i + 1).filter(saysEnough).length);
  return (
    <Cards>
      {asked.boxes.map((label, i) => {
        const row = saysEnough(label) ? answer?.boxes.find((b) => b.id === numbers[i]) : undefined;
        return (
          <Card key={i} data-answer={row?.answer} aria-label={`Box ${i + 1}`}>
            <h2>
              {row?.name ?? `Box ${i + 1}`}{" "}
              {row && <em>{{ yes: "yes", no: "no", depends: "which kind?" }[row.answer]}</em>}
            </h2>
            {row && <p>{row.words}</p>}
            <LabelForm
              short
              label={label}
              onChange={(change) => {
                onChange({ boxes: asked.boxes.map((x, k) => (k === i ? { ...x, ...change } : x)) });
              }}
            />
          </Card>
        );
      })}
      {asked.boxes.length < MOST_BOXES && (
        <div className="screen-only">
          <Button
            $quiet
            onPress={() => {
              onChange({ boxes: [...asked.boxes, EMPTY_LABEL] });
            }}
          >
            One more box
          </Button>
        </div>
      )}
    </Cards>
  );
}

function Foot({ asked, onBlank }: { asked: Asked; onBlank: () => void }) {
  const session = useSession();
  const navigate = useNavigate();
  const [said, setSaid] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const copy = async () => {
    await navigator.clipboard.writeText(window.location.origin + addressOf(asked));
    setSaid("The link is copied; it opens this page as it stands.");
  };
  const keep = async () => {
    try {
      const tank = await ask(
        client.POST("/api/tanks", { body: { name: "From the counter", litres: asked.litres } }),
      );
      await navigate(`/tanks/${tank.id}/stock`);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <>
      <ProblemNote problem={problem} />
      <Bar className="screen-only">
        <Button
          $quiet
          onPress={() => {
            window.print();
          }}
        >
          Print
        </Button>
        <Button $quiet onPress={() => void copy()}>
          Copy the link
        </Button>
        <Button $quiet onPress={onBlank}>
          Next customer
        </Button>
        {session.data?.signed_in && asked.litres !== null && (
          <Button $quiet onPress={() => void keep()}>
            Keep it as a tank
          </Button>
        )}
        <Link to="/kinds/sponge">The kinds of filter</Link>
        <span role="status">{said}</span>
      </Bar>
    </>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 12px;
  max-width: 1240px;
`;
const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 620px);
  gap: 14px 36px;
  align-items: start;
  > div {
    display: grid;
    gap: 14px;
  }
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 10px 16px;
  align-items: start;
  ${phone} {
    grid-template-columns: 1fr 1fr;
  }
`;
const Animal = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: end;
  gap: 4px;
`;
const Cards = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(280px, 1fr));
  gap: 14px 22px;
  align-items: start;
`;
const Card = styled.section`
  border-top: 4px solid var(--line);
  padding-top: 6px;
  display: grid;
  gap: 6px;
  &[data-answer="yes"] {
    border-color: var(--reed);
  }
  &[data-answer="no"],
  &[data-answer="depends"] {
    border-color: var(--seed);
  }
  em {
    font-style: normal;
    color: var(--seed);
  }
  &[data-answer="yes"] em {
    color: var(--reed);
  }
`;
