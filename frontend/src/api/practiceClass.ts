/** Classes on a practice lesson: opened and led by a teacher, joined with a code. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask, client, type ProblemError } from "./client";
import type { components } from "./types";

type Schemas = components["schemas"];
export type Board = Schemas["Board"];
export type Learner = Schemas["Learner"];
export type ClassOut = Schemas["ClassOut"];
type Control = Schemas["Control"];
export type MishapKind = NonNullable<Control["mishap"]>;

/** Pause between two looks at a board, ms. */
const LOOK_EVERY_MS = 3000;
const pathOf = (classId: number) => ({ path: { class_id: classId } });

export function useClasses() {
  return useQuery({ queryKey: ["classes"], queryFn: () => ask(client.GET("/api/practice/classes")) });
}

export function useOpenClass() {
  const queries = useQueryClient();
  return useMutation<ClassOut, ProblemError, Schemas["OpenClass"]>({
    mutationFn: (body) => ask(client.POST("/api/practice/classes", { body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["classes"] }),
  });
}

export function useBoard(classId: number) {
  return useQuery({
    queryKey: ["class", classId],
    queryFn: () => ask(client.GET("/api/practice/classes/{class_id}", { params: pathOf(classId) })),
    refetchInterval: LOOK_EVERY_MS,
  });
}

export function useControl(classId: number) {
  const queries = useQueryClient();
  return useMutation<Schemas["Controlled"], ProblemError, Control>({
    mutationFn: (body) =>
      ask(client.POST("/api/practice/classes/{class_id}", { params: pathOf(classId), body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["class", classId] }),
  });
}

export function useCloseClass(classId: number) {
  const queries = useQueryClient();
  return useMutation<Schemas["Closed"], ProblemError>({
    mutationFn: () => ask(client.DELETE("/api/practice/classes/{class_id}", { params: pathOf(classId) })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ["classes"] }),
  });
}

/** A learner's whole course, once the class is uncovered. */
export function useCourse(classId: number, seatId: number | null) {
  return useQuery({
    queryKey: ["class", classId, seatId],
    queryFn: () =>
      ask(
        client.GET("/api/practice/classes/{class_id}/learners/{seat_id}", {
          params: { path: { class_id: classId, seat_id: seatId ?? 0 } },
        }),
      ),
    enabled: seatId !== null,
  });
}

export function useClassByCode(code: string) {
  return useQuery({
    queryKey: ["join", code],
    queryFn: () => ask(client.GET("/api/practice/join/{code}", { params: { path: { code } } })),
    retry: false,
  });
}

export function joinClass(code: string, name: string): Promise<Schemas["Joined"]> {
  return ask(client.POST("/api/practice/join/{code}", { params: { path: { code } }, body: { name } }));
}
