/** Outbox: entries made offline, stored on this device until sent. Each belongs to the account it was made in. */
import type { NewEntry } from "./schemas";

export interface Held {
  tankId: number;
  entry: NewEntry;
  /** Missing in entries stored by an older version. */
  account?: string;
  /** Why the server rejected it: it stays until its keeper corrects or removes it. */
  refused?: string;
}

const STORAGE_KEY = "reedmace.outbox";
const listeners = new Set<() => void>();
let account = "";
let parsed: { text: string | null; all: Held[]; own: Held[] } = { text: null, all: [], own: [] };

/** Account whose entries are stored and sent; "" while nobody is signed in. */
export function ownOutbox(email: string | null): void {
  if (account === (email ?? "")) return;
  account = email ?? "";
  parsed = { text: null, all: [], own: [] };
  tell();
}

/** A unique key; the server accepts each key once. */
export function newKey(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((b) => b.toString(16).padStart(2, "0")).join("");
}

/** Entries of this account: the same array until something changes. */
export function held(): Held[] {
  return read().own;
}

export function hold(tankId: number, entry: NewEntry): void {
  keep([...read().all, { tankId, entry, account }]);
}

export function release(key: string): void {
  keep(read().all.filter((h) => h.entry.key !== key));
}

/** Store a rejected entry with its reason; without one it is sent again. */
export function mark(key: string, refused?: string): void {
  keep(read().all.map((h) => (h.entry.key === key ? { ...h, refused } : h)));
}

export function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  window.addEventListener("storage", listener);
  return () => {
    listeners.delete(listener);
    window.removeEventListener("storage", listener);
  };
}

function read() {
  const text = localStorage.getItem(STORAGE_KEY);
  if (text !== parsed.text || text === null) {
    const all = text === null ? [] : list(text);
    // Entries of an older version have no owner; they belong to the first account signed in.
    const own = account ? all.filter((h) => (h.account ?? account) === account) : [];
    if (text !== null || parsed.all.length) parsed = { text, all, own };
  }
  return parsed;
}

function list(text: string): Held[] {
  try {
    return JSON.parse(text) as Held[];
  } catch {
    return [];
  }
}

function keep(all: Held[]): void {
  localStorage.setItem(STORAGE_KEY, JSON.stringify(all));
  tell();
}

function tell(): void {
  listeners.forEach((l) => {
    l();
  });
}
