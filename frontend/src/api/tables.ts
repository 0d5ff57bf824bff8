/** Reference tables and form defaults. */
import { queryOptions, useQuery } from "@tanstack/react-query";
import { ask, client } from "./client";
import type { FormDefaults, Tables } from "./schemas";

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
