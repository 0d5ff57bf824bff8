/** The first action with its button, the rest in order, and coming stalls. */
import { styled } from "styled-components";
import { useDone, useWrite } from "../api/entries";
import type { Action, Body, CycleLog as Log, CycleState } from "../api/schemas";
import { Button, Explained, Figure, HowTo, InlineButton, phone, ProblemNote } from "../kit";
import { about } from "./cycleDates";
import { KEPT_HERE } from "./keptHere";

interface Seen {
  netL: number;
  growthSeen: boolean;
}

const UNITS = ["g", "mL", "drops"] as const;

function doseOf({ raise_mg_n_l, amount, amount_unit }: Action): Body | null {
  if (raise_mg_n_l == null) return null;
  return { kind: "dose", raise_mg_n_l, amount, amount_unit: UNITS.find((u) => u === amount_unit) };
}

function changeOf({ share, amount }: Action, { netL }: Seen): Body | null {
  const part = share ?? (amount == null ? null : Math.min(amount / netL, 1));
  return part === null ? null : { kind: "water-change", share: part, litres: amount };
}

const ENTRIES: Partial<Record<Action["do"], (action: Action, seen: Seen) => Body | null>> = {
  "dose-ammonia": doseOf,
  "raise-kh": ({ raise_dkh, amount }) =>
    raise_dkh == null ? null : { kind: "alkalinity", raise_dkh, grams: amount },
  "change-water": changeOf,
  "start-filter": () => ({ kind: "outage", running: true }),
  "watch-growth": (_, { growthSeen }) => (growthSeen ? null : { kind: "plant-growth" }),
  "treat-water": () => ({ kind: "conditioner" }),
};

/** The entry recorded for a finished action, or null when there is none. */
export function entryOf(action: Action, netL: number, growthSeen: boolean): Body | null {
  return ENTRIES[action.do]?.(action, { netL, growthSeen }) ?? null;
}

export const DONE: Partial<Record<Action["do"], string>> = { "watch-growth": "New growth seen" };

/** Done once a reading confirms it: a thermostat change too counts by the thermometer. */
const LOGGED_BY_A_TEST = new Set<Action["do"]>(["test", "test-other-kit", "dilute-test", "warm", "cool"]);

/** How an action is done by hand, where that is asked. */
function handOf({ do: what, amount_unit }: Action) {
  if (what === "dose-ammonia")
    return amount_unit === "drops" ? "count-drops" : amount_unit === "g" ? "weigh-small" : null;
  if (what === "raise-kh") return "weigh-soda";
  return what === "test" || what === "test-other-kit" || what === "dilute-test" ? "run-test" : null;
}

interface FirstActionProps {
  action: Action;
  log: Log;
  tankId: number;
  lines: Parameters<typeof Figure>[0]["lines"];
  /** Opens the tab where added animals are recorded. */
  onAnimals: () => void;
}

export function FirstAction({ action, log, tankId, lines, onAnimals }: FirstActionProps) {
  const write = useDone(tankId);
  const undo = useWrite(tankId);
  const body = entryOf(action, log.net_l, log.plants_growing_day != null);
  const hand = handOf(action);
  const written = write.data && write.data !== "held" ? write.data : null;
  return (
    <>
      <FirstBox>
        <p className="amount">
          <Figure title={action.title} lines={lines}>
            {action.title}
          </Figure>
        </p>
        <div>
          <p>
            <Explained text={action.detail} />
          </p>
          <p className="why">
            <Explained text={action.reason} />
          </p>
          {action.caution && <p className="why">{action.caution}</p>}
          {hand && <HowTo of={hand} />}
        </div>
        <Press action={action} body={body} write={write} onAnimals={onAnimals} />
      </FirstBox>
      {body && write.kept(body) && <p role="status">{KEPT_HERE}</p>}
      {written && (
        <p role="status">
          Written in the logbook.{" "}
          <InlineButton
            onPress={() => {
              undo.mutate(
                { body: { kind: "withdrawal" }, supersedes: written.id },
                {
                  onSuccess: () => {
                    write.reset();
                  },
                },
              );
            }}
          >
            Undo
          </InlineButton>
        </p>
      )}
      <ProblemNote problem={write.error ?? undo.error} />
    </>
  );
}

/** The next stall, with its day. */
export function Foreseen({ state, start }: { state: CycleState; start: Date }) {
  const all = state.advice?.coming_stalls ?? [];
  if (all.length === 0) return null;
  return (
    <Ahead>
      {all.map((f) => (
        <li key={f.kind}>
          <b>
            {f.what} {about(start, f.day)}.
          </b>{" "}
          {f.detail}
        </li>
      ))}
    </Ahead>
  );
}

export function Then({ state }: { state: CycleState }) {
  const { advice, readiness } = state;
  if (!advice || !readiness) return null;
  return (
    <List>
      {advice.then.map((a) => (
        <li key={a.title}>
          <b>{a.title}</b>
          <span>{a.detail}</span>
        </li>
      ))}
      {!state.stocked && (
        <li>
          <b>{readiness.ready ? "Animals: yes" : "Animals: not yet"}</b>
          <span>
            <Figure title="Ready or not" lines={readiness.working}>
              {readiness.ready ? readiness.verdict : advice.animals}
            </Figure>
          </span>
        </li>
      )}
    </List>
  );
}

export function Why({ state }: { state: CycleState }) {
  const { advice } = state;
  if (!advice || advice.causes.length === 0) return null;
  const title = advice.stalled ? "Why it has stalled" : "What stands in its way";
  return (
    <Causes aria-label={title}>
      <h2>{title}</h2>
      <ul>
        {advice.causes.map((c) => (
          <li key={c.title}>
            <b>{c.title}</b> <Explained text={c.detail} />
          </li>
        ))}
        {advice.ruled_out.length > 0 && (
          <li>
            <b>Not the cause:</b> {advice.ruled_out.map((c) => c.inside).join("; ")}.
          </li>
        )}
      </ul>
    </Causes>
  );
}

const FirstBox = styled.section.attrs({ "aria-label": "First, today" })`
  display: grid;
  grid-template-columns: minmax(130px, auto) minmax(0, 1fr) auto;
  gap: 16px;
  align-items: center;
  background: var(--silt);
  border-left: 4px solid var(--seed);
  padding: 12px 14px;
  .amount {
    font:
      600 1.3125rem/1.2 Vollkorn,
      serif;
    max-width: 210px;
  }
  .why {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  ${phone} {
    grid-template-columns: 1fr;
    gap: 8px;
    .amount {
      max-width: none;
    }
  }
`;
const Ahead = styled.ul.attrs({ "aria-label": "Foreseen" })`
  border-left: 4px solid var(--water);
  padding-left: 12px;
  li {
    font-size: 0.9688rem;
  }
`;
const List = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(136px, 1fr));
  gap: 6px 16px;
  li {
    border-top: 1px solid var(--line);
    padding-top: 4px;
  }
  b,
  span {
    display: block;
  }
  span {
    color: var(--ink-soft);
    font-size: 0.9375rem;
    line-height: 1.3;
  }
`;
const Causes = styled.section`
  ul {
    display: grid;
    grid-template-columns: repeat(auto-fit, minmax(230px, 1fr));
    gap: 6px 20px;
  }
  li {
    font-size: 0.9688rem;
  }
`;

interface PressProps extends Pick<FirstActionProps, "action" | "onAnimals"> {
  /** What is written when it is done; null where a press cannot tell. */
  body: Body | null;
  write: ReturnType<typeof useDone>;
}

/** The button of an action: done, put in, or logged by a test. */
function Press({ action, body, write, onAnimals }: PressProps) {
  if (body)
    return (
      <Button
        isDisabled={write.busy || write.kept(body)}
        onPress={() => {
          write.mutate({ body });
        }}
      >
        {DONE[action.do] ?? "Done"}
      </Button>
    );
  if (action.do === "add-animals") return <Button onPress={onAnimals}>They are in</Button>;
  if (!LOGGED_BY_A_TEST.has(action.do)) return null;
  return (
    <Button
      onPress={() => {
        document.querySelector<HTMLElement>("[data-quick-entry] input, [data-quick-entry] button")?.focus();
      }}
    >
      Log it
    </Button>
  );
}
