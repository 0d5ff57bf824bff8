/** Prefetch of an address: its code and data, in parallel with the session. */
import type { QueryClient } from "@tanstack/react-query";
import { roomsOptions } from "../api/rooms";
import { sessionOptions } from "../api/session";
import { tablesOptions } from "../api/tables";
import { tankOptions, todayOptions } from "../api/tanks";
import { isStage, STAGES } from "./stages";

/** A failure is reported where the data is shown. */
function quietly(asked: Promise<unknown>): void {
  asked.catch(() => undefined);
}

export function fetchAhead(queries: QueryClient, pathname: string): void {
  quietly(queries.query(sessionOptions));
  // The server marks a page that it gave to nobody signed in; one opened offline has what is kept here.
  const { controller } = (navigator.serviceWorker as ServiceWorkerContainer | undefined) ?? {
    controller: null,
  };
  if (document.documentElement.dataset.session === "none" && (!controller || navigator.onLine)) return;
  const [first, id, stage] = pathname.split("/").slice(1);
  const tankId = Number(id);
  if (pathname === "/" || first === "today") {
    quietly(import("../today/Today"));
    quietly(queries.query(todayOptions));
    quietly(queries.query(roomsOptions));
  } else if (first === "tanks" && tankId > 0) {
    quietly(import("./TankPage"));
    if (isStage(stage)) quietly(STAGES[stage]());
    quietly(queries.query(tankOptions(tankId)));
    quietly(queries.query(tablesOptions));
  }
}
