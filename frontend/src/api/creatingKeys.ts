/** Keys of calls that make something, so that one sent again after a lost answer makes nothing twice. */
import { newKey } from "./outbox";

const CREATING =
  /^\/api\/(tanks|tanks\/\d+\/copy|rooms|rooms\/(import|bundle|\d+\/copies)|bundles|bundles\/zip|practice\/(tanks|classes))$/;
export const KEY_HEADER = "Idempotency-Key";

/** Keys of calls whose answer has not come, by address and content. */
const open = new Map<string, string>();

/** The key of a creating call: the same again for the same content until it is answered. Null for other calls. */
export function creatingKey(path: string, content: string): string | null {
  if (!CREATING.test(path)) return null;
  const call = `${path} ${content}`;
  const key = open.get(call) ?? newKey();
  open.set(call, key);
  return key;
}

/** Take note of an answer. status: HTTP; of 500 and above nobody knows what was done. */
export function keyAnswered(key: string | null, status: number): void {
  if (key === null || status >= 500) return;
  for (const [call, kept] of open) if (kept === key) open.delete(call);
}
