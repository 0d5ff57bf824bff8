/** Password, recovery codes, e-mail address and closing of an account. */
import { useState, type SyntheticEvent } from "react";
import { useQuery } from "@tanstack/react-query";
import { ask, client, ProblemError } from "../api/client";
import { useEnter } from "../api/session";
import type { SessionState } from "../api/schemas";
import { Button, ProblemNote, TextField } from "../kit";
import { RecoveryCodes } from "./RecoveryCodes";

/** Send an account change and apply the session of the response. */
export function useSend() {
  const enter = useEnter();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [done, setDone] = useState(false);
  const send = async (asking: Promise<SessionState>) => {
    setProblem(null);
    setDone(false);
    try {
      enter(await asking);
      setDone(true);
      return true;
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
      return false;
    }
  };
  return { send, problem, done };
}

export function PasswordForm() {
  const [old, setOld] = useState("");
  const [fresh, setFresh] = useState("");
  const { send, problem, done } = useSend();
  const submit = async (e: SyntheticEvent) => {
    e.preventDefault();
    if (await send(ask(client.PUT("/api/account/password", { body: { old, new: fresh } })))) {
      setOld("");
      setFresh("");
    }
  };
  return (
    <section aria-label="Password">
      <h2>Password</h2>
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
          hint="At least ten characters. Every other session ends."
          required
        />
        <div>
          <Button type="submit">Change password</Button>
        </div>
      </form>
    </section>
  );
}

export function CodesForm() {
  const left = useQuery({
    queryKey: ["recovery-codes"],
    queryFn: () => ask(client.GET("/api/account/recovery-codes")),
  });
  const [password, setPassword] = useState("");
  const [codes, setCodes] = useState<string[] | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const submit = async (e: SyntheticEvent) => {
    e.preventDefault();
    setProblem(null);
    try {
      const fresh = await ask(client.POST("/api/account/recovery-codes", { body: { password } }));
      setCodes(fresh.recovery_codes);
      setPassword("");
      void left.refetch();
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <section aria-label="Lost password">
      <h2>If the password is lost</h2>
      <p>
        {left.data ? `${left.data.left_count} recovery codes are left. ` : ""}
        Each lets you back in once. New ones make the old worthless.
      </p>
      {codes && <RecoveryCodes codes={codes} />}
      <form onSubmit={(e) => void submit(e)}>
        <ProblemNote problem={problem} />
        <TextField
          label="Password, for new codes"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={setPassword}
          required
        />
        <div>
          <Button type="submit" $quiet>
            Make new codes
          </Button>
        </div>
      </form>
    </section>
  );
}

export function EmailForm({ session }: { session: SessionState }) {
  const [email, setEmail] = useState(session.email ?? "");
  const [password, setPassword] = useState("");
  const { send, problem, done } = useSend();
  const submit = async (e: SyntheticEvent) => {
    e.preventDefault();
    if (await send(ask(client.PUT("/api/account/email", { body: { email, password } })))) setPassword("");
  };
  return (
    <section aria-label="Address">
      <h2>The address you sign in with</h2>
      <form onSubmit={(e) => void submit(e)}>
        <ProblemNote problem={problem} />
        {done && <p role="status">The address is changed.</p>}
        <TextField
          label="New address"
          type="email"
          autoComplete="email"
          value={email}
          onChange={setEmail}
          required
        />
        <TextField
          label="Password, to change the address"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={setPassword}
          required
        />
        <div>
          <Button type="submit" isDisabled={email.trim() === session.email}>
            Change the address
          </Button>
        </div>
      </form>
    </section>
  );
}

/** Irreversible, so it asks for the password. */
export function CloseForm() {
  const [password, setPassword] = useState("");
  const { send, problem } = useSend();
  return (
    <section aria-label="Close the account">
      <h2>Close the account</h2>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          void send(ask(client.POST("/api/account/close", { body: { password } })));
        }}
      >
        <ProblemNote problem={problem} />
        <p>Every tank and logbook in it is taken away. There is no way back: take the file above first.</p>
        <TextField
          label="Password, to close the account"
          type="password"
          autoComplete="current-password"
          value={password}
          onChange={setPassword}
          required
        />
        <div>
          <Button type="submit" $quiet isDisabled={!password}>
            Close it for good
          </Button>
        </div>
      </form>
    </section>
  );
}
