/** Cleaning of one filter, step by step, with its effect on the film, and parts that wear. */
import { styled } from "styled-components";
import { useWrite } from "../../api/entries";
import type { KeepView } from "../../api/schemas";
import { Button, Caution, Figure, ProblemNote } from "../../kit";
import { Steps } from "../../shared/Steps";

export function Cleaning({ tankId, filter }: { tankId: number; filter: KeepView["filters"][number] }) {
  const { cleaning } = filter;
  const worn = cleaning.worn.filter((part) => part.due);
  return (
    <Box aria-label={`${cleaning.title}, step by step`}>
      <p>
        <Figure title="Film a cleaning costs" lines={cleaning.working} of="lost_mg_n_day">
          {cleaning.verdict}
        </Figure>{" "}
        About {cleaning.minutes} minutes.
      </p>
      {worn.map((part) => (
        <Caution key={part.part}>
          Look at the {part.part}: by its age it may be worn. It shows: {part.shows}.
        </Caution>
      ))}
      <Parts tankId={tankId} filter={filter} />
      <Steps tankId={tankId} filterKey={filter.key} steps={cleaning.steps} done={filter.cleaning_done} />
    </Box>
  );
}

/** Parts that wear, each with its age; a new one is recorded with a press. */
function Parts({ tankId, filter }: { tankId: number; filter: KeepView["filters"][number] }) {
  const write = useWrite(tankId);
  const { worn } = filter.cleaning;
  if (worn.length === 0) return null;
  return (
    <details>
      <summary>Parts that wear</summary>
      <Worn>
        {worn.map((part) => (
          <li key={part.part}>
            <span>
              {part.part}, {part.age_words} old of about {part.lasts_words}
            </span>
            <Button
              $quiet
              aria-label={`New: ${part.part}`}
              isDisabled={write.isPending}
              onPress={() => {
                write.mutate({
                  body: { kind: "care", what: "part", part: part.part, filter_key: filter.key },
                });
              }}
            >
              New one put in
            </Button>
          </li>
        ))}
      </Worn>
      <ProblemNote problem={write.error} />
    </details>
  );
}

const Worn = styled.ul`
  li {
    display: flex;
    gap: 14px;
    align-items: center;
    justify-content: space-between;
    padding: 4px 0;
  }
`;
const Box = styled.section`
  background: var(--silt);
  padding: 10px 14px;
  margin-top: 6px;
  display: grid;
  gap: 8px;
`;
