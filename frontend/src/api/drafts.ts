/** What is typed into a plan and not yet saved: kept on this device through reloads and second tabs. */
import { useCallback, useEffect, useState } from "react";

interface Shelf<T> {
  value: T;
  basedOn: number | null;
}

export interface Draft<T> {
  value: T;
  set: (change: (value: T) => T) => void;
  dirty: boolean;
  /** Id of the entry this draft was begun from. */
  basedOn: number | null;
  /** Let the saved plan stand. */
  drop: () => void;
}

/** A draft of `part` of a tank over what is saved. */
export function useDraft<T>(tankId: number, part: string, saved: T, savedId: number | null): Draft<T> {
  const shelf = `reedmace.draft.${tankId}.${part}`;
  const [draft, setDraft] = useState<Shelf<T> | null>(() => read<T>(shelf));
  useEffect(() => {
    setDraft(read<T>(shelf));
  }, [shelf]);
  const set = useCallback(
    (change: (value: T) => T) => {
      setDraft((now) => {
        const next = { value: change(now?.value ?? saved), basedOn: now ? now.basedOn : savedId };
        localStorage.setItem(shelf, JSON.stringify(next));
        return next;
      });
    },
    [shelf, saved, savedId],
  );
  const drop = useCallback(() => {
    localStorage.removeItem(shelf);
    setDraft(null);
  }, [shelf]);
  return {
    value: draft?.value ?? saved,
    set,
    dirty: draft !== null,
    basedOn: draft ? draft.basedOn : savedId,
    drop,
  };
}

function read<T>(shelf: string): Shelf<T> | null {
  try {
    const text = localStorage.getItem(shelf);
    return text ? (JSON.parse(text) as Shelf<T>) : null;
  } catch {
    return null;
  }
}
