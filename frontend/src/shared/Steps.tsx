/** Fitting steps: locked until their dependencies are done, with a countdown where one waits and a note. */
import { nowMs } from "../api/clock";
import { useEffect, useState } from "react";
import { CheckboxButton, CheckboxField } from "react-aria-components";
import { styled } from "styled-components";
import { useWrite } from "../api/entries";
import type { Held } from "../api/outbox";
import type { Entry, FittingStep } from "../api/schemas";
import { useHeld } from "../api/useOutbox";
import { Caution, Explained, InlineButton, phone, ProblemNote, TextField } from "../kit";
import { LOCALE } from "../quantity/locale";

interface Props {
  tankId: number;
  filterKey: string;
  steps: FittingStep[];
  done: Record<string, Entry>;
}

export function Steps({ tankId, filterKey, steps, done: written }: Props) {
  const held = useHeld();
  const done = withHeld(written, held, tankId, filterKey);
  const next = steps.find((s) => !(s.id in done));
  // A sheet opened again begins at the next step: those done before, in a row from the first, are folded away.
  const [before] = useState(() => {
    const first = steps.findIndex((s) => !(s.id in done));
    return first > 0 ? first : 0;
  });
  const row = (s: FittingStep, i: number) => (
    <StepRow
      key={s.id}
      tankId={tankId}
      filterKey={filterKey}
      step={s}
      number={i + 1}
      entry={done[s.id]}
      next={s.id === next?.id}
      missing={s.after.filter((id) => !(id in done)).map((id) => steps.find((x) => x.id === id)?.title ?? id)}
      since={s.after
        .map((id) => done[id]?.at)
        .filter((at) => at !== undefined)
        .sort()
        .at(-1)}
    />
  );
  return (
    <>
      {before > 0 && (
        <details>
          <summary>
            {before === 1 ? "The first step was" : `The first ${before} steps were`} done before
          </summary>
          <List>{steps.slice(0, before).map(row)}</List>
        </details>
      )}
      <List>{steps.slice(before).map((s, i) => row(s, before + i))}</List>
    </>
  );
}

/** Steps of a tank that were ticked here and are not sent yet. */
export function useTickedHere(tankId: number): number {
  return useHeld().filter(
    ({ tankId: where, entry }) => where === tankId && entry.body.kind === "step-done" && entry.body.done,
  ).length;
}

/** Steps ticked on this device unlock their dependants, sent or not. */
function withHeld(written: Record<string, Entry>, held: Held[], tankId: number, filterKey: string) {
  const done = new Map(Object.entries(written));
  for (const { tankId: where, entry } of held) {
    const { body } = entry;
    if (where !== tankId || body.kind !== "step-done" || body.filter_key !== filterKey) continue;
    if (body.done) done.set(body.step_id, { ...entry, id: 0, written_at: entry.at } as Entry);
    else done.delete(body.step_id);
  }
  return Object.fromEntries(done) as Record<string, Entry | undefined>;
}

interface RowProps {
  tankId: number;
  filterKey: string;
  step: FittingStep;
  number: number;
  entry?: Entry;
  next: boolean;
  /** Titles of the steps to be done first. */
  missing: string[];
  /** When the last dependency was done. */
  since?: string;
}

function StepRow({ tankId, filterKey, step, number, entry, next, missing, since }: RowProps) {
  const write = useWrite(tankId);
  const onItsWay = write.isPending || write.data === "held";
  const ticked = onItsWay ? wanted(write.variables.body) : entry !== undefined;
  const locked = missing.length > 0 && !ticked;
  return (
    <li data-next={next || undefined} data-done={ticked || undefined}>
      <CheckboxField
        isSelected={ticked}
        isDisabled={locked}
        onChange={(on) => {
          write.mutate({ body: { kind: "step-done", filter_key: filterKey, step_id: step.id, done: on } });
        }}
      >
        <Tick>
          <i aria-hidden="true">{ticked ? "✓" : number}</i>
          <b>{step.title}</b>
        </Tick>
      </CheckboxField>
      <div>
        <p>
          {locked && <span className="locked">First: {missing.join(", ").toLowerCase()}. </span>}
          <Explained text={step.detail} />
        </p>
        {!ticked && <StepHelp step={step} since={locked ? undefined : since} />}
        <Note
          entry={entry}
          next={next}
          onKeep={(note) => {
            write.mutate({
              body: { kind: "step-done", filter_key: filterKey, step_id: step.id, done: ticked, note },
            });
          }}
        />
        {/* What waits on this device is said at the head of the page: a line here would move the next step under the
        finger that ticks it. */}
        <ProblemNote problem={write.error} />
      </div>
    </li>
  );
}

/** Note field: at the next step, and wherever one was stored. */
function Note({ entry, next, onKeep }: { entry?: Entry; next: boolean; onKeep: (note: string) => void }) {
  const kept = entry?.body.kind === "step-done" ? entry.body.note : "";
  return next || kept ? <NoteLine key={kept} kept={kept} onKeep={onKeep} /> : null;
}

/** Caution, normal and fault, and the countdown of a step. */
function StepHelp({ step, since }: { step: FittingStep; since?: string }) {
  return (
    <>
      {step.caution && <Caution>{step.caution}</Caution>}
      {step.normal && (
        <p>
          <b>Normal:</b> {step.normal}
        </p>
      )}
      {step.fault && (
        <p>
          <b>Fault:</b> {step.fault}
        </p>
      )}
      {step.wait_minutes > 0 && since && <Clock from={since} minutes={step.wait_minutes} />}
    </>
  );
}

function wanted(body: { kind: string; done?: boolean } | undefined): boolean {
  return body?.kind === "step-done" ? (body.done ?? true) : false;
}

/** Counts down from the step before; says when it may be done. */
function Clock({ from, minutes }: { from: string; minutes: number }) {
  const end = new Date(from).getTime() + minutes * 60_000;
  const [now, setNow] = useState(nowMs);
  useEffect(() => {
    const timer = setInterval(() => {
      setNow(nowMs());
    }, 1000);
    return () => {
      clearInterval(timer);
    };
  }, []);
  const left = end - now;
  const at = new Date(end).toLocaleString(LOCALE, {
    weekday: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
  if (left <= 0) return <p>It is time.</p>;
  const words =
    left > 3_600_000
      ? `${Math.ceil(left / 3_600_000)} hours`
      : `${Math.floor(left / 60_000)}:${String(Math.floor((left % 60_000) / 1000)).padStart(2, "0")}`;
  return (
    <p role="timer">
      In {words}, {at}. It comes back on Today.
    </p>
  );
}

function NoteLine({ kept, onKeep }: { kept: string; onKeep: (note: string) => void }) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState(kept);
  if (!open)
    return (
      <p>
        {kept && <i>{kept} </i>}
        <InlineButton
          onPress={() => {
            setOpen(true);
          }}
        >
          {kept ? "Change the note" : "A note"}
        </InlineButton>
      </p>
    );
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onKeep(text.trim());
        setOpen(false);
      }}
    >
      <TextField label="Note at this step" value={text} onChange={setText} />
    </form>
  );
}

const List = styled.ol`
  > li {
    display: grid;
    gap: 2px;
    border-top: 1px solid var(--line);
    padding: 6px 0 6px 8px;
    border-left: 4px solid transparent;
  }
  > li[data-next] {
    background: var(--silt);
    border-left-color: var(--seed);
  }
  > li > div:last-child {
    padding-left: 42px;
    display: grid;
    gap: 3px;
    font-size: 0.9688rem;
  }
  > li[data-done] > div p,
  .locked {
    color: var(--ink-soft);
  }
  .locked {
    font-style: italic;
  }
  ${phone} {
    > li > div:last-child {
      padding-left: 8px;
    }
  }
`;
const Tick = styled(CheckboxButton)`
  display: flex;
  gap: 12px;
  align-items: center;
  cursor: pointer;
  min-height: 36px;
  ${phone} {
    min-height: 48px;
  }
  i {
    font-style: normal;
    width: 30px;
    height: 30px;
    border: 2px solid var(--ink-soft);
    border-radius: 15px;
    display: grid;
    place-items: center;
    flex: none;
    font-size: 0.9375rem;
  }
  &[data-selected] i {
    background: var(--reed);
    border-color: var(--reed);
    color: var(--on-ink);
  }
  &[data-disabled] {
    cursor: default;
  }
  &[data-disabled] i {
    border-style: dotted;
  }
  &[data-focus-visible] {
    outline: 3px solid var(--seed);
    outline-offset: 2px;
  }
`;
