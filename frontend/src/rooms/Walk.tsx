/** Today's walk, shelf by shelf: a press for what is done, one for a whole shelf seen running, words for what is not. */
import { useState, type SyntheticEvent } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { useWriteAlong } from "../api/entries";
import { useHeld } from "../api/useOutbox";
import type { Held } from "../api/outbox";
import type { Body, WalkDay, WalkStop, WalkTask } from "../api/schemas";
import { Button, InlineButton, phone, ProblemNote, TextField } from "../kit";
import { dayOf } from "../quantity/calendar";

interface Props {
  day: WalkDay;
  /** Every tank of the room in the order of the walk. */
  shelves: WalkStop[];
}

export function Walk({ day, shelves }: Props) {
  const work = new Map(day.stops.map((s) => [s.tank_id, s]));
  const stops = shelves.map((s) => work.get(s.tank_id) ?? s);
  const groups = grouped(stops);
  return (
    <section aria-label="Today's walk">
      {groups.map(([title, here]) => (
        <Shelf key={title} title={title} stops={here} />
      ))}
    </section>
  );
}

/** Stops by shelf, the quarantine at the end. */
function grouped(stops: WalkStop[]): [string, WalkStop[]][] {
  const groups = new Map<string, WalkStop[]>();
  for (const stop of stops) {
    const title = stop.quarantined
      ? "Quarantine: last, with its own net and bucket"
      : `Shelf ${stop.shelf + 1} from below`;
    groups.set(title, [...(groups.get(title) ?? []), stop]);
  }
  return [...groups];
}

const SEEN: Body = { kind: "air-seen", bubbles: "steady", filter_key: null };
const RUNNING: Body = { kind: "care", what: "plugs", part: "", filter_key: null };

function Shelf({ title, stops }: { title: string; stops: WalkStop[] }) {
  const write = useWriteAlong();
  const busy = stops.filter((s) => s.tasks.length > 0 || s.urgent);
  const rest = stops.filter((s) => !busy.includes(s));
  return (
    <Group aria-label={title}>
      <header>
        <h2>{title}</h2>
        <Button
          $quiet
          isDisabled={write.isPending}
          aria-label={`All seen running: ${title}`}
          onPress={() => {
            write.mutate(stops.map((s) => ({ tankId: s.tank_id, body: s.air ? SEEN : RUNNING })));
          }}
        >
          {write.isSuccess ? "Seen running" : "All seen running"}
        </Button>
      </header>
      <ProblemNote problem={write.error} />
      <ul>
        {busy.map((stop) => (
          <Tank key={stop.tank_id} stop={stop} />
        ))}
      </ul>
      {rest.length > 0 && <small>Nothing to do today: {rest.map((s) => s.name).join(", ")}.</small>}
    </Group>
  );
}

function Tank({ stop }: { stop: WalkStop }) {
  const [open, setOpen] = useState(false);
  const held = useHeld().filter((h) => h.tankId === stop.tank_id);
  return (
    <li>
      <Named>
        <b>
          <Link to={`/tanks/${stop.tank_id}/keep`}>{stop.name}</Link>
        </b>
        <InlineButton
          aria-expanded={open}
          aria-label={`Something is wrong with ${stop.name}`}
          onPress={() => {
            setOpen((now) => !now);
          }}
        >
          Something is wrong
        </InlineButton>
      </Named>
      {stop.urgent && (
        <Alarm>
          <Link to={`/tanks/${stop.tank_id}/cycle`}>{stop.urgent}</Link>
        </Alarm>
      )}
      {open && (
        <Wrong
          stop={stop}
          onDone={() => {
            setOpen(false);
          }}
        />
      )}
      {stop.tasks.map((walk) => (
        <Task key={walk.task.key} stop={stop} walk={walk} held={held} />
      ))}
    </li>
  );
}

/** Whether what a task writes waits on this device already. */
function isHeld(body: Body, held: Held[]): boolean {
  const of = ({ kind, what, filter_key }: Record<string, unknown>) =>
    JSON.stringify([kind, what, filter_key]);
  return held.some((h) => of(h.entry.body) === of(body));
}

function Task({ stop, walk, held }: { stop: WalkStop; walk: WalkTask; held: Held[] }) {
  const { task } = walk;
  const write = useWriteAlong();
  const kept = task.done !== null && isHeld(task.done, held);
  const state = walk.state === "open" && (kept || write.isSuccess) ? "done" : walk.state;
  return (
    <Row data-state={state}>
      <div>
        <span>{task.title}</span>
        <small>{besides(walk).join(" · ")}</small>
      </div>
      {state === "done" && <span role="status">{kept ? "Kept on this device" : "✓ done"}</span>}
      {state === "waits" && <span>waits</span>}
      {state === "open" && <Press stop={stop} task={task} write={write} />}
      <ProblemNote problem={write.error} />
    </Row>
  );
}

/** What stands under a task: since when it is left, why it waits, what a change pours. */
function besides({ task, left_from, state }: WalkTask): string[] {
  const since = left_from && `left from ${dayOf(left_from)}`;
  return [since, state === "waits" && task.waits, task.pour].filter((words) => typeof words === "string");
}

interface PressProps {
  stop: WalkStop;
  task: WalkTask["task"];
  write: ReturnType<typeof useWriteAlong>;
}

/** The press that writes a task as done, or the way to where it is done. */
function Press({ stop, task, write }: PressProps) {
  const { done } = task;
  if (!done)
    return (
      <Link to={`/tanks/${stop.tank_id}/${task.stage}`}>{task.stage === "fit" ? "Time it" : "Log it"}</Link>
    );
  return (
    <Button
      aria-label={`Done: ${task.title}, ${stop.name}`}
      isDisabled={write.isPending}
      onPress={() => {
        write.mutate([{ tankId: stop.tank_id, body: done }]);
      }}
    >
      Done
    </Button>
  );
}

/** What is not as it should be, in words or by one press. */
function Wrong({ stop, onDone }: { stop: WalkStop; onDone: () => void }) {
  const [text, setText] = useState("");
  const write = useWriteAlong();
  const put = (body: Body) => {
    write.mutate([{ tankId: stop.tank_id, body }], { onSuccess: onDone });
  };
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    if (text.trim()) put({ kind: "note", text: text.trim() });
  };
  return (
    <Words onSubmit={submit}>
      {stop.air && (
        <div>
          <Button
            $quiet
            onPress={() => {
              put({ kind: "air-seen", bubbles: "weak", filter_key: null });
            }}
          >
            Weak bubbles
          </Button>
          <Button
            $quiet
            onPress={() => {
              put({ kind: "air-seen", bubbles: "none", filter_key: null });
            }}
          >
            No bubbles
          </Button>
        </div>
      )}
      {!stop.air && (
        <div>
          <Button
            $quiet
            onPress={() => {
              put({ kind: "outage", running: false, filter_key: null });
            }}
          >
            The filter stands
          </Button>
        </div>
      )}
      <TextField label={`What did you see in ${stop.name}?`} value={text} onChange={setText} />
      <Button type="submit" isDisabled={!text.trim() || write.isPending}>
        Write it
      </Button>
      <ProblemNote problem={write.error} />
    </Words>
  );
}

const Group = styled.section`
  margin-bottom: 14px;
  > header {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 16px;
    align-items: center;
    justify-content: space-between;
    border-bottom: 2px solid var(--ink);
    padding-bottom: 4px;
  }
  h2 {
    margin: 0;
  }
  > ul > li {
    border-bottom: 1px solid var(--line);
    padding: 8px 0;
  }
  > small {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
`;
const Named = styled.div`
  display: flex;
  justify-content: space-between;
  gap: 12px;
  align-items: baseline;
`;
const Alarm = styled.p`
  border-left: 4px solid var(--alarm);
  padding-left: 8px;
`;
const Row = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 14px;
  align-items: center;
  min-height: 48px;
  &[data-state="done"],
  &[data-state="waits"] {
    color: var(--ink-soft);
  }
  small {
    display: block;
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  > button {
    min-width: 96px;
    min-height: 44px;
  }
  ${phone} {
    > button {
      min-width: 112px;
    }
  }
`;
const Words = styled.form`
  display: grid;
  gap: 8px;
  max-width: 520px;
  padding: 6px 0;
  > div {
    display: flex;
    gap: 10px;
  }
`;
