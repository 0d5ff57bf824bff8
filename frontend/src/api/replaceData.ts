import type { InvalidateQueryFilters, QueryClient, QueryKey } from "@tanstack/react-query";

/**
 * Put the answer of a change in a query's place, at once. A fetch that began before the change is cancelled: its
 * older answer would overwrite this one.
 */
export function replaceData(queries: QueryClient, queryKey: QueryKey, data: unknown): void {
  queries.setQueryData(queryKey, data);
  void queries.cancelQueries({ queryKey, exact: true });
}

/**
 * Fetch anew what a change may have changed. A fetch under way that nothing on screen waits for is cancelled first: its
 * older answer would be taken for a fresh one when its page opens.
 */
export async function invalidate(queries: QueryClient, filters: InvalidateQueryFilters = {}): Promise<void> {
  await queries.cancelQueries({ ...filters, type: "inactive" });
  await queries.invalidateQueries(filters);
}
