import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { ProblemError } from "./client";
import { refresh, sendEntry } from "./entries";
import { held, mark, release, subscribe, type Held } from "./outbox";

/** Entries of this account still on this device. */
export function useHeld(): Held[] {
  return useSyncExternalStore(subscribe, held);
}

/** Send stored entries: at the start, when the network returns, and every half minute. */
export function useOutbox(signedIn: boolean): void {
  const queries = useQueryClient();
  const waiting = useHeld().filter((h) => h.refused === undefined).length;
  useEffect(() => {
    // Before the session is known there is no token to send with.
    if (!signedIn || !waiting) return;
    let busy = false;
    const send = async () => {
      if (busy) return;
      busy = true;
      for (const { tankId, entry, refused } of held()) {
        if (refused !== undefined) continue;
        try {
          await sendEntry(tankId, entry);
          release(entry.key);
          await refresh(queries, tankId);
        } catch (error) {
          const said = error instanceof ProblemError ? error : null;
          // Rejected for good: it stays, shown with the reason. Offline, signed out or paused: later, in order.
          if (said && [404, 409, 422].includes(said.status)) mark(entry.key, said.detail);
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
  }, [queries, signedIn, waiting]);
}
