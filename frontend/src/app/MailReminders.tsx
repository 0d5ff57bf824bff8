/** Reminders by mail: which, when, and to a confirmed address. */
import { useState } from "react";
import { Link } from "react-router";
import { ask, client, ProblemError } from "../api/client";
import type { NoticeChoice, NoticeState } from "../api/schemas";
import { Button, Fields, InlineButton, Lead, ProblemNote, Select, TextField, YesNo } from "../kit";
import { WEEKDAYS } from "../quantity/weekdays";

export const ZONE_HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

export interface ChoiceProps {
  onChoose: (change: Partial<NoticeChoice>) => void;
}

export function ByMail({ state, onChoose }: ChoiceProps & { state: NoticeState }) {
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
function MailLists({ choice, onChoose }: ChoiceProps & { choice: NoticeChoice }) {
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

function Zone({ choice, onChoose }: ChoiceProps & { choice: NoticeChoice }) {
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
