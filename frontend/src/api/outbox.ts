/** Entries made without a connection, kept on this device until they are sent. */
import type { NewEntry } from "./schemas";

interface Held {
  tankId: number;
  entry: NewEntry;
}

const STORAGE_KEY = "reedmace.outbox";
const listeners = new Set<() => void>();

/** A key no other entry has; the server takes the same key only once. */
export function newKey(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, "0")).join("");
}

export function held(): Held[] {
  try {
    return JSON.parse(localStorage.getItem(STORAGE_KEY) ?? "[]") as Held[];
  } catch {
    return [];
  }
}

export function heldCount(): number {
  return held().length;
}

export function hold(tankId: number, entry: NewEntry): void {
  keep([...held(), { tankId, entry }]);
}

export function release(key: string): void {
  keep(held().filter((h) => h.entry.key !== key));
}

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

function keep(all: Held[]): void {
  localStorage.setItem(STORAGE_KEY, JSON.stringify(all));
  listeners.forEach((l) => {
    l();
  });
}
