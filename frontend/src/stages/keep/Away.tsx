/** Absence: the plan moves what falls into it. */
import { useId, useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { useWrite } from "../../api/entries";
import { Button, LineLink, ProblemNote } from "../../kit";

export function Away({ tankId }: { tankId: number }) {
  const [from, setFrom] = useState("");
  const [until, setUntil] = useState("");
  const write = useWrite(tankId);
  const id = useId();
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    if (!from || !until) return;
    write.mutate(
      { body: { kind: "away", from_at: noon(from), until_at: noon(until) } },
      {
        onSuccess: () => {
          setFrom("");
          setUntil("");
        },
      },
    );
  };
  return (
    <details>
      <summary>Away for a while</summary>
      <Form onSubmit={submit} aria-label="Away for a while">
        <label htmlFor={`${id}-from`}>From</label>
        <input
          id={`${id}-from`}
          type="date"
          value={from}
          onChange={(e) => {
            setFrom(e.target.value);
          }}
        />
        <label htmlFor={`${id}-until`}>Back on</label>
        <input
          id={`${id}-until`}
          type="date"
          value={until}
          onChange={(e) => {
            setUntil(e.target.value);
          }}
        />
        <Button $quiet type="submit" isDisabled={!from || !until || write.isPending}>
          Move the plan
        </Button>
        <LineLink to={`/tanks/${tankId}/away`}>A page for whoever looks after it</LineLink>
      </Form>
      <ProblemNote problem={write.error} />
    </details>
  );
}

/** A day is stored as its noon, so that no time zone changes its date. */
function noon(day: string): string {
  return new Date(`${day}T12:00`).toISOString();
}

const Form = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 6px 0;
  input {
    min-height: 40px;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--field);
    padding: 4px 8px;
  }
  label {
    color: var(--ink-soft);
  }
`;
