/** Animals unwell or lost: recording signs, and what to check first. */
import { range } from "../api/range";
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { useWrite } from "../api/entries";
import type { Body, KeepView } from "../api/schemas";
import { Button, Caution, Figure, ProblemNote, Select, TextField, YesNo } from "../kit";
import { NumberBox } from "../kit/quantities";
import { SIGNS } from "./entryWords";
import { KEPT_HERE } from "./keptHere";
import type { StageProps } from "./stageProps";

type Ill = NonNullable<KeepView["illness"]>;
type Sign = keyof typeof SIGNS;

/** What to check first, the most certain cause before the others. */
export function Unwell({ tankId, illness }: { tankId: number; illness: Ill }) {
  const write = useWrite(tankId);
  return (
    <Box aria-label="Animals unwell or lost" data-urgent={illness.urgent || undefined}>
      <p>
        <b>{illness.first}</b>
      </p>
      <ul>
        {illness.causes.map((c, i) => (
          <li key={c.code}>
            <b>{c.title}.</b>{" "}
            {i === 0 ? (
              <Figure title="What was reckoned" lines={illness.working}>
                {c.why}
              </Figure>
            ) : (
              c.why
            )}{" "}
            {c.do !== illness.first && <span>{c.do}</span>}
          </li>
        ))}
      </ul>
      <details>
        <summary>Look at these, in this order</summary>
        <ol>
          {illness.checks.map((check) => (
            <li key={check}>{check}</li>
          ))}
        </ol>
      </details>
      {illness.apart && <p>{illness.apart}</p>}
      <p>{illness.vet}</p>
      {illness.cautions.map((words) => (
        <Caution key={words}>{words}</Caution>
      ))}
      <div>
        <Button
          $quiet
          isDisabled={write.isPending}
          onPress={() => {
            write.mutate({ body: { kind: "ailing", signs: [], count: 0, text: "", species_id: null } });
          }}
        >
          All are well again
        </Button>
      </div>
      <ProblemNote problem={write.error} />
    </Box>
  );
}

interface SeenUnwellProps extends StageProps {
  /** The line it opens from. */
  asks?: string;
}

/** Signs, animals and their number. */
export function SeenUnwell({ tankId, logbook, tables, asks = "An animal looks unwell" }: SeenUnwellProps) {
  const animals = logbook.plans.stock.animals.map((a): [string, string] => [
    a.species_id,
    tables.species.find((s) => s.id === a.species_id)?.common_name ?? a.species_id,
  ]);
  const [open, setOpen] = useState(false);
  const [signs, setSigns] = useState<Sign[]>([]);
  const [species, setSpecies] = useState("");
  const [count, setCount] = useState(1);
  const [text, setText] = useState("");
  const write = useWrite(tankId);
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    const body: Body = { kind: "ailing", signs, count, text, species_id: species || null };
    write.mutate(
      { body },
      {
        onSuccess: (written) => {
          setOpen(written === "held");
          setSigns([]);
          setText("");
        },
      },
    );
  };
  return (
    <details
      open={open}
      onToggle={(e) => {
        setOpen(e.currentTarget.open);
      }}
    >
      <summary>{asks}</summary>
      <Form onSubmit={submit} aria-label="An animal looks unwell">
        <Grid>
          {(Object.keys(SIGNS) as Sign[]).map((sign) => (
            <YesNo
              key={sign}
              label={SIGNS[sign]}
              value={signs.includes(sign)}
              onChange={(on) => {
                setSigns((now) => (on ? [...now, sign] : now.filter((one) => one !== sign)));
              }}
            />
          ))}
        </Grid>
        <Row>
          <Select
            label="Which"
            value={species}
            onChange={setSpecies}
            options={[["", "several, or not sure"], ...animals]}
          />
          <NumberBox label="How many show it" value={count} {...range("Ailing.count")} onChange={setCount} />
          <TextField label="In words, if you like" value={text} onChange={setText} />
          <Button type="submit" isDisabled={signs.length === 0 || write.isPending}>
            Write it, and see what to look at
          </Button>
        </Row>
        {write.data === "held" && <p role="status">{KEPT_HERE}</p>}
        <ProblemNote problem={write.error} />
      </Form>
    </details>
  );
}

const Box = styled.section`
  background: var(--silt);
  border-left: 4px solid var(--line);
  padding: 10px 16px;
  display: grid;
  gap: 8px;
  &[data-urgent] {
    border-left-color: var(--alarm);
  }
  span {
    color: var(--ink-soft);
  }
  ol {
    list-style: decimal;
    padding-left: 1.3em;
  }
  > ul > li {
    padding: 3px 0;
  }
`;
const Form = styled.form`
  display: grid;
  gap: 10px;
  padding: 6px 0;
`;
const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(230px, 1fr));
  gap: 2px 14px;
`;
const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
  > div {
    flex: 1 1 150px;
  }
`;
