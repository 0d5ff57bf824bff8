/** HTTP client, typed by the API description; errors become `ProblemError`. */
import createClient from "openapi-fetch";
import { creatingKey, KEY_HEADER, keyAnswered } from "./creatingKeys";
import type { AnswerOf, ComputeName, QuestionOf, SessionState } from "./schemas";
import type { paths } from "./types";

export interface Fault {
  where: string;
  what: string;
  remedy: string;
}

export interface Difference {
  field: string;
  theirs: string;
  mine: string;
}

/** A problem as the server describes it. `offline` when the server could not be reached. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly errors: Fault[] = [],
    readonly current: unknown = null,
    /** For a conflict: every field in which the two versions differ. */
    readonly differences: Difference[] = [],
    /** For an internal error: the request number in the operator's log. */
    readonly requestId = "",
  ) {
    super(detail);
  }

  get offline(): boolean {
    return this.status === 0 || this.status === 503;
  }
}

let csrfToken = "";
let units = "";
/** The CSRF token and the units sent with requests. */
export function rememberSession(session: SessionState): void {
  csrfToken = session.csrf_token;
  const { volume, length, temperature, currency, decimal } = session.units;
  // Headers cannot carry a degree sign.
  units = [volume, length, temperature.replace("°", ""), currency, decimal === "," ? "comma" : "point"].join(
    ";",
  );
}

export const client = createClient<paths>({ baseUrl: "/" });
client.use({
  async onRequest({ request }) {
    if (request.method === "POST" && !request.headers.has(KEY_HEADER)) {
      const key = creatingKey(new URL(request.url).pathname, await request.clone().text());
      if (key) request.headers.set(KEY_HEADER, key);
    }
    // Before the session is known the server uses the account's units, and preloaded data matches.
    if (units) request.headers.set("Reedmace-Units", units);
    if (request.method !== "GET") request.headers.set("X-CSRF-Token", csrfToken);
    return request;
  },
  onResponse({ request, response }) {
    keyAnswered(request.headers.get(KEY_HEADER), response.status);
  },
});

/** POST a JSON file unchanged. */
export function postJson(path: string, text: string): Promise<unknown> {
  return postText(path, text, "application/json");
}

/** POST a text body (CSV), or a file as it is. */
export function postText(path: string, text: string | Blob, type = "text/csv"): Promise<unknown> {
  return send("POST", path, text, type);
}

/** Send a file as it is. */
export function sendFile(method: "POST" | "PUT", path: string, file: Blob): Promise<unknown> {
  return send(method, path, file, file.type || "application/octet-stream");
}

async function send(method: string, path: string, body: string | Blob, type: string): Promise<unknown> {
  const key = creatingKey(path, typeof body === "string" ? body : `${body.size} bytes`);
  const response = await reach(
    fetch(path, {
      method,
      body,
      headers: {
        "X-CSRF-Token": csrfToken,
        "Content-Type": type,
        "Reedmace-Units": units,
        ...(key ? { [KEY_HEADER]: key } : {}),
      },
    }),
  );
  keyAnswered(key, response.status);
  const data: unknown = await response.json();
  if (!response.ok) throw asProblem(response.status, data);
  return data;
}

async function reach<T>(promise: Promise<T>): Promise<T> {
  try {
    return await promise;
  } catch {
    throw new ProblemError(
      0,
      "No connection",
      "Reedmace cannot be reached. What you typed is kept here; it can be sent when the connection is back.",
    );
  }
}

function asProblem(status: number, data: unknown): ProblemError {
  const d = (typeof data === "object" && data !== null ? data : {}) as Partial<ProblemError> & {
    request_id?: string;
  };
  return new ProblemError(
    status,
    d.title ?? "Not done",
    d.detail ?? `The server answered ${status}.`,
    d.errors ?? [],
    d.current ?? null,
    d.differences ?? [],
    status >= 500 ? (d.request_id ?? "") : "",
  );
}

/** The data of an openapi-fetch call, or a ProblemError. */
export async function ask<T>(
  promise: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await reach(promise);
  if (data === undefined) throw asProblem(response.status, error);
  return data;
}

/** Ask a named computation. */
export async function compute<N extends ComputeName>(
  name: N,
  question: QuestionOf<N>,
  signal?: AbortSignal,
): Promise<AnswerOf<N>> {
  let response: Response;
  try {
    response = await fetch(`/api/compute/${name}`, {
      method: "POST",
      headers: { "Content-Type": "application/json", "Reedmace-Units": units },
      body: JSON.stringify(question),
      signal,
    });
  } catch (error) {
    if (signal?.aborted) throw error;
    throw new ProblemError(
      0,
      "No connection",
      "The sums run on the server, which cannot be reached just now.",
    );
  }
  const data: unknown = await response.json();
  if (!response.ok) throw asProblem(response.status, data);
  return data as AnswerOf<N>;
}
