/** What arrived at this visit's address in the demo's simulated mail server. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { ask, client } from "../api/client";
import { Lead, Verdict, narrow } from "../kit";
import { whenOf } from "../quantity/locale";
import { Opening } from "../shared/NotFetched";
import { Page } from "../shared/Page";

const LOOK_AGAIN_MS = 5_000;

export default function Mailbox() {
  const arrived = useQuery({
    queryKey: ["mailbox"],
    queryFn: () => ask(client.GET("/api/demo/mail")),
    refetchInterval: LOOK_AGAIN_MS,
  });
  const [chosen, setChosen] = useState<string | null>(null);
  const mails = arrived.data?.mails ?? [];
  const shown = mails.find((mail) => mail.id === chosen) ?? mails[0];
  return (
    <Page>
      <title>Mail of the demo · Reedmace</title>
      <Opening asked={[arrived]}>Opening the mailbox…</Opening>
      {arrived.data && (
        <>
          <Verdict>{mails.length ? "Your reminders, as they arrive." : "Nothing has arrived yet."}</Verdict>
          <Lead>
            {mails.length ? (
              `All to ${arrived.data.address}. None leaves this machine.`
            ) : (
              <>
                Turn mail on in <Link to="/reminders">Reminders</Link>; what cannot wait comes within half a
                minute.
              </>
            )}
          </Lead>
        </>
      )}
      {shown && (
        <Split>
          <ul aria-label="Mails">
            {mails.map((mail) => (
              <li key={mail.id}>
                <button
                  type="button"
                  aria-current={mail.id === shown.id}
                  onClick={() => {
                    setChosen(mail.id);
                  }}
                >
                  <strong>{mail.subject}</strong>
                  <span>{whenOf(mail.at)}</span>
                </button>
              </li>
            ))}
          </ul>
          <iframe title={shown.subject} src={`/api/demo/mail/${shown.id}`} />
        </Split>
      )}
    </Page>
  );
}

const Split = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 320px) minmax(0, 1fr);
  gap: 20px;
  margin-top: 14px;
  ul {
    list-style: none;
    margin: 0;
    padding: 0;
  }
  button {
    display: grid;
    gap: 2px;
    width: 100%;
    min-height: 44px;
    padding: 10px 12px;
    text-align: left;
    font: inherit;
    color: var(--ink);
    background: none;
    border: 0;
    border-bottom: 1px solid var(--line);
    cursor: pointer;
    span {
      color: var(--ink-soft);
      font-size: 0.875rem;
    }
  }
  button[aria-current="true"] {
    box-shadow: inset 3px 0 var(--seed);
  }
  iframe {
    width: 100%;
    height: 70vh;
    border: 1px solid var(--line);
    background: white;
  }
  ${narrow} {
    grid-template-columns: 1fr;
  }
`;
