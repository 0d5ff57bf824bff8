/** Entrance: demo, sign-in, sign-up. */
import { useState } from "react";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { useEnter } from "../api/session";
import { useTables } from "../api/tables";
import type { NewAccount, TankPlan } from "../api/schemas";
import { Button, Lead, Verdict, narrow } from "../kit";
import { Section } from "../section/Section";
import { Page } from "../shared/Page";
import { RecoveryCodes } from "./RecoveryCodes";
import { SignInForm } from "./SignInForm";

const SHOAL = [
  { species_id: "harlequin-rasbora", count: 11, length_cm: null },
  { species_id: "pearl-gourami", count: 2, length_cm: null },
  { species_id: "bronze-cory", count: 3, length_cm: null },
];

/** A tank of 90 by 40 by 45 cm, for the drawing. */
function sketch({ tank, surroundings }: TankPlan): TankPlan {
  return {
    kind: "tank-plan",
    by_litres: false,
    tank: { ...tank, length_cm: 90, width_cm: 40, height_cm: 45, substrate_depth_cm: 4, stone_kg: 8 },
    surroundings: { ...surroundings, behind_cm: 6, stand_height_cm: 60 },
  };
}

interface Props {
  demoOpen: boolean;
  /** Whether a forgotten password can be replaced by mail. */
  mailOn: boolean;
  /** They came by an invitation to a household. */
  invited?: boolean;
}

export function SignIn({ demoOpen, mailOn, invited }: Props) {
  const [made, setMade] = useState<NewAccount | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = useEnter();
  const tables = useTables();
  const go = async <T,>(asking: Promise<T>, then: (answer: T) => void) => {
    setBusy(true);
    setProblem(null);
    try {
      then(await asking);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    } finally {
      setBusy(false);
    }
  };
  if (made !== null)
    return (
      <NewAccountCodes
        codes={made.recovery_codes}
        onDone={() => {
          enter(made);
        }}
      />
    );
  return (
    <Page>
      <Split>
        <div>
          {tables.data && (
            <Section
              plan={sketch(tables.data.form_defaults.tank)}
              species={tables.data.species}
              animals={SHOAL}
              filters={[{ key: "sketch", filter: tables.data.sketched }]}
              caption="A tank on its stand, front and side."
            />
          )}
        </div>
        <div>
          {invited && (
            <Note>
              Somebody invites you to help with their tanks. Sign in or make an account of your own here; then
              you are asked.
            </Note>
          )}
          <Intro />
          {demoOpen && (
            <div>
              <Button isDisabled={busy} onPress={() => void go(ask(client.POST("/api/session/demo")), enter)}>
                Look round as the demo keeper
              </Button>
            </div>
          )}
          <SignInForm
            busy={busy}
            mailOn={mailOn}
            problem={problem}
            onEnter={(asking) => void go(asking, enter)}
            onMade={(asking) => void go(asking, setMade)}
            onMailed={(asking, then) =>
              void go(asking, (answer) => {
                then(answer.said);
              })
            }
            onForget={() => {
              setProblem(null);
            }}
          />
        </div>
      </Split>
    </Page>
  );
}

function Intro() {
  return (
    <>
      <Verdict>
        What to buy, how to fit it without a flood, what to do today, and <em>when you may add fish.</em>
      </Verdict>
      <Lead>
        Measure the tank, name the animals, and Reedmace works out the flow that really arrives, the doses for
        your own water, and the day the filter will carry them. Every number shows its working.
      </Lead>
    </>
  );
}

/** Recovery codes of an account just made. */
function NewAccountCodes({ codes, onDone }: { codes: string[]; onDone: () => void }) {
  return (
    <Page>
      <Noted>
        <Verdict>
          Your account is made. <em>Keep these codes.</em>
        </Verdict>
        <RecoveryCodes codes={codes} onDone={onDone} />
      </Noted>
    </Page>
  );
}

const Note = styled.p`
  border-left: 3px solid var(--seed);
  padding-left: 10px;
  font-weight: 600;
`;
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
const Noted = styled.div`
  display: grid;
  gap: 18px;
  max-width: 620px;
  padding-top: 12px;
`;
