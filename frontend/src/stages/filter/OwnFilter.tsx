/** A box in hand: its label, whether it agrees with itself, and onto the shelf with it. */
import { useState } from "react";
import { styled } from "styled-components";
import { useCompute } from "../../api/compute";
import type { AnswerOf, Label } from "../../api/schemas";
import { usePutBoxes } from "../../api/shelf";
import { Bar, Button, Caution, Figure, ProblemNote } from "../../kit";
import { EMPTY_LABEL, LabelForm, saysEnough } from "../../shared/LabelForm";

export function OwnFilter({ onAdd }: { onAdd: (filterId: string) => void }) {
  const [label, setLabel] = useState<Label>(EMPTY_LABEL);
  const put = usePutBoxes();
  const known = saysEnough(label);
  const check = useCompute("label-check", known ? label : null);
  const answer = check.error || !known ? undefined : check.data;
  const add = () => {
    const box = { label, filter: null, seen_on: today(), seen_where: "", note: "", bought: false };
    put.mutate([box], {
      onSuccess: ({ filter_ids: [id] }) => {
        if (id) onAdd(id);
        setLabel(EMPTY_LABEL);
      },
    });
  };
  return (
    <>
      <LabelForm
        label={label}
        onChange={(change) => {
          setLabel((now) => ({ ...now, ...change }));
        }}
      />
      <ProblemNote problem={check.error ?? put.error} />
      {answer && <Checked answer={answer} />}
      <Bar>
        <Button $quiet isDisabled={!answer || put.isPending} onPress={add}>
          Keep it and see
        </Button>
        <span>
          {known
            ? "It goes on your shelf. What the box does not say is as usual for its kind and size."
            : "The flow is enough to begin with; leave empty what is not printed."}
        </span>
      </Bar>
    </>
  );
}

function today(): string {
  const now = new Date();
  const two = (n: number) => String(n).padStart(2, "0");
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}

/** Whether the label agrees with itself, which tanks it suits, and what it leaves out. */
function Checked({ answer }: { answer: AnswerOf<"label-check"> }) {
  return (
    <Found>
      {answer.agrees ? (
        <p>
          <Figure title="The box held against itself" lines={answer.working}>
            {answer.verdict}
          </Figure>
        </p>
      ) : (
        answer.findings.map((f) => <Caution key={f}>{f}</Caution>)
      )}
      <p>{answer.carries_words}</p>
      {answer.missing.length > 0 && (
        <ul>
          {answer.missing.map((m) => (
            <li key={m}>{m}</li>
          ))}
        </ul>
      )}
    </Found>
  );
}

const Found = styled.div`
  margin: 6px 0 10px;
  ul {
    margin: 8px 0 0;
    padding-left: 18px;
    list-style: "– ";
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  li + li {
    margin-top: 4px;
  }
`;
