import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { ProblemError } from "../api/client";
import { refresh, sendEntry } from "../api/hooks";
import { held, release } from "../api/outbox";

/** Sends what was held without a connection: at the start, when the network returns, and every half minute. */
export function useOutbox(signedIn: boolean): void {
  const queries = useQueryClient();
  useEffect(() => {
    // Before the session is known there is no token to send with.
    if (!signedIn) return;
    let busy = false;
    const send = async () => {
      if (busy) return;
      busy = true;
      for (const { tankId, entry } of held()) {
        try {
          await sendEntry(tankId, entry);
          release(entry.key);
          await refresh(queries, tankId);
        } catch (error) {
          // Off line, signed out or paused: keep it. Refused for good: it can never be sent, so let it go.
          const status = error instanceof ProblemError ? error.status : 0;
          if (status === 404 || status === 422) release(entry.key);
          else break;
        }
      }
      busy = false;
    };
    const again = () => void send();
    again();
    window.addEventListener("online", again);
    const timer = setInterval(again, 30_000);
    return () => {
      window.removeEventListener("online", again);
      clearInterval(timer);
    };
  }, [queries, signedIn]);
}
