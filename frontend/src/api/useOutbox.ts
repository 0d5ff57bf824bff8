import { useQueryClient, type QueryClient } from "@tanstack/react-query";
import { useEffect, useSyncExternalStore } from "react";
import { ProblemError } from "./client";
import { refresh, sendEntry } from "./entries";
import { held, mark, release, subscribe, type Held } from "./outbox";

/** Entries of this account still on this device. */
export function useHeld(): Held[] {
  return useSyncExternalStore(subscribe, held);
}

/** One loop sends, whatever is stored or released meanwhile. */
let sending = false;

async function send(queries: QueryClient): Promise<void> {
  if (sending) return;
  sending = true;
  const next = () => held().find((h) => h.refused === undefined);
  try {
    for (let first = next(); first; first = next()) {
      const { tankId, entry } = first;
      try {
        await sendEntry(tankId, entry);
      } catch (error) {
        const said = error instanceof ProblemError ? error : null;
        // Offline, signed out or paused: later, in order. Rejected for good: it stays, shown with the reason.
        if (!said || ![404, 409, 422].includes(said.status)) return;
        mark(entry.key, said.detail);
        continue;
      }
      release(entry.key);
      await refresh(queries, tankId);
    }
  } finally {
    sending = false;
  }
}

/** Send stored entries: at the start, when the network returns, and every half minute. */
export function useOutbox(signedIn: boolean): void {
  const queries = useQueryClient();
  const waiting = useHeld().filter((h) => h.refused === undefined).length;
  useEffect(() => {
    // Before the session is known there is no token to send with.
    if (!signedIn || !waiting) return;
    const again = () => void send(queries);
    again();
    window.addEventListener("online", again);
    const timer = setInterval(again, 30_000);
    return () => {
      window.removeEventListener("online", again);
      clearInterval(timer);
    };
  }, [queries, signedIn, waiting]);
}
