/** Form for sign-in, sign-up, and account recovery. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { ask, client } from "../api/client";
import type { NewAccount, SessionState } from "../api/schemas";
import { Button, InlineButton, ProblemNote, TextField } from "../kit";
import type { ProblemError } from "../api/client";
import { DECIMAL } from "../quantity/locale";

type Way = "sign-in" | "new" | "lost";

const TITLE: Record<Way, string> = {
  "sign-in": "Sign in",
  new: "Make an account",
  lost: "Come back in with a recovery code",
};
const PRESS: Record<Way, string> = { "sign-in": "Sign in", new: "Make it", lost: "Set the new password" };

interface Props {
  busy: boolean;
  problem: ProblemError | null;
  onEnter: (asking: Promise<SessionState>) => void;
  onMade: (asking: Promise<NewAccount>) => void;
  onForget: () => void;
}

export function SignInForm({ busy, problem, onEnter, onMade, onForget }: Props) {
  const [way, setWay] = useState<Way>("sign-in");
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    const body = { email, password };
    if (way === "new")
      onMade(
        ask(client.POST("/api/account", { body: { ...body, locale: navigator.language, decimal: DECIMAL } })),
      );
    else if (way === "lost") onEnter(ask(client.POST("/api/session/recover", { body: { ...body, code } })));
    else onEnter(ask(client.POST("/api/session", { body })));
  };
  const to = (next: Way, words: string) =>
    way !== next && (
      <InlineButton
        key={next}
        onPress={() => {
          setWay(next);
          onForget();
        }}
      >
        {words}
      </InlineButton>
    );
  return (
    <form onSubmit={submit}>
      <h2>{TITLE[way]}</h2>
      <ProblemNote problem={problem} />
      <TextField
        label="E-mail"
        type="email"
        autoComplete="username"
        value={email}
        onChange={setEmail}
        required
      />
      {way === "lost" && (
        <TextField
          label="Recovery code"
          value={code}
          onChange={setCode}
          hint="One of those shown when the account was made"
          required
        />
      )}
      <TextField
        label={way === "lost" ? "New password" : "Password"}
        type="password"
        autoComplete={way === "sign-in" ? "current-password" : "new-password"}
        value={password}
        onChange={setPassword}
        hint={way === "sign-in" ? undefined : "At least ten characters; a few words do well."}
        required
      />
      <Both>
        <Button type="submit" isDisabled={busy}>
          {PRESS[way]}
        </Button>
        {to("new", "I have no account yet")}
        {to("sign-in", "I have an account")}
        {to("lost", "I lost the password")}
      </Both>
    </form>
  );
}

const Both = styled.div`
  display: flex;
  gap: 16px;
  align-items: center;
  flex-wrap: wrap;
`;
