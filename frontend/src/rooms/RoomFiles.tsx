/** Files of a room, and the meter on its air pump. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { Button, Lead, ProblemNote, TextField } from "../kit";

export function RoomFiles({ roomId }: { roomId: number }) {
  return (
    <>
      <details>
        <summary>Files of this room</summary>
        <List>
          <li>
            <a href={`/api/rooms/${roomId}/bundle.json`} download>
              The room and all its logbooks as JSON
            </a>
          </li>
          <li>
            <a href={`/api/rooms/${roomId}/calendar.ics`}>What is due, for a calendar</a>
          </li>
          <li>
            <Link to={`/rooms/${roomId}/labels`}>Labels for the tanks, with a code for the phone</Link>
          </li>
        </List>
      </details>
      <details>
        <summary>A meter on the air pump</summary>
        <Meter roomId={roomId} />
      </details>
    </>
  );
}

function Meter({ roomId }: { roomId: number }) {
  const path = { room_id: roomId };
  const queries = useQueryClient();
  const list = useQuery({
    queryKey: ["room-devices", roomId],
    queryFn: () => ask(client.GET("/api/rooms/{room_id}/devices", { params: { path } })),
  });
  const [name, setName] = useState("");
  const [token, setToken] = useState<string | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const attempt = async (work: () => Promise<void>) => {
    setProblem(null);
    try {
      await work();
      await queries.invalidateQueries({ queryKey: ["room-devices", roomId] });
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const make = async () => {
    const made = await ask(
      client.POST("/api/rooms/{room_id}/devices", { params: { path }, body: { name: name.trim() } }),
    );
    setToken(made.token);
    setName("");
  };
  const remove = async (device_id: number) => {
    await ask(
      client.DELETE("/api/rooms/{room_id}/devices/{device_id}", { params: { path: { ...path, device_id } } }),
    );
  };
  return (
    <>
      <Lead>
        When its watts go, every tank on this air stands, and its logbook says so; when they come back, all
        run.
      </Lead>
      <List>
        {list.data?.devices.map((d) => (
          <li key={d.id}>
            <b>{d.name}</b>{" "}
            <Button $quiet aria-label={`Remove ${d.name}`} onPress={() => void attempt(() => remove(d.id))}>
              Remove
            </Button>
          </li>
        ))}
      </List>
      <Line>
        <TextField label="Name of the meter" value={name} onChange={setName} />
        <Button $quiet isDisabled={!name.trim()} onPress={() => void attempt(make)}>
          Let it write here
        </Button>
      </Line>
      <ProblemNote problem={problem} />
      {token && (
        <p role="status">
          Its token, shown this once: <code>{token}</code>. It is sent with each reading to{" "}
          <code>/api/device/readings</code>.
        </p>
      )}
    </>
  );
}

const List = styled.ul`
  a {
    display: inline-flex;
    align-items: center;
    min-height: 32px;
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  code {
    overflow-wrap: anywhere;
  }
`;
