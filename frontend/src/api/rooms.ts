/** Queries on fish rooms. */
import { keepPreviousData, queryOptions, useQuery } from "@tanstack/react-query";
import { ask, client, ProblemError } from "./client";
import { useSettled } from "./compute";
import type { RoomPlan, RoomView } from "./schemas";

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
