/** Named computations and stage views, refetched as their input changes. */
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { ask, client, compute, ProblemError } from "./client";
import type {
  CycleStartView,
  AnswerOf,
  ComputeName,
  Draft,
  FilterView,
  FitView,
  QuestionOf,
  StockView,
  TankView,
} from "./schemas";

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
