/** Writing logbook entries, online and offline. */
import { nowDate } from "./clock";
import { useIsFetching, useMutation, useQueryClient } from "@tanstack/react-query";
import { useSyncExternalStore } from "react";
import { ask, client, ProblemError } from "./client";
import { hold, held, holdWhileSending, newKey, release, subscribe } from "./outbox";
import { invalidate } from "./replaceData";
import type { Body, Entry, NewEntry } from "./schemas";

interface Writing {
  body: Body;
  at?: string;
  basedOn?: number | null;
  supersedes?: number;
}

/** Write an entry. Offline it is stored in the outbox and sent later, exactly once. */
export function useWrite(tankId: number) {
  const queries = useQueryClient();
  return useMutation<Entry | "held", ProblemError, Writing>({
    mutationFn: async ({ body, at, basedOn, supersedes }) => {
      const entry: NewEntry = {
        key: newKey(),
        at: at ?? nowDate().toISOString(),
        body,
        based_on: basedOn ?? null,
        supersedes: supersedes ?? null,
      };
      // A plan is saved over what its page shows; sent later it might overwrite a newer one.
      if (body.kind.endsWith("-plan")) return sendEntry(tankId, entry);
      return sendOrHold(tankId, entry);
    },
    // Offline there is nothing to refetch, and waiting would leave the typed line in its field.
    onSuccess: (entry) => (entry === "held" ? undefined : refresh(queries, tankId)),
  });
}

/** Send an entry; offline it stays on this device. */
async function sendOrHold(tankId: number, entry: NewEntry): Promise<Entry | "held"> {
  holdWhileSending(tankId, entry);
  try {
    const written = await sendEntry(tankId, entry);
    release(entry.key);
    return written;
  } catch (error) {
    if (error instanceof ProblemError && error.offline) {
      hold(tankId, entry);
      return "held";
    }
    release(entry.key);
    throw error;
  }
}

/** Write one entry in each of several tanks, one after the other; offline each is stored and sent later. */
export function useWriteAlong() {
  const queries = useQueryClient();
  return useMutation<null, ProblemError, { tankId: number; body: Body }[]>({
    mutationFn: async (several) => {
      const at = nowDate().toISOString();
      const entries = several.map(({ tankId, body }) => ({ tankId, entry: { key: newKey(), at, body } }));
      for (const { tankId, entry } of entries) await sendOrHold(tankId, entry);
      return null;
    },
    onSettled: (_done, _error, several) =>
      Promise.all([...new Set(several.map((one) => one.tankId))].map((tankId) => refresh(queries, tankId))),
  });
}

/** Screens that say what is to be done, by the first part of their keys. */
const ADVISING: readonly unknown[] = ["cycle", "view", "today"];

/** For so long what is kept on this device counts as done: what comes back sooner is not advised. */
const KEPT_MS = 6 * 3_600_000;

/**
 * A write behind one press of *Done*. `busy` until what the screen says knows of it: what stands there meanwhile is
 * what was done, and a second press would do it twice. `kept` of a body that waits on this device to be sent: until
 * then the screen cannot know of it.
 */
export function useDone(tankId: number) {
  const write = useWrite(tankId);
  const advising = useIsFetching({
    predicate: ({ queryKey }) =>
      ADVISING.includes(queryKey[0]) && (queryKey[0] === "today" || queryKey.includes(tankId)),
  });
  const waiting = useSyncExternalStore(subscribe, held);
  const kept = (...bodies: Body[]) => {
    const asked = bodies.map((body) => JSON.stringify(body));
    const since = nowDate().getTime() - KEPT_MS;
    return waiting.some(
      (h) =>
        h.tankId === tankId &&
        h.refused === undefined &&
        new Date(h.entry.at).getTime() > since &&
        asked.includes(JSON.stringify(h.entry.body)),
    );
  };
  return { ...write, kept, busy: write.isPending || (write.isSuccess && advising > 0) };
}

export function sendEntry(tankId: number, entry: NewEntry): Promise<Entry> {
  return ask(
    client.POST("/api/tanks/{tank_id}/entries", { params: { path: { tank_id: tankId } }, body: entry }),
  );
}

/** Write one entry to many tanks, all or none. */
export function useWriteMany() {
  const queries = useQueryClient();
  return useMutation<{ entries: Entry[] }, ProblemError, { tankIds: number[]; body: Body }>({
    mutationFn: ({ tankIds, body }) =>
      ask(
        client.POST("/api/entries/many", {
          body: { key: newKey(), at: new Date().toISOString(), tank_ids: tankIds, body },
        }),
      ),
    onSuccess: () => invalidate(queries),
  });
}

/** Restore an older plan as the newest. */
export function useAgain(tankId: number) {
  const queries = useQueryClient();
  return useMutation<Entry, ProblemError, number>({
    mutationFn: (entryId) =>
      ask(
        client.POST("/api/tanks/{tank_id}/entries/{entry_id}/again", {
          params: { path: { tank_id: tankId, entry_id: entryId } },
          body: { key: newKey() },
        }),
      ),
    onSuccess: () => refresh(queries, tankId),
  });
}

/** Invalidate every query a new entry can change. */
export async function refresh(queries: ReturnType<typeof useQueryClient>, tankId: number): Promise<void> {
  void invalidate(queries, { queryKey: ["tanks"] });
  void invalidate(queries, { queryKey: ["today"] });
  void invalidate(queries, { queryKey: ["round"] });
  void invalidate(queries, { queryKey: ["rooms"] });
  void invalidate(queries, { queryKey: ["entries", tankId] });
  void invalidate(queries, { queryKey: ["cycle", tankId] });
  void invalidate(queries, { queryKey: ["view", tankId] });
  await invalidate(queries, { queryKey: ["tank", tankId] });
}
