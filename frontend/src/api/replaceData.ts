import type { QueryClient, QueryKey } from "@tanstack/react-query";

/**
 * Put the answer of a change in a query's place, at once. A fetch that began before the change is cancelled: its
 * older answer would overwrite this one.
 */
export function replaceData(queries: QueryClient, queryKey: QueryKey, data: unknown): void {
  queries.setQueryData(queryKey, data);
  void queries.cancelQueries({ queryKey, exact: true });
}
