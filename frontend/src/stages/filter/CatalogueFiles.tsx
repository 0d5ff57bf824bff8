/** Export of the catalogue as CSV, and import of a keeper's own: all rows or none. */
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { postText, ProblemError } from "../../api/client";
import type { Filter } from "../../api/schemas";
import { Button, ProblemNote } from "../../kit";
import { Bar } from "../../kit";

export function CatalogueFiles({ onTaken }: { onTaken: (filters: Filter[]) => void }) {
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [words, setWords] = useState("");
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setProblem(null);
    setWords("");
    try {
      const answer = (await postText("/api/compute/catalogue.csv", await file.text())) as {
        filters: Filter[];
      };
      onTaken(answer.filters);
      setWords(`${answer.filters.length} filters taken; save the plan to keep them.`);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <>
      <ProblemNote problem={problem} />
      <Bar>
        <a href="/api/compute/catalogue.csv" download>
          The catalogue as CSV
        </a>
        <FileTrigger acceptedFileTypes={[".csv", "text/csv"]} onSelect={(files) => void take(files)}>
          <Button $quiet>Take filters from a CSV</Button>
        </FileTrigger>
        <span role="status">{words || "Needed columns: name, kind, box_lph, watts, price."}</span>
      </Bar>
    </>
  );
}
