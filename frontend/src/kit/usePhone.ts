import { useSyncExternalStore } from "react";

/** Whether the window is as narrow as a phone. */
export const usePhone = windowUpTo(720);
/** Whether drawing and work are stacked. */
export const useNarrow = windowUpTo(1060);

function windowUpTo(widthPx: number): () => boolean {
  const query = window.matchMedia(`(max-width: ${widthPx}px)`);
  return () =>
    useSyncExternalStore(
      (changed) => {
        query.addEventListener("change", changed);
        return () => {
          query.removeEventListener("change", changed);
        };
      },
      () => query.matches,
    );
}
