/** Worksheets of a class, to print: before, the questions; after, the answers with everybody's spread. */
import { Link, useLocation, useParams } from "react-router";
import { styled } from "styled-components";
import { useBoard, type Board } from "../api/practiceClass";
import { Bar, Button, Lead, Verdict } from "../kit";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { Figures, Spreads } from "./ClassPage";

const QUESTIONS = [
  "What do you test first, and what do you expect to read?",
  "When is the next thing to be done, and what is it?",
  "What would tell you that something is wrong, and what would you do within the hour?",
  "When may animals come, how many, and what makes you sure?",
  "Which of your figures do you trust least?",
];

export default function ClassSheet() {
  const classId = Number(useParams().classId);
  const after = new URLSearchParams(useLocation().search).has("after");
  const board = useBoard(classId);
  return (
    <Page>
      <title>Worksheet · Reedmace</title>
      <Opening asked={[board]}>Writing the sheet…</Opening>
      {board.data && (
        <>
          <Verdict>
            {board.data.of_class.lesson.title}: {after ? "after" : "before"}
          </Verdict>
          <Bar className="screen-only">
            <Button
              onPress={() => {
                window.print();
              }}
            >
              Print
            </Button>
            <Link to={`/practice/class/${classId}`}>Back to the board</Link>
          </Bar>
          {after ? <After board={board.data} /> : <Before board={board.data} />}
        </>
      )}
    </Page>
  );
}

function Before({ board }: { board: Board }) {
  return (
    <>
      <p>Name:</p>
      <Lead>{board.of_class.lesson.task}</Lead>
      <p>Goal: {board.of_class.lesson.goal}</p>
      <Questions>
        {QUESTIONS.map((question) => (
          <li key={question}>{question}</li>
        ))}
      </Questions>
    </>
  );
}

function After({ board }: { board: Board }) {
  const { lesson, uncovered } = board.of_class;
  return (
    <>
      <Lead>{lesson.teaches}</Lead>
      {!uncovered && <p>Uncover the truth on the board first: then everybody’s figures stand here.</p>}
      {uncovered && <Spreads board={board} />}
      {uncovered && (
        <Figures>
          <caption>Each tank</caption>
          <thead>
            <tr>
              <th scope="col">Who</th>
              <th scope="col">day</th>
              <th scope="col">tests</th>
              <th scope="col">lost</th>
              <th scope="col">what was believed</th>
            </tr>
          </thead>
          <tbody>
            {board.learners.map((one) => (
              <tr key={one.id}>
                <th scope="row">{one.name}</th>
                <td>{Math.floor(one.day)}</td>
                <td>{one.tests_count}</td>
                <td>{one.truth?.lost_count ?? 0}</td>
                <td>{one.believed}</td>
              </tr>
            ))}
          </tbody>
        </Figures>
      )}
    </>
  );
}

const Questions = styled.ol`
  max-width: 720px;
  li {
    padding-bottom: 88px;
    border-bottom: 1px solid var(--line);
    margin-bottom: 14px;
  }
`;
