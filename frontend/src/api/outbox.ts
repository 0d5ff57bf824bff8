/**
 * Outbox: entries stored on this device until the server has them. Each belongs to the account it was made in.
 * An entry is stored before it is sent, so that a page closed meanwhile loses none.
 */
import type { NewEntry } from "./schemas";

export interface Held {
  tankId: number;
  entry: NewEntry;
  /** Missing in entries stored by an older version. */
  account?: string;
  /** The page that is sending it, and since when (epoch ms). */
  sending?: { page: string; since: number };
  /** Why the server rejected it: it stays until its keeper corrects or removes it. */
  refused?: string;
}

const STORAGE_KEY = "reedmace.outbox";
/** This page, told apart from other tabs and from the page that was closed. */
const PAGE = newKey();
/** A page that sends longer than this (ms) is taken for closed. */
const SENDING_LIMIT = 10_000;
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

/** Entries of this account that wait, not those being sent: the same array until something changes. */
export function held(): Held[] {
  return read().own;
}

/** Store an entry that is about to be sent. Without storage on this device it is sent all the same. */
export function holdWhileSending(tankId: number, entry: NewEntry): void {
  try {
    keep([...read().all, { tankId, entry, account, sending: { page: PAGE, since: Date.now() } }]);
  } catch {
    return;
  }
}

/** The server could not be reached: the entry waits. */
export function hold(tankId: number, entry: NewEntry): void {
  keep([...read().all.filter((h) => h.entry.key !== entry.key), { tankId, entry, account }]);
}

export function release(key: string): void {
  keep(read().all.filter((h) => h.entry.key !== key));
}

/** Store a rejected entry with its reason; without one it is sent again. */
export function mark(key: string, refused?: string): void {
  keep(read().all.map((h) => (h.entry.key === key ? { ...h, refused } : h)));
}

/**
 * Resolves once no entry of a tank is on its way or waits, or when the time is up (ms): then to false. Entries the
 * server rejected do not count.
 */
export function settled(tankId: number, limitMs = SENDING_LIMIT): Promise<boolean> {
  const open = () =>
    read().all.some(
      (h) => h.tankId === tankId && (h.account ?? account) === account && h.refused === undefined,
    );
  return new Promise((resolve) => {
    const end = (well: boolean) => {
      clearTimeout(timer);
      unsubscribe();
      resolve(well);
    };
    const timer = setTimeout(() => {
      end(!open());
    }, limitMs);
    const unsubscribe = subscribe(() => {
      if (!open()) end(true);
    });
    if (!open()) end(true);
  });
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
    const own = account ? all.filter((h) => (h.account ?? account) === account && !isBeingSent(h)) : [];
    if (text !== null || parsed.all.length) parsed = { text, all, own };
  }
  return parsed;
}

/** Whether this page or another tab is sending it; another tab's is looked at again when its time is up. */
function isBeingSent({ sending }: Held): boolean {
  if (!sending) return false;
  if (sending.page === PAGE) return true;
  const left = sending.since + SENDING_LIMIT - Date.now();
  if (left <= 0) return false;
  setTimeout(() => {
    parsed = { text: null, all: [], own: [] };
    tell();
  }, left + 50);
  return true;
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
