/** Archived tanks, and removed ones that can still be restored. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { ask, client } from "../api/client";
import { InlineButton } from "../kit";
import { LOCALE } from "../quantity/locale";

export function Aside() {
  const queries = useQueryClient();
  const aside = useQuery({ queryKey: ["aside"], queryFn: () => ask(client.GET("/api/tanks/aside")) });
  const rows = aside.data?.tanks ?? [];
  if (rows.length === 0) return null;
  const back = async (tankId: number) => {
    await ask(client.POST("/api/tanks/{tank_id}/back", { params: { path: { tank_id: tankId } } }));
    await queries.invalidateQueries();
  };
  return (
    <section aria-label="Out of sight">
      {rows.map((t) => (
        <p key={t.id}>
          <b>{t.name}</b>{" "}
          {t.until
            ? `was removed; it can be brought back until ${new Date(t.until).toLocaleString(LOCALE, { weekday: "long", hour: "2-digit", minute: "2-digit" })}.`
            : "is out of sight."}{" "}
          <InlineButton onPress={() => void back(t.id)}>Bring {t.name} back</InlineButton>
        </p>
      ))}
    </section>
  );
}
