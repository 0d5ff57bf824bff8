/** The door: look round as the demo keeper, sign in, or make an account. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { useEnter, useTables } from "../api/hooks";
import type { SessionState, TankPlan } from "../api/schemas";
import { Button, InlineButton, Lead, ProblemNote, TextField, Verdict, narrow } from "../kit";
import { Section } from "../section/Section";
import { Page } from "./Page";

const SHOAL = [
  { species_id: "harlequin-rasbora", count: 11, length_cm: null },
  { species_id: "pearl-gourami", count: 2, length_cm: null },
  { species_id: "bronze-cory", count: 3, length_cm: null },
];

/** A tank of 90 by 40 by 45 cm, to show what is drawn. */
function sketch({ tank, surroundings }: TankPlan): TankPlan {
  return {
    kind: "tank-plan",
    by_litres: false,
    tank: { ...tank, length_cm: 90, width_cm: 40, height_cm: 45, substrate_depth_cm: 4, stone_kg: 8 },
    surroundings: { ...surroundings, behind_cm: 6, stand_height_cm: 60 },
  };
}

export function SignIn({ demoOpen }: { demoOpen: boolean }) {
  const [isNew, setNew] = useState(false);
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = useEnter();
  const tables = useTables();
  const go = async (asking: Promise<SessionState>) => {
    setBusy(true);
    setProblem(null);
    try {
      enter(await asking);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    } finally {
      setBusy(false);
    }
  };
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    const body = { email, password };
    const account = { ...body, locale: navigator.language };
    void go(
      ask(isNew ? client.POST("/api/account", { body: account }) : client.POST("/api/session", { body })),
    );
  };
  return (
    <Page>
      <Split>
        <div>
          {tables.data && (
            <Section
              plan={sketch(tables.data.blanks.tank)}
              species={tables.data.species}
              animals={SHOAL}
              filters={tables.data.catalogue
                .filter((f) => f.id === "sweetflag-800")
                .map((filter) => ({ key: "sketch", filter }))}
              caption="A tank on its stand, front and side."
            />
          )}
        </div>
        <div>
          <Verdict>
            What to buy, how to fit it without a flood, what to do today, and <em>when you may add fish.</em>
          </Verdict>
          <Lead>
            Measure the tank, name the animals, and Reedmace works out the flow that really arrives, the doses
            for your own water, and the day the filter will carry them. Every number shows its working.
          </Lead>
          {demoOpen && (
            <div>
              <Button isDisabled={busy} onPress={() => void go(ask(client.POST("/api/session/demo")))}>
                Look round as the demo keeper
              </Button>
            </div>
          )}
          <form onSubmit={submit}>
            <h2>{isNew ? "Make an account" : "Sign in"}</h2>
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
              autoComplete={isNew ? "new-password" : "current-password"}
              value={password}
              onChange={setPassword}
              hint={isNew ? "At least ten characters; a few words do well." : undefined}
              required
            />
            <Both>
              <Button type="submit" isDisabled={busy}>
                {isNew ? "Make it" : "Sign in"}
              </Button>
              <InlineButton
                onPress={() => {
                  setNew(!isNew);
                  setProblem(null);
                }}
              >
                {isNew ? "I have an account" : "I have no account yet"}
              </InlineButton>
            </Both>
          </form>
        </div>
      </Split>
    </Page>
  );
}

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 560px) minmax(0, 1fr);
  gap: 40px;
  align-items: start;
  > div {
    display: grid;
    gap: 18px;
    padding-top: 12px;
  }
  form {
    display: grid;
    gap: 12px;
    max-width: 400px;
    border-top: 1px solid var(--line);
    padding-top: 16px;
  }
  ${narrow} {
    grid-template-columns: 1fr;
    gap: 14px;
    > figure {
      order: 2;
    }
  }
`;
const Both = styled.div`
  display: flex;
  gap: 16px;
  align-items: center;
  flex-wrap: wrap;
`;
