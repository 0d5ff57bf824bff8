/** The shelf, the counter and the pages of the kinds. */
import { keepPreviousData, queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask, client, postText, ProblemError } from "./client";
import { replaceData } from "./replaceData";
import { useSettled } from "./compute";
import { newKey } from "./outbox";
import type { BoxesPut, CounterAnswer, CounterQuestion, Shelf, ShelfBox, ShelfItem } from "./schemas";

const shelfOptions = queryOptions({
  queryKey: ["shelf"],
  queryFn: () => ask(client.GET("/api/shelf")),
});

export function useShelf() {
  return useQuery(shelfOptions);
}

/** Refetches what speaks of the shelf after it changed. */
function useShelfChanged() {
  const queries = useQueryClient();
  return async () => {
    await queries.invalidateQueries({ queryKey: ["shelf"] });
    await queries.invalidateQueries({ queryKey: ["view"] });
  };
}

export function usePutBoxes() {
  const onSuccess = useShelfChanged();
  return useMutation<BoxesPut, ProblemError, ShelfBox[]>({
    mutationFn: (boxes) =>
      ask(
        client.POST("/api/shelf", {
          body: { boxes: boxes.map((box) => ({ key: newKey(), box })) },
        }),
      ),
    onSuccess,
  });
}

export function useSaveBox() {
  const onSuccess = useShelfChanged();
  return useMutation<ShelfItem, ProblemError, ShelfItem>({
    mutationFn: ({ id, box }) =>
      ask(client.PUT("/api/shelf/{box_id}", { params: { path: { box_id: id } }, body: box })),
    onSuccess,
  });
}

export function useRemoveBox() {
  const onSuccess = useShelfChanged();
  return useMutation<Shelf, ProblemError, number>({
    mutationFn: (id) => ask(client.DELETE("/api/shelf/{box_id}", { params: { path: { box_id: id } } })),
    onSuccess,
  });
}

/** Address of a box's picture. digest: of it, so that a replaced one is fetched anew. */
export function boxPictureOf(id: number, digest: string, size: "small" | "full"): string {
  return `/api/shelf/${id}/photo.jpg?size=${size}&v=${digest.slice(0, 12)}`;
}

/** Takes the photograph of a box away. */
export function useRemoveBoxPhoto(id: number) {
  const queries = useQueryClient();
  return useMutation<Shelf, ProblemError>({
    mutationFn: () => ask(client.DELETE("/api/shelf/{box_id}/photo", { params: { path: { box_id: id } } })),
    onSuccess: (shelf) => {
      replaceData(queries, ["shelf"], shelf);
    },
  });
}

export function useImportBoxes() {
  const onSuccess = useShelfChanged();
  return useMutation<ShelfItem[], ProblemError, string>({
    mutationFn: async (text) => ((await postText("/api/shelf.csv", text)) as { items: ShelfItem[] }).items,
    onSuccess,
  });
}

export function useShownShelf(token: string) {
  return useQuery({
    queryKey: ["shown-shelf", token],
    queryFn: () => ask(client.GET("/api/shelf/shown/{token}", { params: { path: { token } } })),
    retry: false,
  });
}

/** The counter's answer, refetched as the question changes; null asks nothing. */
export function useCounter(question: CounterQuestion | null) {
  const text = useSettled(JSON.stringify(question), 60);
  return useQuery<CounterAnswer, ProblemError>({
    queryKey: ["counter", text],
    queryFn: ({ signal }) =>
      ask(client.POST("/api/counter", { body: JSON.parse(text) as CounterQuestion, signal })),
    enabled: text !== "null",
    placeholderData: keepPreviousData,
    retry: false,
  });
}

export function useKinds() {
  return useQuery({
    queryKey: ["kinds"],
    queryFn: () => ask(client.GET("/api/compute/kinds")),
    staleTime: Infinity,
  });
}
