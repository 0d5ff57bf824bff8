/** A tank in quarantine: its day, hygiene, and the button that ends it. */
import { range } from "../../api/range";
import { useState } from "react";
import { styled } from "styled-components";
import { useWrite } from "../../api/entries";
import type { KeepView } from "../../api/schemas";
import { Button, Caution, Figure, ProblemNote } from "../../kit";
import { NumberBox } from "../../kit/quantities";
import { LOCALE } from "../../quantity/locale";

export function Quarantined({ tankId, shut }: { tankId: number; shut: NonNullable<KeepView["quarantine"]> }) {
  const write = useWrite(tankId);
  return (
    <section aria-label="Quarantine">
      <Line>
        <p>
          <Figure title="Days of quarantine" lines={shut.answer.working}>
            {shut.answer.verdict}
          </Figure>{" "}
          <small>Until {new Date(shut.until).toLocaleDateString(LOCALE)}.</small>
        </p>
        <Button
          $quiet
          isDisabled={write.isPending}
          onPress={() => {
            write.mutate({ body: { kind: "quarantine", days: 0 } });
          }}
        >
          It is over
        </Button>
      </Line>
      {!shut.answer.over && shut.answer.cautions.map((words) => <Caution key={words}>{words}</Caution>)}
      <ProblemNote problem={write.error} />
    </section>
  );
}

/** Begin a quarantine. */
export function BeginQuarantine({ tankId, usualDays }: { tankId: number; usualDays: number }) {
  const write = useWrite(tankId);
  const [days, setDays] = useState(usualDays);
  return (
    <details>
      <summary>Quarantine: its animals stay by themselves</summary>
      <Line>
        <NumberBox label="For so many days" value={days} {...range("Quarantine.days")} onChange={setDays} />
        <Button
          $quiet
          isDisabled={write.isPending}
          onPress={() => {
            write.mutate({ body: { kind: "quarantine", days: Math.round(days) } });
          }}
        >
          It begins today
        </Button>
      </Line>
      <ProblemNote problem={write.error} />
    </details>
  );
}

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  justify-content: space-between;
`;
