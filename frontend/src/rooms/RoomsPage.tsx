/** Rooms: the list, a new one from existing tanks, one from a table. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client, postJson, ProblemError } from "../api/client";
import { useRooms } from "../api/rooms";
import { useTanks } from "../api/tanks";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { Button, Lead, ProblemNote, TextField, Verdict, YesNo } from "../kit";

export default function RoomsPage() {
  const rooms = useRooms();
  const found = rooms.data?.rooms ?? [];
  return (
    <Page name="Rooms">
      <title>Rooms · Reedmace</title>
      <Stack>
        <Opening asked={[rooms]}>Looking for rooms…</Opening>
        {rooms.data && (
          <Verdict>
            {found.length
              ? "Rooms of several tanks, seen at a glance."
              : "Several tanks in one place make a room."}
          </Verdict>
        )}
        <ul>
          {found.map((room) => (
            <li key={room.id}>
              <Link to={`/rooms/${room.id}`}>{room.name}</Link>, {room.plan.spots.length} tanks
            </li>
          ))}
        </ul>
        {rooms.data && <NewRoom />}
        {rooms.data && <FromTable />}
        {rooms.data && <FromBundle />}
      </Stack>
    </Page>
  );
}

/** Send a request that makes a room, and open it. */
function useMaking() {
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const queries = useQueryClient();
  const navigate = useNavigate();
  const attempt = async (make: () => Promise<{ id: number }>) => {
    setProblem(null);
    try {
      const room = await make();
      await queries.invalidateQueries();
      await navigate(`/rooms/${room.id}`);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return { problem, attempt };
}

function NewRoom() {
  const tanks = useTanks().data?.tanks ?? [];
  const [name, setName] = useState("");
  const [chosen, setChosen] = useState<number[]>([]);
  const { problem, attempt } = useMaking();
  return (
    <details>
      <summary>Make a room of tanks at hand</summary>
      <Form
        onSubmit={(e) => {
          e.preventDefault();
          void attempt(() =>
            ask(client.POST("/api/rooms", { body: { name: name.trim(), tank_ids: chosen } })),
          );
        }}
      >
        <TextField label="Its name" value={name} onChange={setName} />
        <div>
          {tanks.map((t) => (
            <YesNo
              key={t.id}
              label={t.name}
              value={chosen.includes(t.id)}
              onChange={(on) => {
                setChosen((now) => (on ? [...now, t.id] : now.filter((id) => id !== t.id)));
              }}
            />
          ))}
        </div>
        <Button type="submit" isDisabled={!name.trim()}>
          Make the room
        </Button>
        <ProblemNote problem={problem} />
      </Form>
    </details>
  );
}

function FromTable() {
  const [name, setName] = useState("");
  const [text, setText] = useState("");
  const { problem, attempt } = useMaking();
  return (
    <details>
      <summary>A room and its tanks from a table</summary>
      <Form
        onSubmit={(e) => {
          e.preventDefault();
          void attempt(() => ask(client.POST("/api/rooms/import", { body: { name: name.trim(), text } })));
        }}
      >
        <Lead>
          A line a tank, with commas between: name, length_cm, width_cm, height_cm, filter (the name of a box
          on your shelf or of a kind), animals (“12 guppy; 6 cherry shrimp”), stands (running, cycling,
          empty).
        </Lead>
        <TextField label="The room’s name" value={name} onChange={setName} />
        <label>
          <span>The table</span>
          <textarea
            rows={6}
            value={text}
            onChange={(e) => {
              setText(e.target.value);
            }}
          />
        </label>
        <Button type="submit" isDisabled={!name.trim() || !text.trim()}>
          Make the room
        </Button>
        <ProblemNote problem={problem} />
      </Form>
    </details>
  );
}

function FromBundle() {
  const { problem, attempt } = useMaking();
  const bring = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    await attempt(async () => {
      const made = (await postJson("/api/rooms/bundle", await file.text())) as { room_id: number };
      return { id: made.room_id };
    });
  };
  return (
    <div>
      <FileTrigger acceptedFileTypes={["application/json", ".json"]} onSelect={(f) => void bring(f)}>
        <Button $quiet>Take in a room with its logbooks (JSON)</Button>
      </FileTrigger>
      <ProblemNote problem={problem} />
    </div>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 14px;
  max-width: 760px;
  > ul a {
    font-weight: 600;
    display: inline-flex;
    min-height: 32px;
    align-items: center;
  }
`;
const Form = styled.form`
  display: grid;
  gap: 10px;
  padding: 8px 0;
  > div {
    display: grid;
    grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  }
  > button {
    justify-self: start;
  }
  textarea {
    width: 100%;
    border: 1px solid var(--line);
    border-radius: 4px;
    background: var(--field);
    padding: 6px 8px;
    font-variant-numeric: tabular-nums;
  }
`;
