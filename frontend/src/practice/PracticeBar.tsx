/** Over every stage of a practice tank: that it is one, its clock with four jumps, the days that passed, and the coach. */
import { Link, useNavigate } from "react-router";
import { styled } from "styled-components";
import {
  useEndLesson,
  usePassTime,
  useSetPractice,
  type Passed,
  type Practice,
  type Until,
} from "../api/practice";
import { Button, Fold, InlineButton, phone, ProblemNote, Select, YesNo } from "../kit";
import { show } from "../quantity/format";
import { LOCALE } from "../quantity/locale";

const JUMPS: readonly (readonly [Until, string])[] = [
  ["next", "To the next thing to do"],
  ["day", "One day"],
  ["week", "A week"],
  ["change", "Until something changes"],
];
const FEEDS: readonly (readonly [string, string])[] = [
  ["1", "whole meals"],
  ["0.5", "half meals"],
  ["0.25", "a pinch"],
  ["0", "no food"],
];
const COACHES: readonly (readonly [Practice["coach"], string])[] = [
  ["beside", "beside every step"],
  ["when-wrong", "only when something goes wrong"],
  ["silent", "silent until the end"],
];

export function PracticeBar({ practice }: { practice: Practice }) {
  const { tank_id: tankId, lesson } = practice;
  const pass = usePassTime(practice);
  const end = useEndLesson(practice);
  const navigate = useNavigate();
  const now = new Date(practice.now);
  const ending = () => {
    end.mutate(undefined, { onSuccess: () => void navigate(`/practice/${tankId}/end`) });
  };
  return (
    <Band aria-label="Practice">
      <p className="head">
        <b>Practice, not a real tank.</b> {lesson.title}
        {practice.label && `, ${practice.label}`} · day {Math.floor(practice.day)},{" "}
        {now.toLocaleString(LOCALE, { weekday: "short", hour: "2-digit", minute: "2-digit" })}
        {practice.of_class && ` · in a class, as ${practice.of_class.name}`}
      </p>
      <SideBySide practice={practice} />
      {practice.of_class?.stopped && <p role="status">The teacher has stopped the clock for all.</p>}
      {practice.ended ? (
        <p>
          This lesson has ended.{" "}
          <InlineButton onPress={() => void navigate(`/practice/${tankId}/end`)}>Its page</InlineButton>
        </p>
      ) : (
        <div className="row" role="group" aria-label="Let time pass">
          {JUMPS.map(([until, words]) => (
            <Button
              key={until}
              $quiet
              isDisabled={pass.isPending || practice.of_class?.stopped === true}
              onPress={() => {
                pass.mutate(until);
              }}
            >
              {words}
            </Button>
          ))}
          <InlineButton onPress={ending} isDisabled={end.isPending}>
            {end.isPending ? "Going over it…" : "End the lesson"}
          </InlineButton>
        </div>
      )}
      <ProblemNote problem={pass.error ?? end.error} />
      <div aria-live="polite">{pass.data && <Strip passed={pass.data.passed} />}</div>
      {!practice.ended && (
        <div className="folds">
          <Fold summary={`The task: ${lesson.goal}`} open={practice.day < 0.002}>
            <p>{lesson.task}</p>
            <p>
              Time stands still until you let it pass, and it stops by itself where a keeper would see that
              animals are in danger. What you write down is done; the kit shows what became of it.
            </p>
          </Fold>
          <Settings practice={practice} />
        </div>
      )}
    </Band>
  );
}

/** The tanks of this lesson, one press from each other; they live by one clock. */
function SideBySide({ practice }: { practice: Practice }) {
  if (practice.beside.length === 0) return null;
  return (
    <nav aria-label="Tanks side by side" className="beside">
      {practice.beside.map((one) => (
        <Link
          key={one.tank_id}
          to={`/tanks/${one.tank_id}/${one.opens}`}
          aria-current={one.tank_id === practice.tank_id ? "page" : undefined}
        >
          {one.label}
        </Link>
      ))}
      <span>one clock for all</span>
    </nav>
  );
}

function Settings({ practice }: { practice: Practice }) {
  const set = useSetPractice(practice.tank_id);
  return (
    <Fold summary="Food, air, heater, and how loud the coach is">
      <div className="row">
        <Select
          label="Food"
          value={String(practice.feed)}
          options={FEEDS}
          onChange={(feed) => {
            set.mutate({ feed: Number(feed) });
          }}
        />
        <Select
          label="Coach"
          value={practice.coach}
          options={COACHES}
          onChange={(coach) => {
            set.mutate({ coach });
          }}
        />
        <YesNo
          label="An air stone, on a battery if need be"
          value={practice.air_stone}
          onChange={(air_stone) => {
            set.mutate({ air_stone });
          }}
        />
        <YesNo
          label="I read the vials myself"
          value={practice.reads_vials}
          onChange={(reads_vials) => {
            set.mutate({ reads_vials });
          }}
        />
      </div>
      <ProblemNote problem={set.error} />
    </Fold>
  );
}

/** The days that passed, a cell each, and what was seen on them. */
function Strip({ passed }: { passed: Passed }) {
  const litres = passed.days.reduce((sum, day) => sum + day.evaporated_l, 0);
  const seen = passed.days.flatMap((day) => day.seen.map((words) => ({ day: day.day, words })));
  return (
    <Days data-danger={passed.danger || undefined}>
      <ol aria-label="Days that passed">
        {passed.days.map((day) => (
          <li
            key={day.day}
            data-seen={day.seen.length > 0 || undefined}
            data-still={!day.running || undefined}
          >
            <b>{day.day}</b>
            <span>{day.fed ? "fed" : ""}</span>
            {!day.running && <span>filter off</span>}
          </li>
        ))}
      </ol>
      <p>
        {passed.stopped && <b>{passed.stopped} </b>}
        {seen
          .filter(({ words }) => words !== passed.stopped)
          .map(({ day, words }) => `Day ${day}: ${words}`)
          .join(" ")}{" "}
        {show(litres, "L", 1)} evaporated and topped up.
      </p>
    </Days>
  );
}

const Band = styled.section`
  max-width: 1400px;
  margin: 4px auto 10px;
  padding: 8px 14px;
  border: 2px dashed var(--seed);
  border-radius: 6px;
  display: grid;
  gap: 4px;
  .head {
    font-size: 1rem;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 12px;
    align-items: end;
  }
  .beside {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 6px;
    align-items: center;
  }
  .beside a {
    min-height: 32px;
    display: inline-flex;
    align-items: center;
    padding: 0 10px;
    border: 1px solid var(--line);
    border-radius: 4px;
    text-decoration: none;
  }
  .beside a[aria-current] {
    border: 2px solid var(--seed);
    font-weight: 600;
    color: var(--ink);
  }
  .beside span {
    color: var(--ink-soft);
    padding-left: 6px;
  }
  .folds {
    display: flex;
    flex-wrap: wrap;
    gap: 0 28px;
  }
  .folds > details[open] {
    flex: 1 0 100%;
  }
  ${phone} {
    padding: 8px;
    .row {
      align-items: stretch;
      gap: 6px;
    }
    .row > button {
      flex: 1 1 45%;
      padding-inline: 6px;
    }
    .beside span {
      display: none;
    }
  }
  @media print {
    display: none;
  }
`;
const Days = styled.div`
  display: grid;
  gap: 2px;
  &[data-danger] {
    border-left: 5px solid var(--seed);
    padding-left: 8px;
  }
  ol {
    display: flex;
    gap: 3px;
    overflow-x: auto;
  }
  li {
    display: grid;
    min-width: 46px;
    padding: 2px 5px;
    border: 1px solid var(--line);
    border-radius: 3px;
    font-size: 0.8125rem;
    color: var(--ink-soft);
    min-height: 40px;
  }
  li b {
    color: var(--ink);
  }
  li[data-seen] {
    border: 2px solid var(--seed);
  }
  li[data-still] {
    background: var(--silt);
  }
`;
