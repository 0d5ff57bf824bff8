/** Queries on fish rooms. */
import { keepPreviousData, queryOptions, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { ask, client, ProblemError } from "./client";
import { nowDate } from "./clock";
import { useSettled } from "./compute";
import { replaceData } from "./replaceData";
import type { RoomPlan, RoomView, RoundHabits, RoundView } from "./schemas";

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

/** The broods of all tanks on one board. */
export function useBroods() {
  return useQuery({ queryKey: ["broods"], queryFn: () => ask(client.GET("/api/broods")) });
}

/** Labels of a room's tanks, with their codes. */
export function useLabels(roomId: number) {
  return useQuery({
    queryKey: ["labels", roomId],
    queryFn: () => ask(client.GET("/api/rooms/{room_id}/labels", { params: { path: { room_id: roomId } } })),
  });
}

/** The day on this device, as the API writes it. */
function todayHere(): string {
  const now = nowDate();
  return [now.getFullYear(), now.getMonth() + 1, now.getDate()]
    .map((n) => String(n).padStart(2, "0"))
    .join("-");
}

/** The round of a room: taken on, or as it would be. */
export function useRound(roomId: number) {
  const today = todayHere();
  return useQuery<RoundView, ProblemError>({
    queryKey: ["round", roomId, today],
    queryFn: () =>
      ask(
        client.GET("/api/rooms/{room_id}/round", { params: { path: { room_id: roomId }, query: { today } } }),
      ),
  });
}

/** The week with other habits; not fetched while they equal the saved ones. */
export function useRoundWith(roomId: number, habits: RoundHabits, changed: boolean) {
  const text = useSettled(JSON.stringify(habits), 80);
  const today = todayHere();
  return useQuery<RoundView, ProblemError>({
    queryKey: ["round", "as typed", roomId, today, text],
    queryFn: ({ signal }) =>
      ask(
        client.POST("/api/rooms/{room_id}/round/view", {
          params: { path: { room_id: roomId } },
          body: { today, habits: JSON.parse(text) as RoundHabits },
          signal,
        }),
      ),
    enabled: changed,
    placeholderData: keepPreviousData,
    retry: false,
  });
}

/** Take this week's round on, or give it back. */
export function useTakeRound(roomId: number) {
  const queries = useQueryClient();
  return useMutation<RoundView, ProblemError, { habits: RoundHabits; take: boolean }>({
    mutationFn: (body) =>
      ask(
        client.PUT("/api/rooms/{room_id}/round", {
          params: { path: { room_id: roomId } },
          body: { ...body, today: todayHere() },
        }),
      ),
    onSuccess: (view) => {
      replaceData(queries, ["round", roomId, todayHere()], view);
      // Its plan has a new version.
      void queries.invalidateQueries({ queryKey: ["rooms"] });
    },
  });
}
