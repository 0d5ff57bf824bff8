/** Export and import of events as a table: notes, changes, doses and cleanings. */
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { styled } from "styled-components";
import { useQueryClient } from "@tanstack/react-query";
import { postText, ProblemError } from "../../api/client";
import { refresh } from "../../api/entries";
import { Button, ProblemNote } from "../../kit";
import { Bar } from "../../kit";

export function Happenings({ tankId }: { tankId: number }) {
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [said, setSaid] = useState("");
  const queries = useQueryClient();
  const address = `/api/tanks/${tankId}/happenings.csv`;
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setSaid("");
    setProblem(null);
    try {
      const done = (await postText(address, await file.text())) as { added: number; known: number };
      setSaid(`${done.added} written${done.known ? `, ${done.known} were there already` : ""}.`);
      await refresh(queries, tankId);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <Fold>
      <summary>A notebook kept elsewhere</summary>
      <p>
        A table with the columns <i>at, what, amount, unit, filter, text</i>, a line for each thing done. What
        it was: <i>note</i>, <i>change</i> (25 %, or litres or gallons), <i>dose</i> (2 ppm), <i>cleaning</i>{" "}
        (50 %). Days may lie in the past; the same table twice adds nothing.
      </p>
      <Bar>
        <FileTrigger acceptedFileTypes={["text/csv", ".csv", ".txt"]} onSelect={(f) => void take(f)}>
          <Button $quiet>Take it in</Button>
        </FileTrigger>
        <a href={address}>What was done, as CSV</a>
        <span role="status">{said}</span>
      </Bar>
      <ProblemNote problem={problem} />
    </Fold>
  );
}

const Fold = styled.details`
  margin-top: 14px;
  p {
    margin: 6px 0 10px;
  }
`;
