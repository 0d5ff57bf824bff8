/** Today: for every tank, what to do now and why. */
import { Link } from "react-router";
import { styled } from "styled-components";
import { useRooms } from "../api/rooms";
import { useToday } from "../api/tanks";
import type { RoomSeen, SeedRow, TodayRow } from "../api/schemas";
import { FetchProblem } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { narrow, phone, Verdict, WaitingPage } from "../kit";
import { Aside } from "./ArchivedTanks";
import { NewTank } from "./NewTank";
import { LOCALE } from "../quantity/locale";
import { TankRow } from "./TankRow";

type RoomKept = RoomSeen["room"];

export default function Today() {
  const today = useToday();
  const rooms = useRooms();
  const ready = today.data && !rooms.isPending;
  return (
    <Page name="Today">
      <title>Today · Reedmace</title>
      <Stack>
        {!ready && !today.error && <WaitingPage>Looking round the tanks…</WaitingPage>}
        <FetchProblem asked={today} />
        {ready && (
          <AllTanks rows={today.data.rows} seeds={today.data.seeds} rooms={rooms.data?.rooms ?? []} />
        )}
      </Stack>
    </Page>
  );
}

interface AllTanksProps {
  rows: TodayRow[];
  seeds: SeedRow[];
  rooms: RoomKept[];
}

/** Headline and rows are loaded together, so that the list does not shift under a finger. */
function AllTanks({ rows, seeds, rooms }: AllTanksProps) {
  const urgent = rows.filter((r) => r.urgent);
  const placed = new Map(rooms.flatMap((room) => room.plan.spots.map((s) => [s.tank_id, room] as const)));
  const alone = rows.filter((r) => !r.urgent && !placed.has(r.tank.id));
  return (
    <>
      <Headline rows={rows} placed={placed} />
      <Rows>
        {[...urgent, ...alone].map((r) => (
          <TankRow key={r.tank.id} row={r} />
        ))}
        {rooms.map((room) => (
          <RoomRow
            key={room.id}
            room={room}
            rows={rows.filter((r) => !r.urgent && placed.get(r.tank.id)?.id === room.id)}
          />
        ))}
      </Rows>
      {rows.length > 0 && (
        <p>
          <Link to="/month">What the month brings, day by day</Link>
        </p>
      )}
      <Spares rows={seeds} />
      <Aside />
      <NewTank first={rows.length === 0} />
    </>
  );
}

function Headline({ rows, placed }: { rows: TodayRow[]; placed: Map<number, RoomKept> }) {
  const urgent = rows.filter((r) => r.urgent);
  const due = rows
    .filter((r) => !r.urgent && isDue(r))
    .map((r) => placed.get(r.tank.id)?.name ?? r.tank.name);
  const others = listed([...new Set(due)]);
  const date = new Date().toLocaleDateString(LOCALE, { weekday: "long", day: "numeric", month: "long" });
  if (rows.length === 0) return <Verdict>Begin with a tank: where does it stand?</Verdict>;
  if (urgent.length === 0)
    return (
      <Verdict>
        {date}: {others ? `something is due for ${others}.` : "nothing is urgent."}
      </Verdict>
    );
  return (
    <Verdict>
      {date}: <em>{listed(urgent.map((r) => r.tank.name))} cannot wait.</em>{" "}
      {rows.length > urgent.length && (others ? `Something is due for ${others}.` : "The others can.")}
    </Verdict>
  );
}

const isDue = (row: TodayRow) => row.due.some((d) => new Date(d.at).getTime() < Date.now());

function listed(names: string[]): string {
  const last = names.at(-1) ?? "";
  return names.length < 2 ? last : `${names.slice(0, -1).join(", ")} and ${last}`;
}

/** Tanks of a room without urgent tasks, in one row. */
function RoomRow({ room, rows }: { room: RoomKept; rows: TodayRow[] }) {
  const due = rows.filter(isDue);
  const to = `/rooms/${room.id}`;
  return (
    <li>
      <div className="sketch" />
      <div>
        <h2>
          <Link to={to}>{room.name}</Link>
        </h2>
        <p className="where">{room.plan.spots.length} tanks</p>
        <p className="verdict">
          {due.length
            ? `Something is due in ${listed(due.map((r) => r.tank.name))}.`
            : "Nothing is due today."}
        </p>
      </div>
      <div>
        {due.slice(0, 4).map((r) => (
          <p key={r.tank.id}>
            {r.tank.name}:{" "}
            <Link to={`/tanks/${r.tank.id}/${r.due[0]?.stage ?? r.stage}`}>{r.due[0]?.title}</Link>
          </p>
        ))}
      </div>
      <div className="go">
        <Link to={`${to}/round`}>The round</Link>
        <Link to={to}>To the room</Link>
      </div>
    </li>
  );
}

/** Every spare sponge, in whichever tank it seeds. */
function Spares({ rows }: { rows: SeedRow[] }) {
  const here = rows.filter((r) => r.seed.where !== "moved");
  if (here.length === 0) return null;
  return (
    <section aria-label="Spare sponges">
      <h2>Spare sponges</h2>
      <ul>
        {here.map((r) => (
          <li key={`${r.tank_id}${r.seed.key}`}>
            <b>{r.seed.name}</b> in <Link to={`/tanks/${r.tank_id}/keep`}>{r.tank}</Link>:{" "}
            {r.seed.where === "on-the-way" ? "on the way, the clock runs." : r.seed.answer.verdict}
          </li>
        ))}
      </ul>
    </section>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 14px;
`;
const Rows = styled.ul`
  > li {
    display: grid;
    grid-template-columns: 190px minmax(0, 5fr) minmax(0, 4fr) 108px;
    gap: 8px 24px;
    align-items: center;
    border-top: 1px solid var(--line);
    border-left: 4px solid transparent;
    padding: 8px 8px 8px 10px;
  }
  > li[data-urgent] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  .sketch svg {
    max-height: 122px;
  }
  .sketch .figures {
    display: none;
  }
  h2 {
    font:
      600 1.25rem/1.2 Vollkorn,
      serif;
  }
  h2 a {
    color: var(--ink);
    text-decoration: none;
  }
  .where {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  .verdict {
    font-size: 1.0312rem;
  }
  .go a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    font-weight: 600;
  }
  ${narrow} {
    .go button + a {
      margin-left: 14px;
    }
    > li {
      grid-template-columns: 130px minmax(0, 1fr);
      align-items: start;
    }
    > li > div:nth-child(n + 3) {
      grid-column: 2;
    }
  }
  ${phone} {
    > li {
      grid-template-columns: minmax(0, 1fr);
    }
    > li > div:nth-child(n + 3) {
      grid-column: 1;
    }
    .sketch {
      display: none;
    }
  }
`;
