import { useSyncExternalStore } from "react";

const query = window.matchMedia("(max-width: 720px)");

/** Whether the window is as narrow as a phone. */
export function usePhone(): boolean {
  return useSyncExternalStore(
    (changed) => {
      query.addEventListener("change", changed);
      return () => {
        query.removeEventListener("change", changed);
      };
    },
    () => query.matches,
  );
}
