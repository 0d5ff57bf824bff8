/** Pages that links in mails open: an address confirmed, all mail ended, a new password. */
import { useQuery } from "@tanstack/react-query";
import { useState, type SyntheticEvent } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { useEnter } from "../api/session";
import { Bar, Button, Lead, ProblemNote, TextField, Verdict } from "../kit";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";

function useToken(): string {
  return useParams().token ?? "";
}

/** Confirms by being opened: the link came to the address. */
export function ConfirmPage() {
  const token = useToken();
  const confirmed = useQuery({
    queryKey: ["confirmed", token],
    queryFn: () => ask(client.POST("/api/confirmation", { body: { token } })),
    retry: false,
    gcTime: 0,
  });
  return (
    <Page>
      <title>Confirm an address · Reedmace</title>
      <Opening asked={[confirmed]}>Confirming…</Opening>
      {confirmed.data && (
        <>
          <Verdict>{confirmed.data.email} is confirmed.</Verdict>
          <Lead>
            Choose in <Link to="/reminders">Reminders</Link> what is mailed there and when.
          </Lead>
        </>
      )}
    </Page>
  );
}

export function NoMailPage() {
  const token = useToken();
  const [ended, setEnded] = useState(false);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const end = async () => {
    try {
      await ask(client.POST("/api/no-mail/{token}", { params: { path: { token } } }));
      setEnded(true);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <Page>
      <title>No more mail · Reedmace</title>
      <Verdict>{ended ? "No more mail is sent." : "End all reminders by mail?"}</Verdict>
      <Lead>
        {ended ? (
          <>
            What is due still stands on <Link to="/today">Today</Link>; mail begins again in{" "}
            <Link to="/reminders">Reminders</Link>.
          </>
        ) : (
          "Also of animals in danger. What is due still stands on Today."
        )}
      </Lead>
      <ProblemNote problem={problem} />
      {!ended && (
        <Bar>
          <Button onPress={() => void end()}>No more mail</Button>
        </Bar>
      )}
    </Page>
  );
}

export function NewPasswordPage() {
  const token = useToken();
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = useEnter();
  const navigate = useNavigate();
  const submit = async (e: SyntheticEvent) => {
    e.preventDefault();
    setBusy(true);
    setProblem(null);
    try {
      enter(await ask(client.POST("/api/password/new", { body: { token, password } })));
      await navigate("/today");
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Page>
      <title>A new password · Reedmace</title>
      <Verdict>Choose a new password.</Verdict>
      <Lead>Every other session of your account ends with it.</Lead>
      <NewPassword onSubmit={(e) => void submit(e)}>
        <ProblemNote problem={problem} />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          value={password}
          onChange={setPassword}
          hint="At least ten characters; a few words do well."
          required
        />
        <div>
          <Button type="submit" isDisabled={busy}>
            Set the new password
          </Button>
        </div>
      </NewPassword>
    </Page>
  );
}

const NewPassword = styled.form`
  display: grid;
  gap: 12px;
  max-width: 400px;
  margin-top: 12px;
`;
