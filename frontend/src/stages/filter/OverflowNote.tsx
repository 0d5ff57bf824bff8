/** A sump's overflow, drains and what runs back when the power fails, from the tank's own sump. */
import type { OverflowCheck } from "../../api/schemas";
import { Figure } from "../../kit";

export function OverflowNote({ answer }: { answer: OverflowCheck }) {
  return (
    <p>
      <Figure title="Overflow and run-back" lines={answer.working}>
        {answer.verdict}
      </Figure>{" "}
      {answer.remedies.join(" ")}
    </p>
  );
}
