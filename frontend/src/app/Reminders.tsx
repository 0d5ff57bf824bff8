/** What reaches the keeper: by mail, when, in which zone, and by the browser's own notices. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { replaceData } from "../api/replaceData";
import type { NoticeChoice, NoticeState } from "../api/schemas";
import { ProblemNote, Verdict, YesNo, narrow } from "../kit";
import { whenOf } from "../quantity/locale";
import { WEEKDAYS } from "../quantity/weekdays";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { askForNotices, noticesPossible } from "../shared/browserNotices";
import { ByMail, type ChoiceProps, ZONE_HERE } from "./MailReminders";

const KINDS: Record<string, string> = {
  "at-once": "what could not wait",
  day: "the day’s list",
  week: "the week’s list",
  confirm: "a link to confirm the address",
  reset: "a link to a new password",
  told: "a change to the account",
  invite: "an invitation",
};
const STATES: Record<string, string> = {
  sent: "sent",
  dropped: "not sent: nothing was left to say",
  dead: "could not be sent",
};

export default function Reminders() {
  const notices = useQuery({
    queryKey: ["notices"],
    queryFn: () => ask(client.GET("/api/account/notices")),
  });
  return (
    <Page>
      <title>Reminders · Reedmace</title>
      <Opening asked={[notices]}>Opening your reminders…</Opening>
      {notices.data && <Choices state={notices.data} />}
    </Page>
  );
}

function Choices({ state }: { state: NoticeState }) {
  const queries = useQueryClient();
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const { choice } = state;
  const choose = async (change: Partial<NoticeChoice>) => {
    setProblem(null);
    // Times mean nothing without a zone: it is the device's, until another is chosen.
    const zone = change.mail && choice.zone === "UTC" ? { zone: ZONE_HERE } : {};
    const body = { ...choice, ...zone, ...change };
    replaceData(queries, ["notices"], { ...state, choice: body });
    try {
      replaceData(queries, ["notices"], await ask(client.PUT("/api/account/notices", { body })));
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
      await queries.invalidateQueries({ queryKey: ["notices"] });
    }
  };
  return (
    <>
      <Verdict>{verdict(state)}</Verdict>
      <Halves>
        <Narrow>
          <ProblemNote problem={problem} />
          <ByMail state={state} onChoose={(change) => void choose(change)} />
          <Here choice={choice} onChoose={(change) => void choose(change)} />
          {state.latest.length > 0 && (
            <section aria-label="What went out last">
              <h2>What went out last</h2>
              <ul>
                {state.latest.map((one, n) => (
                  <li key={n}>
                    {one.at ? `${whenOf(one.at)}: ` : ""}
                    {KINDS[one.kind]}, {STATES[one.state]}
                    {one.error && one.state === "dead" ? ` (${one.error})` : ""}
                  </li>
                ))}
              </ul>
            </section>
          )}
        </Narrow>
        <Preview />
      </Halves>
    </>
  );
}

/** The day's list as it would go out now. */
function Preview() {
  const letter = useQuery({
    queryKey: ["letter"],
    queryFn: () => ask(client.GET("/api/account/notices/letter")),
  });
  if (!letter.data) return <div />;
  return (
    <Sheet aria-label="The day’s list as it would come now">
      <h2>The day’s list, if it came now</h2>
      <p>{letter.data.subject}</p>
      {letter.data.tanks.map((tank) => (
        <div key={tank.tank_id} data-urgent={tank.urgent || undefined}>
          <h3>
            <Link to={`/tanks/${tank.tank_id}/${tank.stage}`}>{tank.name}</Link>
          </h3>
          <p>{tank.verdict}</p>
          <ul>
            {tank.tasks.map((task, n) => (
              <li key={n}>
                {task.title}
                {task.when && <small> {task.when}</small>}
              </li>
            ))}
          </ul>
        </div>
      ))}
    </Sheet>
  );
}

function verdict({ choice, mail_on, confirmed, address }: NoticeState): string {
  if (!mail_on && address === null) return "Reminders by mail need an address.";
  if (!mail_on) return "This installation sends no mail.";
  if (!choice.mail) return "Nothing is mailed to you.";
  if (!confirmed) return "Confirm your address, and reminders begin.";
  const parts = [
    choice.at_once && "what cannot wait, at once",
    choice.day && `the day’s list at ${choice.day_at}`,
    choice.week && `the week’s list on ${WEEKDAYS[choice.week_on]?.[1] ?? ""}`,
  ].filter(Boolean);
  return parts.length ? `Mailed to you: ${parts.join("; ")}.` : "Mail is on, and nothing is chosen.";
}

function Here({ choice, onChoose }: ChoiceProps & { choice: NoticeChoice }) {
  const [refused, setRefused] = useState(false);
  if (!noticesPossible()) return null;
  const turn = async (browser: boolean) => {
    const allowed = !browser || (await askForNotices());
    setRefused(!allowed);
    if (allowed) onChoose({ browser });
  };
  return (
    <section aria-label="On this device">
      <h2>On this device</h2>
      <YesNo
        label="A notice of the browser for what cannot wait, while Reedmace is open"
        value={choice.browser}
        onChange={(browser) => void turn(browser)}
      />
      {refused && (
        <p role="status">
          The browser does not allow it. Allow notices for this page in its settings, then try again.
        </p>
      )}
    </section>
  );
}

const Halves = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 600px) minmax(0, 480px);
  gap: 20px 60px;
  align-items: start;
  margin-top: 14px;
  ${narrow} {
    grid-template-columns: 1fr;
  }
`;
const Sheet = styled.section`
  background: var(--field);
  border: 1px solid var(--line);
  padding: 16px 20px;
  display: grid;
  gap: 10px;
  p {
    margin: 0;
  }
  h3 {
    margin: 0 0 2px;
    font-size: 1rem;
  }
  ul {
    margin: 4px 0 0;
    padding-left: 18px;
  }
  > div {
    border-top: 1px solid var(--line);
    padding-top: 10px;
  }
  > div[data-urgent] {
    border-left: 3px solid var(--alarm);
    padding-left: 12px;
  }
  small {
    color: var(--ink-soft);
  }
`;
const Narrow = styled.div`
  display: grid;
  gap: 14px;
  section {
    display: grid;
    gap: 10px;
    border-top: 1px solid var(--line);
    padding-top: 14px;
  }
  ul {
    margin: 0;
    padding-left: 18px;
  }
`;
