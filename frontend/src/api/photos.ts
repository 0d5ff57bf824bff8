/**
 * Photographs: sent as they are, stored on this device until the server has them. Each belongs to the account it was
 * taken in.
 */
import { queryOptions, useQueryClient, type QueryClient } from "@tanstack/react-query";
import { get, update } from "idb-keyval";
import { useEffect, useSyncExternalStore } from "react";
import { ask, client, postText, ProblemError, sendFile } from "./client";
import { replaceData } from "./replaceData";
import { newKey } from "./outbox";
import type { Photo } from "./schemas";

export interface HeldPhoto {
  /** 0 for the photograph of a box. */
  tankId: number;
  /** The box on the shelf that it shows. */
  boxId?: number;
  key: string;
  /** ISO time it was taken. */
  at: string;
  of: Photo["of"];
  words: string;
  /** Key of the logbook line it belongs to. */
  entryKey?: string;
  blob: Blob;
  account: string;
  /** Why the server rejected it: it stays until its keeper removes it. */
  refused?: string;
}

const STORAGE_KEY = "reedmace.photos";
const MOST_HELD = 20_000_000;
const AGAIN_MS = 30_000;
const listeners = new Set<() => void>();
let account = "";
let held: HeldPhoto[] = [];

export function photosOptions(tankId: number) {
  return queryOptions({
    queryKey: ["photos", tankId],
    queryFn: () => ask(client.GET("/api/tanks/{tank_id}/photos", { params: { path: { tank_id: tankId } } })),
  });
}

/** Address of a picture. */
export function pictureOf(tankId: number, id: number, size: "small" | "full"): string {
  return `/api/tanks/${tankId}/photos/${id}.jpg?size=${size}`;
}

/** Store a photograph on this device; false where there is no room for it. */
export async function holdPhoto(
  photo: Omit<HeldPhoto, "key" | "account">,
  stays: (one: HeldPhoto) => boolean = () => true,
): Promise<boolean> {
  let room = true;
  // What it replaces goes in the same step: a page closed meanwhile has one of the two.
  await change((all) => {
    const left = all.filter(stays);
    room = left.reduce((sum, one) => sum + one.blob.size, photo.blob.size) <= MOST_HELD;
    return room ? [...left, { ...photo, key: newKey(), account }] : all;
  });
  return room;
}

/** The same for the one photograph of a box: it takes the place of one that still waits. */
export async function holdBoxPhoto(boxId: number, blob: Blob): Promise<boolean> {
  const at = new Date().toISOString();
  return holdPhoto({ tankId: 0, boxId, at, of: "box", words: "", blob }, notOfBox(boxId));
}

export function dropBoxPhoto(boxId: number): Promise<void> {
  return change((all) => all.filter(notOfBox(boxId)));
}

function notOfBox(boxId: number): (one: HeldPhoto) => boolean {
  return (one) => one.account !== account || one.boxId !== boxId;
}

export function dropPhoto(key: string): Promise<void> {
  return change((all) => all.filter((one) => one.key !== key));
}

async function change(make: (all: HeldPhoto[]) => HeldPhoto[]): Promise<void> {
  await update<HeldPhoto[]>(STORAGE_KEY, (all) => make(all ?? []));
  await load();
}

async function load(): Promise<void> {
  const all = (await get<HeldPhoto[]>(STORAGE_KEY)) ?? [];
  held = all.filter((one) => one.account === account);
  listeners.forEach((tell) => {
    tell();
  });
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Photographs of this account still on this device. */
export function useHeldPhotos(): HeldPhoto[] {
  return useSyncExternalStore(subscribe, () => held);
}

/** One loop sends, whatever is stored meanwhile. */
let sending = false;

async function send(queries: QueryClient): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    for (let next = waiting(); next; next = waiting()) {
      const { key } = next;
      try {
        if (next.boxId === undefined) await sendOfTank(next, queries);
        else
          replaceData(queries, ["shelf"], await sendFile("PUT", `/api/shelf/${next.boxId}/photo`, next.blob));
      } catch (error) {
        const said = error instanceof ProblemError ? error : null;
        // Offline, signed out or busy: later. Rejected for good: it stays, shown with the reason.
        if (!said || ![404, 409, 413, 422].includes(said.status)) return;
        await change((all) => all.map((one) => (one.key === key ? { ...one, refused: said.detail } : one)));
        continue;
      }
      await dropPhoto(key);
    }
  } finally {
    sending = false;
  }
}

async function sendOfTank(photo: HeldPhoto, queries: QueryClient): Promise<void> {
  const { tankId, key, at, of, words, entryKey, blob } = photo;
  const query = new URLSearchParams({ key, at, of, words });
  if (entryKey) query.set("entry_key", entryKey);
  await postText(`/api/tanks/${tankId}/photos?${query}`, blob, blob.type || "application/octet-stream");
  await queries.invalidateQueries({ queryKey: ["photos", tankId] });
}

function waiting(): HeldPhoto | undefined {
  return held.find((one) => one.refused === undefined);
}

/** Send stored photographs: at the start, when the network returns, and every half minute. */
export function usePhotoOutbox(email: string | null): void {
  const queries = useQueryClient();
  const left = useHeldPhotos().filter((one) => one.refused === undefined).length;
  useEffect(() => {
    account = email ?? "";
    void load();
  }, [email]);
  useEffect(() => {
    if (!email || !left) return;
    const again = () => void send(queries);
    again();
    window.addEventListener("online", again);
    const timer = setInterval(again, AGAIN_MS);
    return () => {
      window.removeEventListener("online", again);
      clearInterval(timer);
    };
  }, [queries, email, left]);
}
