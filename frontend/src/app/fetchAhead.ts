/** What an address asks for, asked at once: its own part of the program and its data, beside who is signed in and not after. */
import type { QueryClient } from "@tanstack/react-query";
import { roomsOptions, sessionOptions, tablesOptions, tankOptions, todayOptions } from "../api/hooks";
import { isStage, STAGES } from "./stages";

/** What cannot be had is said where it is shown. */
function quietly(asked: Promise<unknown>): void {
  asked.catch(() => undefined);
}

export function fetchAhead(queries: QueryClient, pathname: string): void {
  quietly(queries.query(sessionOptions));
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
