/** One calendar for all tanks, behind a secret link. */
import { ask, client } from "../api/client";
import { SecretLink } from "../shared/SecretLink";

export function CalendarLink() {
  return (
    <SecretLink
      title="One calendar for all tanks"
      words="A link any calendar can subscribe to: what is due, in every tank. Whoever has the link can read it, so keep it to yourself; it can be revoked."
      queryKey={["calendar-link"]}
      read={() => ask(client.GET("/api/account/calendar"))}
      make={() => ask(client.POST("/api/account/calendar"))}
      end={() => ask(client.DELETE("/api/account/calendar"))}
    />
  );
}
