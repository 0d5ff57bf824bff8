/** Page of a room: its board, bulk entries, and shared air. */
import { useState } from "react";
import { useParams } from "react-router";
import { styled } from "styled-components";
import { useQueryClient } from "@tanstack/react-query";
import { ask, client, ProblemError } from "../api/client";
import { replaceData } from "../api/replaceData";
import { standing } from "../api/compute";
import { useRoom, useRoomView, useRound } from "../api/rooms";
import { useTables } from "../api/tables";
import type { RoomPlan, RoomSeen, RoomView } from "../api/schemas";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { Button, LineLink, narrow, ProblemNote, Verdict } from "../kit";
import { Air } from "./Air";
import { Board } from "./Board";
import { Moves } from "./Moves";
import { RoomFiles } from "./RoomFiles";
import { RoomYear } from "./YearOfRoom";
import type { SpongeInHand } from "./SpongePieces";
import { SpongeMove } from "./SpongeMove";
import { SharedSump } from "./SharedSump";
import { Together } from "./BulkEntries";
import { Wall } from "./Wall";

export default function RoomPage() {
  const roomId = Number(useParams().roomId);
  const asked = useRoom(roomId);
  return (
    <Page name={asked.data?.room.name}>
      <title>{`${asked.data?.room.name ?? "Room"} · Reedmace`}</title>
      <Opening asked={[asked]}>Looking round the room…</Opening>
      {asked.data && <Room key={asked.data.room.version} seen={asked.data} />}
    </Page>
  );
}

function Room({ seen }: { seen: RoomSeen }) {
  const { room } = seen;
  const [plan, setPlan] = useState(room.plan);
  const [chosen, setChosen] = useState<number[]>([]);
  const [held, setHeld] = useState<SpongeInHand | null>(null);
  const [move, setMove] = useState<Move | null>(null);
  const tables = useTables();
  const changed = JSON.stringify(plan) !== JSON.stringify(room.plan);
  const drafted = useRoomView(room.id, plan, changed);
  const view = (changed ? standing(drafted) : undefined) ?? seen.view;
  const put = (change: Partial<RoomPlan>) => {
    setPlan((now) => ({ ...now, ...change }));
  };
  return (
    <Stack>
      <Headline>
        <Verdict>{view.verdict}</Verdict>
        <Button
          $quiet
          className="screen-only"
          onPress={() => {
            window.print();
          }}
        >
          Print the board
        </Button>
      </Headline>
      {view.rows.some((row) => row.lived_in) && <RoundLine roomId={room.id} />}
      <ProblemNote problem={changed ? drafted.error : null} />
      <Columns>
        <div>
          <Wall
            plan={plan}
            view={view}
            chosen={chosen}
            put={put}
            onChoose={setChosen}
            held={held}
            onHold={setHeld}
            onPut={(sponge, toId) => {
              setHeld(null);
              setMove({ sponge, toId });
            }}
          >
            {held ? (
              <HeldSpongeNote sponge={held} rows={view.rows} />
            ) : (
              move && <SpongeQuestion move={move} rows={view.rows} />
            )}
          </Wall>
          {changed && (
            <SavePlan
              room={room}
              plan={plan}
              onDrop={() => {
                setPlan(room.plan);
              }}
            />
          )}
          <Air plan={plan} view={view} put={put} />
          <SharedSump plan={plan} view={view} put={put} />
          {view.year && <RoomYear year={view.year} />}
          <RoomFiles roomId={room.id} />
        </div>
        <div>
          <Together rows={view.rows} chosen={chosen} onChoose={setChosen}>
            <Moves roomId={room.id} rows={view.rows} chosen={chosen} species={tables.data?.species ?? []} />
          </Together>
          <Board rows={view.rows} air={view.air} chosen={chosen} onChoose={setChosen} />
        </div>
      </Columns>
    </Stack>
  );
}

interface Move {
  sponge: SpongeInHand;
  toId: number;
}

/** A sponge waits for the tank it goes into. */
function HeldSpongeNote({ sponge, rows }: { sponge: SpongeInHand; rows: RoomView["rows"] }) {
  const from = rows.find((r) => r.tank_id === sponge.fromId);
  return (
    <p role="status">
      {sponge.name} of {from?.name} is in your hand: press the tank it goes into, or the sponge again to leave
      it.
    </p>
  );
}

/** A sponge was put over another tank: asked before it is written. */
function SpongeQuestion({ move: { sponge, toId }, rows }: { move: Move; rows: RoomView["rows"] }) {
  const [from, to] = [sponge.fromId, toId].map((id) => rows.find((r) => r.tank_id === id));
  if (!from || !to) return null;
  return (
    <SpongeMove key={`${sponge.fromId} ${sponge.key} ${toId}`} from={from} to={to} seedKey={sponge.key} />
  );
}

/** What the round says, and the way to it. */
function RoundLine({ roomId }: { roomId: number }) {
  const round = useRound(roomId);
  return (
    <p style={{ minHeight: "1.5em" }}>
      {round.data && (
        <>
          {round.data.verdict}{" "}
          <LineLink to={`/rooms/${roomId}/round`}>{round.data.taken_on ? "Walk it" : "The round"}</LineLink>
        </>
      )}
    </p>
  );
}

/** The drawing was changed: save or discard. */
function SavePlan({ room, plan, onDrop }: { room: RoomSeen["room"]; plan: RoomPlan; onDrop: () => void }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const save = async () => {
    try {
      const seen = await ask(
        client.PUT("/api/rooms/{room_id}", {
          params: { path: { room_id: room.id } },
          body: { name: room.name, plan, version: room.version },
        }),
      );
      replaceData(queries, ["rooms", room.id], seen);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <Kept>
      <Button onPress={() => void save()}>Save the room</Button>
      <Button $quiet onPress={onDrop}>
        As it was
      </Button>
      <ProblemNote problem={problem} />
    </Kept>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 12px;
`;
const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 6fr);
  gap: 28px;
  align-items: start;
  > div {
    display: grid;
    gap: 12px;
    min-width: 0;
  }
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
    > div:last-child {
      order: -1;
    }
  }
`;
const Headline = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: center;
  justify-content: space-between;
`;
const Kept = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
`;
