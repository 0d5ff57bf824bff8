/** On every page of a guest or a visit: how long it is kept, and the way to keep it. */
import { Link } from "react-router";
import { styled } from "styled-components";
import { useSession } from "../api/session";
import { phone } from "../kit";
import { LOCALE } from "../quantity/locale";

export function GuestNote() {
  const session = useSession();
  const { guest_until: until, visiting } = session.data ?? {};
  if (!until && !visiting) return null;
  return (
    <Note aria-label="How long this is kept">
      {until
        ? `Without an account: kept on this browser until ${new Date(until).toLocaleDateString(LOCALE, { day: "numeric", month: "long" })}.`
        : "The demo, in a copy of your own for a day."}{" "}
      <Link to="/keep-it">Keep it</Link>
    </Note>
  );
}

const Note = styled.aside`
  max-width: 1400px;
  margin: 0 auto;
  padding: 2px 26px;
  font-size: 0.9375rem;
  color: var(--ink-soft);
  ${phone} {
    padding: 2px 12px;
  }
  @media print {
    display: none;
  }
`;
