/** Entries waiting in the outbox, and those the server rejected. */
import { Link } from "react-router";
import { styled } from "styled-components";
import { useTables } from "../api/tables";
import { mark, release } from "../api/outbox";
import type { Entry } from "../api/schemas";
import { InlineButton } from "../kit";
import { words } from "../shared/entryWords";
import { useHeld } from "../api/useOutbox";
import { LOCALE } from "../quantity/locale";

export function HeldNote() {
  const held = useHeld();
  const tables = useTables().data;
  const waiting = held.filter((h) => h.refused === undefined).length;
  const refused = held.filter((h) => h.refused !== undefined);
  return (
    <>
      {waiting > 0 && (
        <Note role="status">
          {waiting} {waiting === 1 ? "entry is" : "entries are"} kept on this device and will be sent when the
          connection is back.
        </Note>
      )}
      {refused.length > 0 && (
        <Note as="section" aria-label="Entries that were refused">
          {refused.map((h) => (
            <p key={h.entry.key}>
              <b>{tables && words(h.entry.body as Entry["body"], tables)}</b> of{" "}
              {new Date(h.entry.at).toLocaleString(LOCALE)} was not taken: {h.refused} Write it again on{" "}
              <Link to={`/tanks/${h.tankId}/keep`}>its tank</Link>, or{" "}
              <InlineButton
                onPress={() => {
                  mark(h.entry.key);
                }}
              >
                send it again
              </InlineButton>{" "}
              or{" "}
              <InlineButton
                onPress={() => {
                  release(h.entry.key);
                }}
              >
                take it out
              </InlineButton>
              .
            </p>
          ))}
        </Note>
      )}
    </>
  );
}

const Note = styled.div`
  max-width: 1400px;
  margin: 4px auto 0;
  padding: 4px 26px;
  background: var(--seed-fill);
`;
