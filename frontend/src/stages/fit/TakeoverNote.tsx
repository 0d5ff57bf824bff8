/** A new filter beside an old one: how far it has taken over, the same words on every stage. */
import type { FitView } from "../../api/schemas";
import { Figure, Lead } from "../../kit";

export function TakeoverNote({ takeover }: { takeover: NonNullable<FitView["takeover"]> }) {
  return (
    <Lead>
      <Figure title="Old filter and new" lines={takeover.answer.working}>
        {takeover.words}
      </Figure>
    </Lead>
  );
}
