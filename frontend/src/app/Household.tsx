/** Household: members invited by a link, each with a role; and where this keeper helps. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { Button, InlineButton, PickOne, ProblemNote, TextField } from "../kit";

const ROLES = [
  ["helper", "helps: logs what was done"],
  ["keeper", "keeps: plans as well"],
  ["reader", "only looks"],
] as const;
type Role = (typeof ROLES)[number][0];
const WORDS = Object.fromEntries(ROLES) as Record<Role, string>;

export function Hands({ mayMail }: { mayMail: boolean }) {
  const household = useQuery({
    queryKey: ["household"],
    queryFn: () => ask(client.GET("/api/household")),
  });
  const queries = useQueryClient();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const attempt = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
      await queries.invalidateQueries();
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const part = (id: number) =>
    attempt(() =>
      ask(client.DELETE("/api/household/members/{member_id}", { params: { path: { member_id: id } } })),
    );
  const { members = [], helps = [] } = household.data ?? {};
  return (
    <section aria-label="Who else keeps these tanks">
      <h2>Who else keeps these tanks</h2>
      <p>Invite whoever looks after the tanks with you: every entry says whose hand wrote it.</p>
      <List>
        {members.map((hand) => (
          <li key={hand.id}>
            {hand.email}, {WORDS[hand.role]}{" "}
            <InlineButton aria-label={`End: ${hand.email}`} onPress={() => void part(hand.id)}>
              End it
            </InlineButton>
          </li>
        ))}
        {helps.map((hand) => (
          <li key={hand.id}>
            You help {hand.email}: {WORDS[hand.role]}{" "}
            <InlineButton aria-label={`Leave ${hand.email}`} onPress={() => void part(hand.id)}>
              Leave
            </InlineButton>
          </li>
        ))}
      </List>
      <Invite mayMail={mayMail} attempt={attempt} />
      <ProblemNote problem={problem} />
    </section>
  );
}

interface InviteProps {
  mayMail: boolean;
  /** Runs a request, shows its problem, refetches. */
  attempt: (work: () => Promise<unknown>) => Promise<void>;
}

function Invite({ mayMail, attempt }: InviteProps) {
  const [role, setRole] = useState<Role>("helper");
  const [url, setUrl] = useState("");
  const [email, setEmail] = useState("");
  const [mailed, setMailed] = useState(false);
  return (
    <>
      <PickOne label="Whoever opens the link" value={role} onChange={setRole} options={ROLES} />
      {mayMail && (
        <TextField
          label="Mail the link to"
          type="email"
          value={email}
          onChange={setEmail}
          hint="Their address, if you like"
        />
      )}
      <div>
        <Button
          $quiet
          onPress={() =>
            void attempt(async () => {
              const body = { role, email: email.trim() || null };
              const made = await ask(client.POST("/api/household/invites", { body }));
              setUrl(made.url);
              setMailed(made.mailed);
            })
          }
        >
          Make an invitation
        </Button>{" "}
        <InlineButton
          onPress={() =>
            void attempt(async () => {
              await ask(client.DELETE("/api/household/invites"));
              setUrl("");
            })
          }
        >
          Take open invitations back
        </InlineButton>
      </div>
      {url && (
        <p role="status">
          {mailed ? `Mailed to ${email}. ` : ""}For one person, for a week, shown this once:{" "}
          <code>{url}</code>
        </p>
      )}
    </>
  );
}

const List = styled.ul`
  li {
    padding: 2px 0;
  }
`;
