/** Moving animals between two tanks, and copying a tank. */
import { range } from "../api/range";
import { useQueryClient } from "@tanstack/react-query";
import { Fragment, useState } from "react";
import { ask, client, ProblemError } from "../api/client";
import { invalidate } from "../api/replaceData";
import { useTank } from "../api/tanks";
import { newKey } from "../api/outbox";
import type { BoardRow, Tables } from "../api/schemas";
import { Button, Caution, ProblemNote, Select } from "../kit";
import { NumberBox } from "../kit/quantities";
import { Line } from "./parts";
import { SpongeMove } from "./SpongeMove";

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
        <SpongeMove from={first} to={second} />
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
