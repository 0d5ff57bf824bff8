/** Takeover of film by a new filter, the same words on every stage. */
import type { FitView } from "../api/schemas";
import { Figure, Lead } from "../kit";

export function TakeoverNote({ takeover }: { takeover: NonNullable<FitView["takeover"]> }) {
  return (
    <Lead>
      <Figure title="Old filter and new" lines={takeover.answer.working}>
        {takeover.words}
      </Figure>
    </Lead>
  );
}
