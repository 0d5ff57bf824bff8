/** The round of a room: a week proposed, taken on, walked shelf by shelf. */
import { useState } from "react";
import { useParams } from "react-router";
import { styled } from "styled-components";
import { standing } from "../api/compute";
import { range } from "../api/range";
import { useRoom, useRound, useRoundWith, useTakeRound } from "../api/rooms";
import type { RoundHabits, RoundView, WalkDay } from "../api/schemas";
import { Button, Figure, InlineButton, LineLink, phone, ProblemNote, Verdict, YesNo } from "../kit";
import { NumberBox, QuantityField } from "../kit/quantities";
import { dayOf, hours } from "../quantity/calendar";
import { WEEKDAYS } from "../quantity/weekdays";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { Walk } from "./Walk";

export default function RoundPage() {
  const roomId = Number(useParams().roomId);
  const room = useRoom(roomId);
  const round = useRound(roomId);
  const name = room.data?.room.name;
  return (
    <Page name={name && `${name}, its round`}>
      <title>{`Round · ${name ?? "Room"} · Reedmace`}</title>
      <Opening asked={[round]}>Laying out the round…</Opening>
      {round.data &&
        (round.data.taken_on ? (
          <Taken roomId={roomId} view={round.data} />
        ) : (
          <Proposal roomId={roomId} view={round.data} />
        ))}
    </Page>
  );
}

interface Props {
  roomId: number;
  view: RoundView;
}

/** The week as it would be, and what would change it. */
function Proposal({ roomId, view }: Props) {
  const [habits, setHabits] = useState(view.habits);
  const changed = JSON.stringify(habits) !== JSON.stringify(view.habits);
  const drafted = useRoundWith(roomId, habits, changed);
  const shown = (changed ? standing(drafted) : undefined) ?? view;
  const take = useTakeRound(roomId);
  const answer = shown.proposed;
  if (!answer) return null;
  const busy = shown.days;
  return (
    <Stack>
      <Verdict>{shown.verdict}</Verdict>
      <Line>
        <Button
          isDisabled={take.isPending || busy.length === 0}
          onPress={() => {
            take.mutate({ habits, take: true });
          }}
        >
          Take it on
        </Button>
        <LineLink to={`/rooms/${roomId}`}>To the room</LineLink>
      </Line>
      <ProblemNote problem={take.error ?? (changed ? drafted.error : null)} />
      <Sides>
        <section aria-label="The week">
          <h2>The week</h2>
          <DaysAhead days={shown.days} />
          <p>
            <Figure title="The week's work" lines={answer.working}>
              {hours(answer.week_minutes)} in all; an ordinary week is {hours(answer.even_minutes)}.
            </Figure>
          </p>
          {busy.length > 0 && (
            <p>
              With one more pair of hands at most {hours(answer.one_more_day_minutes)} on a day; with a pump
              twice as large {hours(answer.twice_the_pump_minutes)} in all.
            </p>
          )}
        </section>
        <Habits habits={habits} onChange={setHabits} />
      </Sides>
    </Stack>
  );
}

/** Days with their work, as bars of equal scale. */
function DaysAhead({ days }: { days: WalkDay[] }) {
  return (
    <Week>
      {days.map((d) => (
        <li key={d.day}>
          <b>{dayOf(d.day)}</b>
          <i style={{ inlineSize: `${share(d.minutes, days)}%` }} />
          <small>{hours(d.minutes)}</small>
          <span>{inWords(d)}</span>
        </li>
      ))}
    </Week>
  );
}

/** How much a day holds, and where. */
function inWords(day: WalkDay): string {
  const things = day.open_count === 1 ? "one thing" : `${day.open_count} things`;
  return `${things}: ${day.stops.map((s) => s.name).join(", ")}`;
}

function share(minutes: number, days: { minutes: number }[]): number {
  const most = Math.max(...days.map((d) => d.minutes));
  return most > 0 ? (100 * minutes) / most : 0;
}

function Habits({ habits, onChange }: { habits: RoundHabits; onChange: (habits: RoundHabits) => void }) {
  return (
    <section aria-label="How it is walked">
      <h2>How it is walked</h2>
      <Days role="group" aria-label="Days of the walk">
        {WEEKDAYS.map(([key, name]) => {
          const day = Number(key);
          const on = habits.weekdays.includes(day);
          return (
            <YesNo
              key={key}
              label={name}
              value={on}
              onChange={() => {
                const weekdays = on
                  ? habits.weekdays.filter((d) => d !== day)
                  : [...habits.weekdays, day].sort((a, b) => a - b);
                // One day stays: a round without a walk is none.
                if (weekdays.length) onChange({ ...habits, weekdays });
              }}
            />
          );
        })}
      </Days>
      <Two>
        <NumberBox
          label="People walking"
          value={habits.people_count}
          {...range("RoundHabits.people_count")}
          onChange={(people_count) => {
            onChange({ ...habits, people_count: Math.round(people_count) });
          }}
        />
        <QuantityField
          label="Pump or hose for changes"
          unit="L/h"
          value={habits.change_lph}
          {...range("RoundHabits.change_lph")}
          onChange={(change_lph) => {
            onChange({ ...habits, change_lph });
          }}
        />
      </Two>
    </section>
  );
}

/** The week that was taken on: today's walk, and the days after. */
function Taken({ roomId, view }: Props) {
  const take = useTakeRound(roomId);
  const [today, ...later] = view.days;
  return (
    <Stack>
      <Verdict>{view.verdict}</Verdict>
      <Sides>
        {today && <Walk day={today} shelves={view.shelves} />}
        <div>
          {later.length > 0 && (
            <section aria-label="Later this week">
              <h2>Later this week</h2>
              <DaysAhead days={later} />
            </section>
          )}
          <Line className="screen-only">
            <InlineButton
              isDisabled={take.isPending}
              onPress={() => {
                take.mutate({ habits: view.habits, take: false });
              }}
            >
              Lay the week out anew
            </InlineButton>
            <LineLink to={`/rooms/${roomId}`}>To the room</LineLink>
          </Line>
        </div>
      </Sides>
      <ProblemNote problem={take.error} />
    </Stack>
  );
}

const Stack = styled.div`
  display: grid;
  gap: 14px;
`;
const Sides = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 5fr) minmax(0, 4fr);
  gap: 12px 40px;
  align-items: start;
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
  align-items: center;
  padding: 6px 0;
`;
const Week = styled.ul`
  > li {
    display: grid;
    grid-template-columns: 104px minmax(0, 1fr) 84px;
    gap: 2px 12px;
    align-items: center;
    padding: 6px 0;
    border-bottom: 1px solid var(--line);
  }
  > li > small {
    text-align: end;
    font-size: 0.9375rem;
  }
  > li > span {
    grid-column: 1 / -1;
    color: var(--ink-soft);
  }
  i {
    display: block;
    block-size: 10px;
    background: var(--water-deep);
  }
`;
const Days = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 12px;
`;
const Two = styled.div`
  display: grid;
  grid-template-columns: 140px minmax(0, 240px);
  gap: 12px;
`;
