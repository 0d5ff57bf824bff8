/** Offer to put the application on the device's screen: once, from the second day it is used on. */
import { useEffect, useState } from "react";
import { styled } from "styled-components";
import { InlineButton } from "../kit";

/** Chromium's event; its type is in no standard library yet. */
interface InstallEvent extends Event {
  prompt: () => Promise<unknown>;
}

const DAYS_KEY = "reedmace.days";
const OFFERED_KEY = "reedmace.install-offered";

export function InstallOffer() {
  const [event, setEvent] = useState<InstallEvent | null>(null);
  useEffect(() => {
    const days = countDays();
    const hold = (e: Event) => {
      e.preventDefault();
      if (days >= 2 && !localStorage.getItem(OFFERED_KEY)) setEvent(e as InstallEvent);
    };
    window.addEventListener("beforeinstallprompt", hold);
    return () => {
      window.removeEventListener("beforeinstallprompt", hold);
    };
  }, []);
  if (!event) return null;
  const close = () => {
    localStorage.setItem(OFFERED_KEY, "yes");
    setEvent(null);
  };
  return (
    <Notice role="status">
      Reedmace can stand on this device’s screen: it then opens at the tank without a connection.{" "}
      <InlineButton
        onPress={() => {
          close();
          void event.prompt();
        }}
      >
        Put it there
      </InlineButton>{" "}
      <InlineButton onPress={close}>No, thank you</InlineButton>
    </Notice>
  );
}

/** Days on which it was opened on this device, today included. */
function countDays(): number {
  const today = new Date().toDateString();
  const kept = (localStorage.getItem(DAYS_KEY) ?? "").split(";").filter(Boolean);
  const days = [...new Set([...kept, today])].slice(-2);
  localStorage.setItem(DAYS_KEY, days.join(";"));
  return days.length;
}

const Notice = styled.p`
  margin: 0;
  padding: 6px 26px;
  background: var(--reed-fill);
`;
