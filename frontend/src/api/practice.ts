/** Practice: lessons, the clock of a practice tank, its vials, and the page at the end. */
import { createContext, useContext } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask, client, ProblemError } from "./client";
import { replaceData } from "./replaceData";
import { settled } from "./outbox";
import type { components } from "./types";

type Schemas = components["schemas"];
export type Practice = Schemas["PracticeOut"];
export type Lesson = Schemas["LessonOut"];
export type EndOfLesson = Schemas["EndPage"];
export type Passed = Schemas["Jump"];
export type Until = Schemas["PassTime"]["until"];
export type Jugful = Schemas["Jugful"];
export type Vials = Schemas["Vials"];
type Settings = Schemas["SetTank"];

/** The practice tank that is open; null on a real one. */
export const PracticeTank = createContext<Practice | null>(null);

export function usePracticeTank(): Practice | null {
  return useContext(PracticeTank);
}

/** Pause between two looks at whether the clock of a class is stopped, ms. */
const CLASS_LOOK_MS = 4000;
const pathOf = (tankId: number) => ({ path: { tank_id: tankId } });

export function useLessons() {
  return useQuery({ queryKey: ["lessons"], queryFn: () => ask(client.GET("/api/practice/lessons")) });
}

export function usePractice(tankId: number) {
  return useQuery({
    queryKey: ["practice", tankId],
    queryFn: () => ask(client.GET("/api/practice/tanks/{tank_id}", { params: pathOf(tankId) })),
    // In a class the teacher may stop the clock.
    refetchInterval: ({ state }) => (state.data?.of_class ? CLASS_LOOK_MS : false),
  });
}

/** What the kit, or a borrowed one, shows at the moment the clock stands at. */
export function useVials(tankId: number, enabled: boolean, other: boolean) {
  return useQuery({
    queryKey: ["vials", tankId, other],
    queryFn: () =>
      ask(
        client.GET("/api/practice/tanks/{tank_id}/vials", {
          params: { path: { tank_id: tankId }, query: { other } },
        }),
      ),
    enabled,
    gcTime: 0,
    staleTime: 0,
  });
}

/** A jug held under one outlet of a practice tank, three times. */
export function useJug(tankId: number, filterKey: string) {
  return useMutation<Jugful | undefined, ProblemError>({
    mutationFn: async () => {
      await storedFirst(tankId);
      const { jugs } = await ask(
        client.GET("/api/practice/tanks/{tank_id}/jugs", { params: pathOf(tankId) }),
      );
      return jugs.find((jug) => jug.filter_key === filterKey);
    },
  });
}

export function useEndOfLesson(tankId: number) {
  return useQuery({
    queryKey: ["end", tankId],
    queryFn: () => ask(client.GET("/api/practice/tanks/{tank_id}/end", { params: pathOf(tankId) })),
    retry: false,
  });
}

/** Begin a lesson on a tank of its own. */
export function useBeginLesson() {
  const queries = useQueryClient();
  return useMutation<Practice, ProblemError, { lesson: string; coach?: Practice["coach"]; tank_id?: number }>(
    {
      mutationFn: (body) => ask(client.POST("/api/practice/tanks", { body })),
      onSuccess: () => queries.invalidateQueries({ queryKey: ["lessons"] }),
    },
  );
}

/** What was written down counts from before time passes: it is stored first. */
async function storedFirst(tankId: number): Promise<void> {
  if (await settled(tankId)) return;
  throw new ProblemError(
    0,
    "Not stored yet",
    "What you wrote down has not reached the server. Let time pass once it has.",
  );
}

/** A practice tank and those side by side with it, which live by one clock. */
function allOf(practice: Practice): number[] {
  return practice.beside.length > 0 ? practice.beside.map((one) => one.tank_id) : [practice.tank_id];
}

/** Where a lesson begins that was just made: at the first of its tanks. */
export function beginsAt({ tank_id, beside, lesson }: Practice): string {
  return `/tanks/${tank_id}/${beside[0]?.opens ?? lesson.opens}`;
}

export function usePassTime(of: Practice) {
  const tankId = of.tank_id;
  const queries = useQueryClient();
  return useMutation<Schemas["Passed"], ProblemError, Until>({
    mutationFn: async (until) => {
      await Promise.all(allOf(of).map(storedFirst));
      return ask(
        client.POST("/api/practice/tanks/{tank_id}/pass", { params: pathOf(tankId), body: { until } }),
      );
    },
    onSuccess: async ({ practice }) => {
      replaceData(queries, ["practice", tankId], practice);
      const every = allOf(practice);
      every.forEach((one) => {
        queries.removeQueries({ queryKey: ["vials", one] });
      });
      await queries.invalidateQueries({
        predicate: ({ queryKey }) => every.some((one) => queryKey.includes(one)),
      });
    },
  });
}

export function useSetPractice(tankId: number) {
  const queries = useQueryClient();
  return useMutation<Practice, ProblemError, Settings>({
    mutationFn: (body) =>
      ask(client.POST("/api/practice/tanks/{tank_id}/settings", { params: pathOf(tankId), body })),
    onSuccess: (practice) => {
      replaceData(queries, ["practice", tankId], practice);
    },
  });
}

export function useEndLesson(of: Practice) {
  const tankId = of.tank_id;
  const queries = useQueryClient();
  return useMutation<EndOfLesson, ProblemError>({
    mutationFn: async () => {
      await Promise.all(allOf(of).map(storedFirst));
      return ask(client.POST("/api/practice/tanks/{tank_id}/end", { params: pathOf(tankId) }));
    },
    onSuccess: async (page) => {
      replaceData(queries, ["end", tankId], page);
      await queries.invalidateQueries({ queryKey: ["lessons"] });
    },
  });
}
