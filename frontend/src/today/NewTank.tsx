/** Form for a new tank: name, situation, since when, volume; each leads to its own first screen. */
import { useQueryClient } from "@tanstack/react-query";
import { useId, useRef, useState, type SyntheticEvent } from "react";
import { FileTrigger } from "react-aria-components";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client, postJson, postText, ProblemError } from "../api/client";
import { newKey } from "../api/outbox";
import type { NewTankIn } from "../api/schemas";
import { Button, Lead, PickOne, ProblemNote, TextField } from "../kit";
import { SITUATIONS, type Stands } from "../shared/situations";
import { unitName } from "../quantity/format";

export function NewTank({ first }: { first: boolean }) {
  const [name, setName] = useState("");
  const [stands, setStands] = useState<Stands>("empty");
  const [since, setSince] = useState("");
  const [litres, setLitres] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  // The same until a tank is made, so that a press after a lost answer makes no second one.
  const key = useRef(newKey());
  const asked = SITUATIONS[stands];
  const attempt = async (work: () => Promise<string>) => {
    try {
      setProblem(null);
      const address = await work();
      await queries.invalidateQueries({ queryKey: ["tanks"] });
      await navigate(address);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const begin = async () => {
    const body: NewTankIn = { name: name.trim(), stands };
    if (asked.since && since) body.since = new Date(`${since}T12:00`).toISOString();
    const read = asked.litres ? await litresOf(litres) : null;
    if (read !== null) body.litres = read;
    const tank = await ask(client.POST("/api/tanks", { body, headers: { "Idempotency-Key": key.current } }));
    key.current = newKey();
    return `/tanks/${tank.id}/${asked.stage}`;
  };
  const bring = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    await attempt(async () => {
      const made = (await (file.name.endsWith(".zip")
        ? postText("/api/bundles/zip", file, "application/zip")
        : postJson("/api/bundles", await file.text()))) as { tank_id: number };
      return `/tanks/${made.tank_id}/tank`;
    });
  };
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    if (name.trim()) void attempt(begin);
  };
  return (
    <Begin onSubmit={submit}>
      {first && <Lead>Give it a name people use, such as the room it stands in.</Lead>}
      <PickOne label="How it stands" value={stands} onChange={setStands} options={CHOICES} />
      <div>
        <TextField label="A new tank" value={name} onChange={setName} placeholder="Landing, kitchen shelf…" />
        {asked.since && <Day label={asked.since} value={since} onChange={setSince} />}
        {asked.litres && (
          <TextField
            label="It holds, if known"
            value={litres}
            onChange={setLitres}
            placeholder={unitName("L") === "L" ? "60 L, 20 gal…" : "20 gal, 60 L…"}
          />
        )}
        <Button type="submit" isDisabled={!name.trim()}>
          Begin it
        </Button>
        <FileTrigger
          acceptedFileTypes={["application/json", ".json", "application/zip", ".zip"]}
          onSelect={(f) => void bring(f)}
        >
          <Button $quiet>Take in a logbook from a file</Button>
        </FileTrigger>
      </div>
      <p className="then">{asked.then}</p>
      <ProblemNote problem={problem} />
    </Begin>
  );
}

const CHOICES = Object.entries(SITUATIONS).map(([key, { words }]): [Stands, string] => [
  key as Stands,
  words,
]);

/** Litres from text in any unit; null where empty. */
async function litresOf(text: string): Promise<number | null> {
  if (!text.trim()) return null;
  const read = (await postJson(
    "/api/compute/read-quantity",
    JSON.stringify({ text, kind: "volume", unit: unitName("L") }),
  )) as {
    value: number;
  };
  return read.value;
}

function Day({ label, value, onChange }: { label: string; value: string; onChange: (day: string) => void }) {
  const id = useId();
  return (
    <DayBox>
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        type="date"
        value={value}
        max={new Date().toISOString().slice(0, 10)}
        onChange={(e) => {
          onChange(e.target.value);
        }}
      />
    </DayBox>
  );
}

const DayBox = styled.div`
  display: grid;
  gap: 3px;
  label {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  input {
    min-height: 40px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--field);
    padding: 4px 8px;
    font: inherit;
    color: inherit;
  }
`;
const Begin = styled.form`
  border-top: 1px solid var(--line);
  padding-top: 12px;
  display: grid;
  gap: 8px;
  > div {
    display: flex;
    gap: 12px;
    align-items: end;
    flex-wrap: wrap;
  }
  .then {
    color: var(--ink-soft);
  }
`;
