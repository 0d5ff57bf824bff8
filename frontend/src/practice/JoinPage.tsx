/** The page of a class before one has joined: what it is about, and a name to be called by. No account is asked for. */
import { useState } from "react";
import { useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { ProblemError } from "../api/client";
import { beGuest } from "../shared/guest";
import { joinClass, useClassByCode } from "../api/practiceClass";
import { useEnter, useSession } from "../api/session";
import { Bar, Button, Fields, Lead, ProblemNote, TextField, Verdict } from "../kit";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";

export default function JoinPage() {
  const code = (useParams().code ?? "").toUpperCase();
  const seen = useClassByCode(code);
  const unknown = seen.error instanceof ProblemError && seen.error.status === 404;
  return (
    <Page>
      <title>Join a class · Reedmace</title>
      {unknown ? (
        <Verdict>No class has the code {code}. Ask your teacher for it once more.</Verdict>
      ) : (
        <Opening asked={[seen]}>Looking for the class…</Opening>
      )}
      {seen.data && (
        <>
          <Verdict>{seen.data.title}: a class</Verdict>
          <Lead>{seen.data.task}</Lead>
          <p>Goal: {seen.data.goal}</p>
          {seen.data.full ? <p>Every place is taken. Ask for another class.</p> : <Name code={code} />}
        </>
      )}
    </Page>
  );
}

function Name({ code }: { code: string }) {
  const [name, setName] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [waiting, setWaiting] = useState(false);
  const session = useSession();
  const enter = useEnter();
  const navigate = useNavigate();
  const go = async () => {
    setWaiting(true);
    setProblem(null);
    try {
      if (!session.data?.signed_in) enter(await beGuest());
      const made = await joinClass(code, name);
      await navigate(`/tanks/${made.tank_id}/${made.opens}`);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    } finally {
      setWaiting(false);
    }
  };
  return (
    <Asked
      onSubmit={(e) => {
        e.preventDefault();
        void go();
      }}
    >
      <Fields>
        <TextField label="What shall you be called?" value={name} onChange={setName} />
      </Fields>
      <Bar>
        <Button type="submit" isDisabled={waiting || !name.trim()}>
          {waiting ? "Filling your tank…" : "Join"}
        </Button>
      </Bar>
      <p>Your tank is a simulated one. The name is shown on the teacher’s board, and nothing else of you.</p>
      <ProblemNote problem={problem} />
    </Asked>
  );
}

const Asked = styled.form`
  display: grid;
  justify-items: start;
  gap: 12px;
  margin-top: 18px;
`;
