/** Form for sign-in, sign-up, and account recovery. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { ask, client } from "../api/client";
import type { NewAccount, SessionState } from "../api/schemas";
import { Button, InlineButton, ProblemNote, TextField } from "../kit";
import type { ProblemError } from "../api/client";
import { DECIMAL } from "../quantity/locale";

type Way = "sign-in" | "new" | "mail" | "lost";

const TITLE: Record<Way, string> = {
  "sign-in": "Sign in",
  new: "Make an account",
  mail: "A new password by mail",
  lost: "Come back in with a recovery code",
};
const PRESS: Record<Way, string> = {
  "sign-in": "Sign in",
  new: "Make it",
  mail: "Mail me a link",
  lost: "Set the new password",
};

/** The other ways in, with their words. A recovery code comes after the mail, where there is mail. */
function waysFrom(way: Way, mailOn: boolean): [Way, string][] {
  const lost: [Way, string] = mailOn ? ["mail", "I lost the password"] : ["lost", "I lost the password"];
  const code: [Way, string] = ["lost", "I have a recovery code"];
  const ways: [Way, string][] = [
    ["new", "I have no account yet"],
    ["sign-in", "I have an account"],
  ];
  return [...ways, way === "mail" || (way === "lost" && mailOn) ? code : lost].filter(
    ([next]) => next !== way,
  );
}

const EMAIL = { label: "E-mail", type: "email", autoComplete: "username" } as const;

interface Props {
  busy: boolean;
  /** Whether a forgotten password can be replaced by mail. */
  mailOn: boolean;
  problem: ProblemError | null;
  onEnter: (asking: Promise<SessionState>) => void;
  onMade: (asking: Promise<NewAccount>) => void;
  onForget: () => void;
  onMailed: (asking: Promise<{ said: string }>, then: (said: string) => void) => void;
}

export function SignInForm({ busy, mailOn, problem, onEnter, onMade, onForget, onMailed }: Props) {
  const [way, setWay] = useState<Way>("sign-in");
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState("");
  const [said, setSaid] = useState("");
  const body = { email, password };
  const send: Record<Way, () => void> = {
    "sign-in": () => {
      onEnter(ask(client.POST("/api/session", { body })));
    },
    new: () => {
      const more = { locale: navigator.language, decimal: DECIMAL } as const;
      onMade(ask(client.POST("/api/account", { body: { ...body, ...more } })));
    },
    mail: () => {
      onMailed(ask(client.POST("/api/password/forgotten", { body: { email } })), setSaid);
    },
    lost: () => {
      onEnter(ask(client.POST("/api/session/recover", { body: { ...body, code } })));
    },
  };
  const go = (next: Way) => {
    setWay(next);
    setSaid("");
    onForget();
  };
  return (
    <form
      onSubmit={(e: SyntheticEvent) => {
        e.preventDefault();
        send[way]();
      }}
    >
      <h2>{TITLE[way]}</h2>
      <ProblemNote problem={problem} />
      <TextField {...EMAIL} value={email} onChange={setEmail} required />
      {way === "lost" && (
        <TextField
          label="Recovery code"
          value={code}
          onChange={setCode}
          hint="One of those shown when the account was made"
          required
        />
      )}
      {way !== "mail" && (
        <TextField
          label={way === "lost" ? "New password" : "Password"}
          type="password"
          autoComplete={way === "sign-in" ? "current-password" : "new-password"}
          value={password}
          onChange={setPassword}
          hint={way === "sign-in" ? undefined : "At least ten characters; a few words do well."}
          required
        />
      )}
      {said && <p role="status">{said}</p>}
      <Both>
        <Button type="submit" isDisabled={busy}>
          {PRESS[way]}
        </Button>
        {waysFrom(way, mailOn).map(([next, words]) => (
          <InlineButton
            key={next}
            onPress={() => {
              go(next);
            }}
          >
            {words}
          </InlineButton>
        ))}
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
