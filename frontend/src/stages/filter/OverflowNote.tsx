/** A sump's overflow, drains and run-back; its socks; evaporation. */
import type { InstalledView, OverflowCheck } from "../../api/schemas";
import { Explained, Figure } from "../../kit";

interface Props {
  answer: OverflowCheck;
  socks: InstalledView["socks"];
  evaporation: InstalledView["evaporation"];
}

export function OverflowNote({ answer, socks, evaporation }: Props) {
  return (
    <>
      <p>
        <Figure title="Overflow and run-back" lines={answer.working}>
          {answer.verdict}
        </Figure>{" "}
        <Explained text={answer.remedies.join(" ")} />
      </p>
      {socks && (
        <p>
          <Figure title="Socks" lines={socks.working}>
            {socks.verdict}
          </Figure>
        </p>
      )}
      {evaporation && (
        <p>
          <Figure title="What evaporates" lines={evaporation.working}>
            {evaporation.verdict}
          </Figure>
        </p>
      )}
    </>
  );
}
