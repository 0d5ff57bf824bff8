/** The signed-in session, and the state it sets for the page. */
import { queryOptions, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask, client, rememberSession } from "./client";
import { replaceData } from "./replaceData";
import { ownOutbox } from "./outbox";
import { chooseUnits } from "./units";
import type { SessionState } from "./schemas";

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
    replaceData(queries, ["session"], state);
  };
}
