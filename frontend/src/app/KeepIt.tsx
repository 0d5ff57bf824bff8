/** What a guest or a visitor of the demo made becomes an account in place: an address and a password, nothing lost. */
import { useState, type SyntheticEvent } from "react";
import { useNavigate } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import type { NewAccount } from "../api/schemas";
import { useEnter } from "../api/session";
import { Button, Lead, ProblemNote, TextField, Verdict } from "../kit";
import { Page } from "../shared/Page";
import { RecoveryCodes } from "./RecoveryCodes";

export default function KeepIt() {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [made, setMade] = useState<NewAccount | null>(null);
  const enter = useEnter();
  const navigate = useNavigate();
  const go = async () => {
    try {
      setProblem(null);
      setMade(await ask(client.POST("/api/account/claim", { body: { email, password } })));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    void go();
  };
  return (
    <Page>
      <title>Keep it · Reedmace</title>
      {made ? (
        <>
          <Verdict>
            It is kept. <em>Keep these codes too.</em>
          </Verdict>
          <RecoveryCodes
            codes={made.recovery_codes}
            onDone={() => {
              enter(made);
              void navigate("/today");
            }}
          />
        </>
      ) : (
        <Form onSubmit={submit}>
          <Verdict>Keep what you have made.</Verdict>
          <Lead>An address to sign in with, and a password. Everything stays where it is.</Lead>
          <ProblemNote problem={problem} />
          <TextField
            label="E-mail"
            type="email"
            autoComplete="username"
            value={email}
            onChange={setEmail}
            required
          />
          <TextField
            label="Password"
            type="password"
            autoComplete="new-password"
            value={password}
            onChange={setPassword}
            hint="At least ten characters; a few words do well."
            required
          />
          <div>
            <Button type="submit">Keep it</Button>
          </div>
        </Form>
      )}
    </Page>
  );
}

const Form = styled.form`
  display: grid;
  gap: 12px;
  max-width: 460px;
`;
