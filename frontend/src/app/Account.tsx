/** Account: change of password. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { useEnter } from "../api/hooks";
import { Button, Lead, ProblemNote, TextField, Verdict } from "../kit";
import { Page } from "./Page";

export function Account({ email }: { email: string }) {
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [done, setDone] = useState(false);
  const enter = useEnter();
  const submit = async (e: SyntheticEvent) => {
    e.preventDefault();
    setProblem(null);
    setDone(false);
    try {
      enter(await ask(client.PUT("/api/account/password", { body: { old, new: fresh } })));
      setDone(true);
      setOld("");
      setFresh("");
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <Page>
      <Narrow>
        <Verdict>Your account</Verdict>
        <Lead>Signed in as {email}. A new password ends every other session.</Lead>
        <form onSubmit={(e) => void submit(e)}>
          <ProblemNote problem={problem} />
          {done && <p role="status">The password is changed.</p>}
          <TextField
            label="Present password"
            type="password"
            autoComplete="current-password"
            value={old}
            onChange={setOld}
            required
          />
          <TextField
            label="New password"
            type="password"
            autoComplete="new-password"
            value={fresh}
            onChange={setFresh}
            hint="At least ten characters."
            required
          />
          <div>
            <Button type="submit">Change password</Button>
          </div>
        </form>
      </Narrow>
    </Page>
  );
}

const Narrow = styled.div`
  max-width: 460px;
  display: grid;
  gap: 14px;
  form {
    display: grid;
    gap: 12px;
  }
`;
