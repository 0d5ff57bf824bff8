/** What reaches the keeper: by mail, when, in which zone, and by the browser's own notices. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { replaceData } from "../api/replaceData";
import type { NoticeChoice, NoticeState } from "../api/schemas";
import {
  Button,
  Fields,
  InlineButton,
  Lead,
  ProblemNote,
  Select,
  TextField,
  Verdict,
  YesNo,
  narrow,
} from "../kit";
import { whenOf } from "../quantity/locale";
import { WEEKDAYS } from "../quantity/weekdays";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";
import { askForNotices, noticesPossible } from "../shared/browserNotices";

const ZONE_HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

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

interface Part {
  onChoose: (change: Partial<NoticeChoice>) => void;
}

function ByMail({ state, onChoose }: Part & { state: NoticeState }) {
  const { choice, address } = state;
  if (!state.mail_on)
    return (
      <Lead>
        {address === null ? (
          <>
            <Link to="/keep-it">Keep what you made</Link> under an address and a password first.
          </>
        ) : (
          "Its operator can name a mail server. The calendar link in Account reminds you meanwhile."
        )}
      </Lead>
    );
  return (
    <section aria-label="By mail">
      <h2>By mail</h2>
      <YesNo
        label={`Mail reminders to ${address ?? "me"}`}
        value={choice.mail}
        onChange={(mail) => {
          onChoose({ mail });
        }}
      />
      {choice.mail && !state.confirmed && <Confirm />}
      {state.mailbox && (
        <p>
          In this demo all mail stays here: <Link to="/demo/mail">see what arrived</Link>.
        </p>
      )}
      {choice.mail && <MailLists choice={choice} onChoose={onChoose} />}
    </section>
  );
}

/** Which lists come, when, and the hours that stay quiet. */
function MailLists({ choice, onChoose }: Part & { choice: NoticeChoice }) {
  return (
    <>
      <YesNo
        label="What cannot wait, at once"
        value={choice.at_once}
        onChange={(at_once) => {
          onChoose({ at_once });
        }}
      />
      <YesNo
        label="The day’s list, where something is due"
        value={choice.day}
        onChange={(day) => {
          onChoose({ day });
        }}
      />
      <YesNo
        label="The week’s list"
        value={choice.week}
        onChange={(week) => {
          onChoose({ week });
        }}
      />
      <Fields>
        <Clock
          label="Lists come at"
          value={choice.day_at}
          onChange={(day_at) => {
            onChoose({ day_at });
          }}
        />
        {choice.week && (
          <Select
            label="The week’s list on"
            value={String(choice.week_on)}
            onChange={(day) => {
              onChoose({ week_on: Number(day) });
            }}
            options={WEEKDAYS}
          />
        )}
      </Fields>
      <h2>Quiet hours</h2>
      <Fields>
        <Clock
          label="From"
          value={choice.quiet_from}
          onChange={(quiet_from) => {
            onChoose({ quiet_from });
          }}
        />
        <Clock
          label="Until"
          value={choice.quiet_until}
          onChange={(quiet_until) => {
            onChoose({ quiet_until });
          }}
        />
      </Fields>
      <YesNo
        label="Animals in danger are told in quiet hours too"
        value={choice.wake_for_harm}
        onChange={(wake_for_harm) => {
          onChoose({ wake_for_harm });
        }}
      />
      <Zone choice={choice} onChoose={onChoose} />
    </>
  );
}

function Zone({ choice, onChoose }: Part & { choice: NoticeChoice }) {
  return (
    <p>
      Times are those of {choice.zone}.{" "}
      {choice.zone !== ZONE_HERE && (
        <InlineButton
          onPress={() => {
            onChoose({ zone: ZONE_HERE });
          }}
        >
          Use this device’s: {ZONE_HERE}
        </InlineButton>
      )}
    </p>
  );
}

/** Sent once it is whole: while it is typed it is no time yet. */
function Clock({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
}) {
  const [typed, setTyped] = useState(value);
  return (
    <TextField
      label={label}
      type="time"
      value={typed}
      onChange={(text) => {
        setTyped(text);
        if (/^\d\d:\d\d$/.test(text) && text !== value) onChange(text);
      }}
      onBlur={() => {
        setTyped(value);
      }}
    />
  );
}

function Confirm() {
  const [said, setSaid] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const send = async () => {
    setProblem(null);
    try {
      setSaid((await ask(client.POST("/api/account/confirmation"))).said);
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error;
      setProblem(error);
    }
  };
  return (
    <div>
      <ProblemNote problem={problem} />
      {said ? (
        <p role="status">{said}</p>
      ) : (
        <>
          <p>The address is not confirmed yet: follow the link in the mail you got, or have another sent.</p>
          <Button onPress={() => void send()}>Mail me the link</Button>
        </>
      )}
    </div>
  );
}

function Here({ choice, onChoose }: Part & { choice: NoticeChoice }) {
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
