import { useSyncExternalStore } from "react";

/** Whether the window is as narrow as a phone. */
export const usePhone = windowUpTo(45);
/** Whether drawing and work are stacked. */
export const useNarrow = windowUpTo(66.25);

/** widthEm: in the browser's own text size, so that large text is laid out as on a small window. */
function windowUpTo(widthEm: number): () => boolean {
  const query = window.matchMedia(`(max-width: ${widthEm}em)`);
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
