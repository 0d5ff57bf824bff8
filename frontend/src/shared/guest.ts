/** A session without an account. */
import { ask, client } from "../api/client";
import { newKey } from "../api/outbox";
import { DECIMAL } from "../quantity/locale";

/** By which a guest whose first answer was lost is found again. */
let guestKey = newKey();

/** A guest's session, kept for 30 days on this browser. */
export async function beGuest() {
  const begun = await ask(
    client.POST("/api/session/guest", {
      body: { locale: navigator.language, decimal: DECIMAL, key: guestKey },
    }),
  );
  guestKey = newKey();
  return begun;
}
