/** A teacher's board: the code for the wall, each learner's tank drawn small, and what leads the class. */
import { useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import {
  useBoard,
  useCloseClass,
  useControl,
  useCourse,
  type Board,
  type Learner,
  type MishapKind,
} from "../api/practiceClass";
import { useTables } from "../api/tables";
import { Truth } from "../charts/Truth";
import { Bar, Button, InlineButton, Lead, phone, ProblemNote, Select, Verdict } from "../kit";
import { kitPpm } from "../quantity/ppm";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { MiniTank } from "./MiniTank";

export default function ClassPage() {
  const classId = Number(useParams().classId);
  const board = useBoard(classId);
  return (
    <Page>
      <title>A class · Reedmace</title>
      <Opening asked={[board]}>Opening the class…</Opening>
      {board.data && <Shown board={board.data} />}
    </Page>
  );
}

function Shown({ board }: { board: Board }) {
  const { of_class: one, learners } = board;
  const [pair, setPair] = useState<number[]>([]);
  const pick = (id: number) => {
    setPair((now) => (now.includes(id) ? now.filter((other) => other !== id) : [...now, id].slice(-2)));
  };
  return (
    <>
      <Wall>
        <div>
          <Verdict>{one.lesson.title}</Verdict>
          <Lead>
            {one.lesson.goal} {one.alike ? "All have the same tank." : "Each has a tank of their own."}
          </Lead>
        </div>
        <p className="code">
          <small>{`${window.location.host}/class/`}</small>
          <b>{one.code}</b>
        </p>
      </Wall>
      <Leading board={board} />
      {learners.length === 0 && <p role="status">Nobody has joined yet. The code stands above.</p>}
      <Grid aria-label="Learners">
        {learners.map((learner) => (
          <LearnerCard
            key={learner.id}
            learner={learner}
            uncovered={one.uncovered}
            picked={pair.includes(learner.id)}
            onPick={() => {
              pick(learner.id);
            }}
          />
        ))}
      </Grid>
      {one.uncovered && <Spreads board={board} />}
      {one.uncovered && pair.length > 0 && (
        <Beside aria-label="Compared">
          {pair.map((id) => (
            <Compared key={id} classId={one.id} seatId={id} />
          ))}
        </Beside>
      )}
    </>
  );
}

/** What leads a class: its clock, mishaps, the truth, the worksheets. */
function Leading({ board }: { board: Board }) {
  const { of_class: one } = board;
  const control = useControl(one.id);
  const close = useCloseClass(one.id);
  const navigate = useNavigate();
  const [kind, setKind] = useState<MishapKind>("power-cut");
  const [closing, setClosing] = useState(false);
  const sent = control.data?.sent_count ?? 0;
  return (
    <div className="screen-only">
      <Bar>
        <Button
          isDisabled={control.isPending}
          onPress={() => {
            control.mutate({ stopped: !one.stopped });
          }}
        >
          {one.stopped ? "Let the clocks go" : "Stop the clock for all"}
        </Button>
        <Button
          $quiet
          isDisabled={control.isPending}
          onPress={() => {
            control.mutate({ uncovered: !one.uncovered });
          }}
        >
          {one.uncovered ? "Cover the truth" : "Uncover the truth"}
        </Button>
        <Select
          label="A mishap"
          value={kind}
          onChange={setKind}
          options={Object.entries(board.mishaps) as [MishapKind, string][]}
        />
        <Button
          $quiet
          isDisabled={control.isPending || board.learners.length === 0}
          onPress={() => {
            control.mutate({ mishap: kind });
          }}
        >
          Send it to all
        </Button>
        <Link to={`/practice/class/${one.id}/sheet`}>Worksheet before</Link>
        <Link to={`/practice/class/${one.id}/sheet?after`}>and after</Link>
        {closing ? (
          <InlineButton
            onPress={() => {
              close.mutate(undefined, { onSuccess: () => void navigate("/practice") });
            }}
          >
            Yes, forget this class
          </InlineButton>
        ) : (
          <InlineButton
            onPress={() => {
              setClosing(true);
            }}
          >
            Close the class
          </InlineButton>
        )}
      </Bar>
      <p role="status">
        {one.stopped && "The clocks stand still. "}
        {sent > 0 && `Sent to ${sent}: it happens within the hour on each tank’s own clock.`}
      </p>
      <ProblemNote problem={control.error ?? close.error} />
    </div>
  );
}

interface CardProps {
  learner: Learner;
  uncovered: boolean;
  picked: boolean;
  onPick: () => void;
}

function LearnerCard({ learner, uncovered, picked, onPick }: CardProps) {
  const { truth } = learner;
  return (
    <li data-picked={picked || undefined}>
      <MiniTank alive={learner.alive_count} truth={truth} />
      <div>
        <h2>{learner.name}</h2>
        <p>
          Day {Math.floor(learner.day)} ·{" "}
          {learner.tests_count === 1 ? "1 test" : `${learner.tests_count} tests`}
          {learner.ended && " · ended"}
        </p>
        <p className="believed">{learner.believed}</p>
        {truth?.equipment.map((line) => (
          <p className="true" key={line}>
            {line}
          </p>
        ))}
        {truth && truth.equipment.length === 0 && (
          <p className="true">
            True: ammonia {truth.ammonia_mg_n_l.toFixed(2)}, nitrite {truth.nitrite_mg_n_l.toFixed(2)} mg N/L;{" "}
            {truth.lost_count === 0 ? "nobody lost" : `${truth.lost_count} lost`}.
          </p>
        )}
        {uncovered && (
          <InlineButton
            aria-label={`${picked ? "put back" : "compare"} ${learner.name}`}
            aria-pressed={picked}
            onPress={onPick}
          >
            {picked ? "put back" : "compare"}
          </InlineButton>
        )}
      </div>
    </li>
  );
}

function Compared({ classId, seatId }: { classId: number; seatId: number }) {
  const course = useCourse(classId, seatId);
  const tables = useTables().data;
  if (!course.data || !tables) return null;
  return (
    <div>
      <h2>{course.data.name}</h2>
      <Truth page={course.data} share={kitPpm(tables, undefined)} />
    </div>
  );
}

export function Spreads({ board }: { board: Board }) {
  return (
    <Figures>
      <caption>Over the class</caption>
      <thead>
        <tr>
          <th scope="col">What</th>
          <th scope="col">least</th>
          <th scope="col">middle</th>
          <th scope="col">most</th>
        </tr>
      </thead>
      <tbody>
        {board.spreads.map((s) => (
          <tr key={s.what}>
            <th scope="row">{s.what}</th>
            <td>{Number(s.least.toFixed(2))}</td>
            <td>{Number(s.middle.toFixed(2))}</td>
            <td>{Number(s.most.toFixed(2))}</td>
          </tr>
        ))}
      </tbody>
    </Figures>
  );
}

export const Figures = styled.table`
  border-collapse: collapse;
  margin: 10px 0;
  caption {
    text-align: left;
    font-weight: 600;
  }
  th,
  td {
    text-align: left;
    font-weight: 400;
    padding: 3px 18px 3px 0;
    border-top: 1px solid var(--line);
    vertical-align: top;
  }
  thead th {
    color: var(--ink-soft);
    border-top: 0;
  }
`;
const Wall = styled.header`
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 8px 32px;
  .code {
    margin: 0;
    text-align: right;
    line-height: 1.1;
    small {
      display: block;
      color: var(--ink-soft);
    }
    b {
      font:
        600 3.25rem Vollkorn,
        serif;
      font-variant-numeric: lining-nums;
      letter-spacing: 0.12em;
    }
  }
  ${phone} {
    .code {
      text-align: left;
    }
  }
`;
const Grid = styled.ul`
  list-style: none;
  padding: 0;
  margin: 12px 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
  gap: 10px 22px;
  li {
    display: grid;
    grid-template-columns: 92px minmax(0, 1fr);
    gap: 0 12px;
    padding: 8px 0 8px 8px;
    border-top: 1px solid var(--line);
  }
  li[data-picked] {
    border-top: 2px solid var(--seed);
  }
  h2,
  p {
    margin: 0;
  }
  h2 {
    font-size: 1.0625rem;
  }
  p {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  .believed {
    color: var(--ink);
  }
  .true {
    color: var(--seed);
  }
`;
const Beside = styled.section`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: 16px 32px;
`;
