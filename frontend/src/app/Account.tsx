/** Account: units, password, email, export, deletion. */
import sourceSans from "@fontsource/source-sans-3/LICENSE?url";
import vollkorn from "@fontsource/vollkorn/LICENSE?url";
import { useState } from "react";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";
import { styled } from "styled-components";
import { ask, client } from "../api/client";
import { ReadTokens } from "./ReadTokens";
import { replaceData } from "../api/replaceData";
import type { SessionState } from "../api/schemas";
import { Button, Fields, Lead, PickOne, ProblemNote, TextField, Verdict, YesNo } from "../kit";
import { Page } from "../shared/Page";
import { CalendarLink } from "./CalendarLink";
import { Hands } from "./Household";
import { useSend, PasswordForm, CodesForm, EmailForm, CloseForm } from "./AccountSecurity";

export default function Account({ session }: { session: SessionState }) {
  const nobodys = session.visiting || session.guest_until !== null;
  return (
    <Page>
      <Narrow>
        <Verdict>Your account</Verdict>
        <Lead>
          {nobodys ? (
            <>
              There is no account yet: <Link to="/keep-it">keep it</Link> under an address and a password, and
              nothing is lost.
            </>
          ) : (
            `Signed in as ${session.email ?? ""}.`
          )}
        </Lead>
        <Sections>
          <UnitsForm session={session} />
          {!nobodys && (
            <>
              <PasswordForm />
              <CodesForm />
            </>
          )}
          {!nobodys && <Hands mayMail={session.mail_on} />}
          <section aria-label="Reminders">
            <h2>What reaches you</h2>
            <p>
              <Link to="/reminders">Reminders</Link> by mail, and the browser’s own notices.
            </p>
          </section>
          <CalendarLink />
          {!nobodys && <ContributionForm />}
          {!nobodys && <EmailForm session={session} />}
          <section aria-label="Everything">
            <h2>Everything you wrote</h2>
            <p>
              <a href="/api/account/everything.json" download>
                Every tank’s logbook in one file
              </a>
              ; each of its bundles can be taken in on Today.
            </p>
            <p>
              To reckon with: all tanks as tables, in{" "}
              <a href="/api/account/tables.zip?as=parquet" download>
                Parquet
              </a>{" "}
              or{" "}
              <a href="/api/account/tables.zip?as=csv" download>
                CSV
              </a>
              , with a dictionary of every column.
            </p>
            <ReadTokens />
          </section>
          {!nobodys && <CloseForm />}
          <p>
            Set in <a href={vollkorn}>Vollkorn</a> and <a href={sourceSans}>Source Sans 3</a>, under the
            licences behind their names.
          </p>
        </Sections>
      </Narrow>
    </Page>
  );
}

type Units = SessionState["units"];

function UnitsForm({ session }: { session: SessionState }) {
  const { send, problem, done } = useSend();
  const choose = (change: Partial<Units>) =>
    void send(ask(client.PUT("/api/account/units", { body: { ...session.units, ...change } })));
  return (
    <section aria-label="Units">
      <h2>What you read in</h2>
      <ProblemNote problem={problem} />
      <PickOne
        label="Volume and flow"
        value={session.units.volume}
        onChange={(volume) => {
          choose({ volume });
        }}
        options={[
          ["L", "litres"],
          ["US gal", "US gallons"],
          ["imp gal", "imperial gallons"],
        ]}
      />
      <PickOne
        label="Length and weight"
        value={session.units.length}
        onChange={(length) => {
          choose({ length });
        }}
        options={[
          ["cm", "cm and kg"],
          ["in", "inches and pounds"],
        ]}
      />
      <PickOne
        label="Decimals"
        value={session.units.decimal}
        onChange={(decimal) => {
          choose({ decimal });
        }}
        options={[
          [".", "with a point: 0.5"],
          [",", "with a comma: 0,5"],
        ]}
      />
      <PickOne
        label="Temperature"
        value={session.units.temperature}
        onChange={(temperature) => {
          choose({ temperature });
        }}
        options={[
          ["°C", "°C"],
          ["°F", "°F"],
        ]}
      />
      <CurrencyForm current={session.units.currency} onChoose={choose} />
      <p>
        Any field still takes what you type in any unit: “20 gal”, “24 in”, “78 F”. Doses stay in grams, and
        the lines of a working in litres and cm.
      </p>
      {done && <p role="status">Everything is shown so from now on.</p>}
    </section>
  );
}

function CurrencyForm({
  current,
  onChoose,
}: {
  current: string;
  onChoose: (change: Partial<Units>) => void;
}) {
  const [currency, setCurrency] = useState(current);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        onChoose({ currency: currency.trim().toUpperCase() });
      }}
    >
      <Fields>
        <TextField
          label="Currency"
          value={currency}
          onChange={setCurrency}
          hint="Three letters, such as EUR or USD; empty: bare figures"
        />
      </Fields>
      <div>
        <Button type="submit" $quiet isDisabled={currency.trim().toUpperCase() === current}>
          Use this currency
        </Button>
      </div>
    </form>
  );
}

/** Whether typed boxes and timed flows teach what boxes of a kind are like. */
function ContributionForm() {
  const queries = useQueryClient();
  const contribution = useQuery({
    queryKey: ["contribution"],
    queryFn: () => ask(client.GET("/api/account/contribution")),
  });
  if (!contribution.data) return null;
  return (
    <section aria-label="What your boxes teach">
      <h2>What your boxes teach</h2>
      <p>
        The label figures of boxes you typed, and how your timed flows compare with the computed ones, help to
        say what a box of a kind and size is like. Nothing else of yours is used, and no name.
      </p>
      <YesNo
        label="Let mine be counted"
        value={contribution.data.contributes}
        onChange={(contributes) => {
          void ask(client.PUT("/api/account/contribution", { body: { contributes } })).then((now) => {
            replaceData(queries, ["contribution"], now);
          });
        }}
      />
    </section>
  );
}

const Narrow = styled.div`
  max-width: 1180px;
  display: grid;
  gap: 14px;
  form,
  section {
    display: grid;
    gap: 12px;
  }
`;
/** In two columns where there is room. */
const Sections = styled.div`
  columns: 2 460px;
  column-gap: 48px;
  > * {
    break-inside: avoid;
    margin-bottom: 18px;
  }
  section {
    border-top: 1px solid var(--line);
    padding-top: 14px;
  }
`;
