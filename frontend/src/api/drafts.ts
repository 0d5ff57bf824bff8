/** Drafts of plans not yet saved, stored on this device across reloads and tabs. */
import { useCallback, useEffect, useState } from "react";

interface Stored<T> {
  value: T;
  basedOn: number | null;
}

export interface Draft<T> {
  value: T;
  set: (change: (value: T) => T) => void;
  dirty: boolean;
  /** Id of the entry this draft is based on. */
  basedOn: number | null;
  /** Discard the draft. */
  drop: () => void;
}

function keyOf(tankId: number, part: string): string {
  return `reedmace.draft.${tankId}.${part}`;
}

/** A draft that is kept on this device, with the id of the entry it is based on; null where there is none. */
export function readDraft<T>(
  tankId: number,
  part: string,
  saved: T,
): Pick<Draft<T>, "value" | "basedOn"> | null {
  const draft = read<T>(keyOf(tankId, part));
  return draft && { ...draft, value: completed(draft.value, saved) };
}

/** Discard a draft of a tank. */
export function dropDraft(tankId: number, part: string): void {
  localStorage.removeItem(keyOf(tankId, part));
}

/** Draft of one plan of a tank over the saved version. */
export function useDraft<T>(tankId: number, part: string, saved: T, savedId: number | null): Draft<T> {
  const storageKey = keyOf(tankId, part);
  const [draft, setDraft] = useState<Stored<T> | null>(() => read<T>(storageKey));
  useEffect(() => {
    setDraft(read<T>(storageKey));
  }, [storageKey]);
  const set = useCallback(
    (change: (value: T) => T) => {
      setDraft((now) => {
        const next = {
          value: change(now ? completed(now.value, saved) : saved),
          basedOn: now ? now.basedOn : savedId,
        };
        localStorage.setItem(storageKey, JSON.stringify(next));
        return next;
      });
    },
    [storageKey, saved, savedId],
  );
  const drop = useCallback(() => {
    localStorage.removeItem(storageKey);
    setDraft(null);
  }, [storageKey]);
  return {
    value: draft ? completed(draft.value, saved) : saved,
    set,
    dirty: draft !== null,
    basedOn: draft ? draft.basedOn : savedId,
    drop,
  };
}

/** Fill fields that a draft of an older version lacks from the saved plan. */
function completed<T>(draft: T, saved: T): T {
  if (!isPlain(draft) || !isPlain(saved)) return draft;
  const whole: Record<string, unknown> = { ...saved };
  for (const [key, value] of Object.entries(draft)) whole[key] = completed(value, saved[key]);
  return whole as T;
}

function isPlain(value: unknown): value is Record<string, unknown> {
  return typeof value === "object" && value !== null && !Array.isArray(value);
}

function read<T>(storageKey: string): Stored<T> | null {
  try {
    const text = localStorage.getItem(storageKey);
    return text ? (JSON.parse(text) as Stored<T>) : null;
  } catch {
    return null;
  }
}
