/** Readings out and in as CSV. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { postText, ProblemError } from "../../api/client";
import { refresh } from "../../api/hooks";
import { Button, ProblemNote } from "../../kit";
import { Bar } from "../shared";

export function CsvTools({ tankId, count }: { tankId: number; count: number }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [said, setSaid] = useState("");
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setProblem(null);
    setSaid("");
    try {
      const answer = (await postText(`/api/tanks/${tankId}/readings.csv`, await file.text())) as {
        added: number;
        known: number;
      };
      setSaid(`${answer.added} readings added${answer.known ? `, ${answer.known} were there already` : ""}.`);
      await refresh(queries, tankId);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <>
      <Bar>
        {count > 0 && <a href={`/api/tanks/${tankId}/readings.csv`}>Readings as CSV ({count})</a>}
        <FileTrigger acceptedFileTypes={["text/csv", ".csv"]} onSelect={(f) => void take(f)}>
          <Button $quiet>Take readings from a CSV</Button>
        </FileTrigger>
        <span role="status">{said}</span>
      </Bar>
      <ProblemNote problem={problem} />
    </>
  );
}
