/** The browser's own notices for what cannot wait, while a page is open. */
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { ask, client } from "../api/client";
import { todayOptions } from "../api/tanks";

const EVERY_MS = 5 * 60_000;
const TOLD_KEY = "reedmace.told";

export function noticesPossible(): boolean {
  return "Notification" in window;
}

/** Ask the browser to allow notices; whether it does. */
export async function askForNotices(): Promise<boolean> {
  return (await Notification.requestPermission()) === "granted";
}

/** Tell of each tank once while something there cannot wait. signedIn: whether anybody is. */
export function useBrowserNotices(signedIn: boolean): void {
  const able = signedIn && noticesPossible() && Notification.permission === "granted";
  const chosen = useQuery({
    queryKey: ["notices"],
    queryFn: () => ask(client.GET("/api/account/notices")),
    enabled: able,
    staleTime: EVERY_MS,
  });
  const on = able && chosen.data?.choice.browser === true;
  const today = useQuery({
    ...todayOptions,
    enabled: on,
    refetchInterval: on && EVERY_MS,
    refetchIntervalInBackground: true,
  });
  const rows = on ? today.data?.rows : undefined;
  useEffect(() => {
    if (!rows) return;
    const pressing = rows.filter((row) => row.urgent);
    const told = new Set(JSON.parse(localStorage.getItem(TOLD_KEY) ?? "[]") as string[]);
    const keyOf = (row: (typeof rows)[number]) => `${row.tank.id}${row.harm ? "!" : ""}`;
    localStorage.setItem(TOLD_KEY, JSON.stringify(pressing.map(keyOf)));
    for (const row of pressing.filter((one) => !told.has(keyOf(one))))
      void show(row.tank.name, row.advice?.first.title ?? row.verdict, `/tanks/${row.tank.id}/${row.stage}`);
  }, [rows]);
}

/** By the service worker where there is one: phones allow no other way. */
async function show(title: string, body: string, address: string): Promise<void> {
  const options = { body, tag: address, icon: "/icon-192.png" };
  const worker = await (navigator.serviceWorker as ServiceWorkerContainer | undefined)?.getRegistration();
  if (worker) {
    await worker.showNotification(title, options);
    return;
  }
  const notice = new Notification(title, options);
  notice.onclick = () => {
    window.focus();
    window.location.assign(address);
  };
}
