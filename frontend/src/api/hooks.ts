/** Server state: session, tables, tanks, computations, and logbook entries. */
import {
  keepPreviousData,
  queryOptions,
  useInfiniteQuery,
  useMutation,
  useQuery,
  useQueryClient,
} from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { ask, client, compute, ProblemError, rememberSession } from "./client";
import { hold, newKey, ownOutbox } from "./outbox";
import { chooseUnits } from "../quantity/shown";
import type {
  CycleStartView,
  RoomPlan,
  RoomView,
  AnswerOf,
  FormDefaults,
  Body,
  ComputeName,
  Draft,
  Entry,
  FilterView,
  FitView,
  NewEntry,
  QuestionOf,
  SessionState,
  StockView,
  Tables,
  TankView,
} from "./schemas";

/** Apply a session to the page: token, units, outbox owner. */
function takeOver(state: SessionState): void {
  ownOutbox(state.email);
  rememberSession(state);
  chooseUnits(state);
}

/** Whether data comes from the persisted cache: shown at once, and fetched again. */
export function isKept(state: { dataUpdatedAt: number }): boolean {
  return state.dataUpdatedAt > 0 && state.dataUpdatedAt < performance.timeOrigin;
}

export const sessionOptions = queryOptions({
  queryKey: ["session"],
  queryFn: () => ask(client.GET("/api/session")),
});

export function useSession() {
  return useQuery({
    ...sessionOptions,
    // A persisted session is applied as well as a fetched one, and refetched at each visit.
    select: (state) => {
      takeOver(state);
      return state;
    },
    staleTime: 60_000,
    refetchOnMount: ({ state }) => isKept(state) && "always",
  });
}

/** Apply the session of an account response, and clear the previous keeper's data. */
export function useEnter() {
  const queries = useQueryClient();
  return (state: SessionState) => {
    takeOver(state);
    queries.removeQueries({ predicate: (q) => q.queryKey[0] !== "session" && q.queryKey[0] !== "tables" });
    queries.setQueryData(["session"], state);
  };
}

export const tablesOptions = queryOptions({
  queryKey: ["tables"],
  queryFn: () => ask(client.GET("/api/compute")),
  staleTime: Infinity,
});

export function useTables() {
  return useQuery(tablesOptions);
}

/** The tables, which are loaded before any stage. */
export function useLoadedTables(): Tables {
  const { data } = useTables();
  if (!data) throw new Error("The tables are loaded before a stage is shown.");
  return data;
}

/** Initial values of forms. */
export function useBlanks(): FormDefaults {
  return useLoadedTables().form_defaults;
}

export function useTanks() {
  return useQuery({ queryKey: ["tanks"], queryFn: () => ask(client.GET("/api/tanks")) });
}

export const todayOptions = queryOptions({
  queryKey: ["today"],
  queryFn: () => ask(client.GET("/api/today")),
});

export function useToday() {
  return useQuery(todayOptions);
}

/** Due tasks of all tanks over the coming weeks. */
export function useAhead() {
  return useQuery({ queryKey: ["ahead"], queryFn: () => ask(client.GET("/api/ahead")) });
}

export function tankOptions(tankId: number) {
  return queryOptions({
    queryKey: ["tank", tankId],
    queryFn: () => ask(client.GET("/api/tanks/{tank_id}", { params: { path: { tank_id: tankId } } })),
  });
}

export function useTank(tankId: number) {
  return useQuery(tankOptions(tankId));
}

export function useCycle(tankId: number) {
  return useQuery({
    queryKey: ["cycle", tankId],
    queryFn: () => ask(client.GET("/api/tanks/{tank_id}/cycle", { params: { path: { tank_id: tankId } } })),
    placeholderData: keepPreviousData,
  });
}

export function useEntries(tankId: number) {
  return useQuery({
    queryKey: ["entries", tankId],
    queryFn: () =>
      ask(
        client.GET("/api/tanks/{tank_id}/entries", {
          params: { path: { tank_id: tankId }, query: { limit: 200 } },
        }),
      ),
  });
}

/** Logbook entries by page, newest first, filtered by kind or text. */
export function useLogbookPages(tankId: number, { kind, search }: { kind: string; search: string }) {
  return useInfiniteQuery({
    queryKey: ["entries", tankId, kind, search],
    queryFn: ({ pageParam }) =>
      ask(
        client.GET("/api/tanks/{tank_id}/entries", {
          params: {
            path: { tank_id: tankId },
            query: { limit: 100, before: pageParam, kind: kind || undefined, search: search || undefined },
          },
        }),
      ),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (last) => last.next_before ?? undefined,
    placeholderData: keepPreviousData,
  });
}

/** `value`, debounced by `delayMs`. */
export function useSettled<T>(value: T, delayMs: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => {
      setSettled(value);
    }, delayMs);
    return () => {
      clearTimeout(timer);
    };
  }, [value, delayMs]);
  return settled;
}

/** The answer of a named computation, refetched as the question changes; null asks nothing. */
export function useCompute<N extends ComputeName>(name: N, question: QuestionOf<N> | null) {
  const text = useSettled(JSON.stringify(question), 60);
  return useQuery<AnswerOf<N>, ProblemError>({
    queryKey: ["compute", name, text],
    queryFn: ({ signal }) => compute(name, JSON.parse(text) as QuestionOf<N>, signal),
    enabled: text !== "null",
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
}

const VIEWS = {
  begin: (tankId: number, draft: Draft, signal: AbortSignal): Promise<CycleStartView> =>
    ask(
      client.POST("/api/tanks/{tank_id}/views/begin", {
        params: { path: { tank_id: tankId } },
        body: draft,
        signal,
      }),
    ),
  tank: (tankId: number, draft: Draft, signal: AbortSignal): Promise<TankView> =>
    ask(
      client.POST("/api/tanks/{tank_id}/views/tank", {
        params: { path: { tank_id: tankId } },
        body: draft,
        signal,
      }),
    ),
  stock: (tankId: number, draft: Draft, signal: AbortSignal): Promise<StockView> =>
    ask(
      client.POST("/api/tanks/{tank_id}/views/stock", {
        params: { path: { tank_id: tankId } },
        body: draft,
        signal,
      }),
    ),
  filter: (tankId: number, draft: Draft, signal: AbortSignal): Promise<FilterView> =>
    ask(
      client.POST("/api/tanks/{tank_id}/views/filter", {
        params: { path: { tank_id: tankId } },
        body: draft,
        signal,
      }),
    ),
  fit: (tankId: number, draft: Draft, signal: AbortSignal): Promise<FitView> =>
    ask(
      client.POST("/api/tanks/{tank_id}/views/fit", {
        params: { path: { tank_id: tankId } },
        body: draft,
        signal,
      }),
    ),
};
type ViewOf<S extends keyof typeof VIEWS> = Awaited<ReturnType<(typeof VIEWS)[S]>>;

/** A stage view with the draft applied; refetched as the draft changes. */
export function useView<S extends keyof typeof VIEWS>(tankId: number, stage: S, draft: Draft) {
  const text = useSettled(JSON.stringify(draft), 60);
  return useQuery<ViewOf<S>, ProblemError>({
    queryKey: ["view", tankId, stage, text],
    queryFn: ({ signal }) => VIEWS[stage](tankId, JSON.parse(text) as Draft, signal) as Promise<ViewOf<S>>,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** State while the first answer is loading; without a connection cached data is shown at once. */
export function opening(
  asked: { isPending: boolean; fetchStatus: string },
  words: string,
): string | undefined {
  return asked.isPending && asked.fetchStatus === "fetching" ? words : undefined;
}

/** The valid answer: none once the newest question was rejected; the last one while offline. */
export function standing<T>(asked: { data: T | undefined; error: unknown }): T | undefined {
  const away = asked.error instanceof ProblemError && asked.error.offline;
  return asked.error && !away ? undefined : asked.data;
}

export function useKeep(tankId: number) {
  return useQuery({
    queryKey: ["view", tankId, "keep"],
    queryFn: () =>
      ask(client.GET("/api/tanks/{tank_id}/views/keep", { params: { path: { tank_id: tankId } } })),
  });
}

export function useBuying(tankId: number) {
  return useQuery({
    queryKey: ["view", tankId, "buying"],
    queryFn: () => ask(client.GET("/api/tanks/{tank_id}/buying", { params: { path: { tank_id: tankId } } })),
    retry: false,
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
        at: at ?? new Date().toISOString(),
        body,
        based_on: basedOn ?? null,
        supersedes: supersedes ?? null,
      };
      try {
        return await sendEntry(tankId, entry);
      } catch (error) {
        const plan = body.kind.endsWith("-plan");
        if (error instanceof ProblemError && error.offline && !plan) {
          hold(tankId, entry);
          return "held";
        }
        throw error;
      }
    },
    // Offline there is nothing to refetch, and waiting would leave the typed line in its field.
    onSuccess: (entry) => (entry === "held" ? undefined : refresh(queries, tankId)),
  });
}

export function sendEntry(tankId: number, entry: NewEntry): Promise<Entry> {
  return ask(
    client.POST("/api/tanks/{tank_id}/entries", { params: { path: { tank_id: tankId } }, body: entry }),
  );
}

export const roomsOptions = queryOptions({
  queryKey: ["rooms"],
  queryFn: () => ask(client.GET("/api/rooms")),
});

export function useRooms() {
  return useQuery(roomsOptions);
}

export function useRoom(roomId: number) {
  return useQuery({
    queryKey: ["rooms", roomId],
    queryFn: () => ask(client.GET("/api/rooms/{room_id}", { params: { path: { room_id: roomId } } })),
  });
}

/** Board and air with the plan on screen; not fetched while it equals the saved one. */
export function useRoomView(roomId: number, plan: RoomPlan, changed: boolean) {
  const text = useSettled(JSON.stringify(plan), 80);
  return useQuery<RoomView, ProblemError>({
    queryKey: ["view", "room", roomId, text],
    queryFn: ({ signal }) =>
      ask(
        client.POST("/api/rooms/{room_id}/view", {
          params: { path: { room_id: roomId } },
          body: JSON.parse(text) as RoomPlan,
          signal,
        }),
      ),
    enabled: changed,
    placeholderData: keepPreviousData,
    retry: false,
  });
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
    onSuccess: () => queries.invalidateQueries(),
  });
}

/** Invalidate every query a new entry can change. */
export async function refresh(queries: ReturnType<typeof useQueryClient>, tankId: number): Promise<void> {
  void queries.invalidateQueries({ queryKey: ["tanks"] });
  void queries.invalidateQueries({ queryKey: ["today"] });
  void queries.invalidateQueries({ queryKey: ["entries", tankId] });
  void queries.invalidateQueries({ queryKey: ["cycle", tankId] });
  void queries.invalidateQueries({ queryKey: ["view", tankId] });
  await queries.invalidateQueries({ queryKey: ["tank", tankId] });
}
