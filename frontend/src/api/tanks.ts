/** Queries on tanks: list, today, calendar, one tank, cycle, logbook, keep, shopping list. */
import { keepPreviousData, queryOptions, useInfiniteQuery, useQuery } from "@tanstack/react-query";
import { ask, client } from "./client";

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
