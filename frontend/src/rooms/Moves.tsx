/** Moving animals between two tanks, and copying a tank. */
import { range } from "../api/range";
import { useQueryClient } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { invalidate } from "../api/replaceData";
import { useTank } from "../api/tanks";
import { useWriteAlong } from "../api/entries";
import { newKey } from "../api/outbox";
import type { BoardRow, Body, Tables } from "../api/schemas";
import { Button, Caution, Figure, ProblemNote, Select } from "../kit";
import { NumberBox } from "../kit/quantities";

interface Props {
  roomId: number;
  rows: BoardRow[];
  chosen: number[];
  species: Tables["species"];
}

export function Moves({ roomId, rows, chosen, species }: Props) {
  const picked = chosen.flatMap((id) => rows.find((r) => r.tank_id === id) ?? []);
  const [first, second] = picked;
  if (first && picked.length === 1) return <Copies roomId={roomId} row={first} />;
  if (first && second && picked.length === 2)
    return (
      <Fragment key={`${first.tank_id}-${second.tank_id}`}>
        <Animals from={first} to={second} species={species} />
        <Sponges from={first} to={second} />
      </Fragment>
    );
  return null;
}

/** Send a request; refetch everything on success. */
function useSending() {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [said, setSaid] = useState("");
  const attempt = async (work: () => Promise<unknown>, words: string) => {
    setProblem(null);
    setSaid("");
    try {
      await work();
      await invalidate(queries);
      setSaid(words);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return { problem, said, attempt };
}

function Copies({ roomId, row }: { roomId: number; row: BoardRow }) {
  const [count, setCount] = useState(1);
  const { problem, attempt } = useSending();
  return (
    <Line>
      <NumberBox
        label={`Tanks planned as ${row.name}`}
        value={count}
        {...range("Copies.count")}
        onChange={setCount}
      />
      <Button
        $quiet
        onPress={() =>
          void attempt(
            () =>
              ask(
                client.POST("/api/rooms/{room_id}/copies", {
                  params: { path: { room_id: roomId } },
                  body: { tank_id: row.tank_id, count: Math.round(count) },
                }),
              ),
            "",
          )
        }
      >
        Set them beside it
      </Button>
      <ProblemNote problem={problem} />
    </Line>
  );
}

function Animals({ from, to, species }: { from: BoardRow; to: BoardRow; species: Tables["species"] }) {
  const plans = useTank(from.tank_id).data?.state.plans.stock.animals ?? [];
  const kinds = plans.map((a): [string, string] => [
    a.species_id,
    species.find((s) => s.id === a.species_id)?.common_name ?? a.species_id,
  ]);
  const [kind, setKind] = useState("");
  const [count, setCount] = useState(1);
  const { problem, said, attempt } = useSending();
  const which = kind || (kinds[0]?.[0] ?? "");
  if (kinds.length === 0) return null;
  return (
    <Line>
      <Select label={`From ${from.name} into ${to.name}`} value={which} onChange={setKind} options={kinds} />
      <NumberBox label="How many" value={count} {...range("Moving.count")} onChange={setCount} />
      <Button
        $quiet
        onPress={() =>
          void attempt(
            () =>
              ask(
                client.POST("/api/animals/move", {
                  body: {
                    key: newKey(),
                    at: new Date().toISOString(),
                    from_id: from.tank_id,
                    to_id: to.tank_id,
                    species_id: which,
                    count: Math.round(count),
                  },
                }),
              ),
            "Moved, and written in both tanks.",
          )
        }
      >
        Move them
      </Button>
      {from.quarantine && (
        <Caution>
          {from.name}: {from.quarantine}
        </Caution>
      )}
      {!to.lived_in && (
        <Caution>
          Nobody lives in {to.name} yet: it has proved nothing. See its Cycle first, or bring the sponge they
          lived on along, and test every day.
        </Caution>
      )}
      {said && <p role="status">{said}</p>}
      <ProblemNote problem={problem} />
    </Line>
  );
}

/** A spare sponge taken from one tank and put into another at once, written in both. */
function Sponges({ from, to }: { from: BoardRow; to: BoardRow }) {
  const here = from.seeds.filter((s) => s.where === "seeding");
  const [chosen, setChosen] = useState("");
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
        </Figure>
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

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  > div {
    max-width: 230px;
  }
`;
