/** One filter cleaned, step by step, with what it costs the film before it is done, and parts that wear. */
import { styled } from "styled-components";
import type { KeepView } from "../../api/schemas";
import { Caution, Figure } from "../../kit";
import { Steps } from "../fit/Steps";

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
      <Steps tankId={tankId} filterKey={filter.key} steps={cleaning.steps} done={filter.cleaning_done} />
    </Box>
  );
}

const Box = styled.section`
  background: var(--silt);
  padding: 10px 14px;
  margin-top: 6px;
  display: grid;
  gap: 8px;
`;
