/** The lessons: what each asks, how far one is, and a press that begins it. */
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import { beginsAt, useBeginLesson, useLessons, type Lesson } from "../api/practice";
import { useClasses, useOpenClass } from "../api/practiceClass";
import { Button, Fold, InlineButton, Lead, LineLink, ProblemNote, Verdict, Waiting } from "../kit";
import { LOCALE } from "../quantity/locale";
import { Page } from "../shared/Page";

export default function PracticePage() {
  const lessons = useLessons();
  const begin = useBeginLesson();
  const navigate = useNavigate();
  const go = (lesson: Lesson) => {
    begin.mutate({ lesson: lesson.id }, { onSuccess: (made) => void navigate(beginsAt(made)) });
  };
  return (
    <Page>
      <title>Practice · Reedmace</title>
      <Verdict>Practice: a tank that lives in minutes</Verdict>
      <Lead>
        The same forms, the same kit, the same drawing, on a simulated tank. The clock is yours. What goes
        wrong here costs nobody anything, and at the end the truth is uncovered.
      </Lead>
      <ProblemNote problem={begin.error} />
      {lessons.isPending && <Waiting>Fetching the lessons…</Waiting>}
      <Rows>
        {lessons.data?.lessons.map((one) => (
          <li key={one.id}>
            <div>
              <h2>{one.title}</h2>
              <p>{one.task}</p>
              <small>
                Goal: {one.goal} {standing(one)}
              </small>
            </div>
            <div className="go">
              {one.id === "free" && (
                <small>Begins on a tank of yours: “Try it in practice”, under Cycle and Keep.</small>
              )}
              {one.id !== "free" && (
                <Button
                  $quiet
                  isDisabled={begin.isPending}
                  aria-label={`${one.tank_id === null ? "Begin" : "Begin anew"}: ${one.title}`}
                  onPress={() => {
                    go(one);
                  }}
                >
                  {one.tank_id === null ? "Begin" : "Begin anew"}
                </Button>
              )}
              {one.tank_id !== null && <LineLink to={`/tanks/${one.tank_id}/${one.opens}`}>Go on</LineLink>}
            </div>
          </li>
        ))}
      </Rows>
      <Fold summary="Teach a class: twelve to forty learners, no account for them">
        <Classes lessons={lessons.data?.lessons ?? []} />
      </Fold>
    </Page>
  );
}

/** A teacher's classes, and a press that opens one from a lesson. */
function Classes({ lessons }: { lessons: Lesson[] }) {
  const classes = useClasses();
  const open = useOpenClass();
  const navigate = useNavigate();
  const begin = (lesson: string, alike: boolean) => {
    open.mutate({ lesson, alike }, { onSuccess: (made) => void navigate(`/practice/class/${made.id}`) });
  };
  return (
    <>
      <p>
        A class gets a code for the wall. Learners type it, choose a name, and each has a tank on your board.
        You stop the clock for all, send a mishap to all, and uncover the truth when it is time to talk.
      </p>
      <ProblemNote problem={open.error} />
      <ul>
        {lessons
          .filter((one) => one.id !== "free")
          .map((one) => (
            <li key={one.id}>
              {one.title}:{" "}
              <InlineButton
                aria-label={`Open a class on ${one.title}, one tank alike for all`}
                isDisabled={open.isPending}
                onPress={() => {
                  begin(one.id, true);
                }}
              >
                one tank alike for all
              </InlineButton>{" "}
              or{" "}
              <InlineButton
                aria-label={`Open a class on ${one.title}, each their own tank`}
                isDisabled={open.isPending}
                onPress={() => {
                  begin(one.id, false);
                }}
              >
                each their own
              </InlineButton>
            </li>
          ))}
      </ul>
      {(classes.data?.classes.length ?? 0) > 0 && <h2>Your classes</h2>}
      <ul>
        {classes.data?.classes.map((one) => (
          <li key={one.id}>
            <LineLink to={`/practice/class/${one.id}`}>
              {one.lesson.title}, {one.code}
            </LineLink>{" "}
            with {one.learners_count}, kept until {new Date(one.until).toLocaleDateString(LOCALE)}
          </li>
        ))}
      </ul>
    </>
  );
}

function standing(lesson: Lesson): string {
  if (lesson.done) return "· Done: three times without a loss.";
  if (lesson.tried_count === 0) return "· Not tried yet.";
  const tries = lesson.tried_count === 1 ? "once" : `${lesson.tried_count} times`;
  return `· Tried ${tries}, without a loss ${lesson.won_count} of 3 times that count.`;
}

const Rows = styled.ol`
  max-width: 960px;
  li {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: 4px 20px;
    padding: 12px 0;
    border-top: 1px solid var(--line);
  }
  small {
    color: var(--ink-soft);
  }
  .go {
    max-width: 220px;
    display: grid;
    align-content: start;
    justify-items: end;
    gap: 4px;
  }
`;
