/** A spare sponge taken from one tank and put into another at once, written in both. */
import { useState } from "react";
import { useWriteAlong } from "../api/entries";
import type { BoardRow, Body } from "../api/schemas";
import { Button, Caution, Figure, ProblemNote, Select } from "../kit";
import { Line } from "./parts";

interface Props {
  from: BoardRow;
  to: BoardRow;
  /** The sponge that was dropped; any of the tank's where none is named. */
  seedKey?: string | undefined;
}

export function SpongeMove({ from, to, seedKey = "" }: Props) {
  const here = from.seeds.filter((s) => s.where === "seeding");
  const [chosen, setChosen] = useState(seedKey);
  const write = useWriteAlong();
  const seed = here.find((s) => s.key === chosen) ?? here[0];
  const moved = write.isSuccess && <p role="status">Moved, and written in both tanks.</p>;
  if (!seed) return moved || null;
  const { answer, question } = seed;
  const move = (phase: "out" | "in"): Body => ({ kind: "seed-move", seed_key: seed.key, phase, to: to.name });
  return (
    <Line>
      <Select
        label={`Sponge from ${from.name} into ${to.name}`}
        value={seed.key}
        onChange={setChosen}
        options={here.map((s): [string, string] => [s.key, s.name])}
      />
      <Button
        $quiet
        isDisabled={!answer.may_go || write.isPending}
        onPress={() => {
          write.mutate([
            { tankId: from.tank_id, body: move("out") },
            { tankId: from.tank_id, body: move("in") },
            {
              tankId: to.tank_id,
              body: { kind: "media-work", what: "seed-added", share: answer.brings_share, text: seed.name },
            },
          ]);
        }}
      >
        Move the sponge
      </Button>
      <p>
        <Figure title={seed.name} lines={answer.working}>
          {answer.verdict}
        </Figure>{" "}
        {answer.after_words}
      </p>
      {(from.quarantine ?? question.disease_note !== "none-seen") && (
        <Caution>
          {from.quarantine ? `${from.name}: ${from.quarantine}. ` : ""}
          Disease travels with a sponge; its own net and bucket.
        </Caution>
      )}
      {moved}
      <ProblemNote problem={write.error} />
    </Line>
  );
}
