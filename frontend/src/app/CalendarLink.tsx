/** One calendar for all tanks, behind a secret link: made, shown once, revoked. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../api/client";
import { Button, ProblemNote, Waiting } from "../kit";

const Address = styled.code`
  overflow-wrap: anywhere;
`;

export function CalendarLink() {
  const link = useQuery({
    queryKey: ["calendar-link"],
    queryFn: () => ask(client.GET("/api/account/calendar")),
  });
  const refresh = { onSuccess: () => void link.refetch() };
  const make = useMutation({ mutationFn: () => ask(client.POST("/api/account/calendar")), ...refresh });
  const end = useMutation({
    mutationFn: () => ask(client.DELETE("/api/account/calendar")),
    onSuccess: () => {
      make.reset();
      void link.refetch();
    },
  });
  const since = link.data?.made_at;
  const problem = [make.error, end.error, link.error].find((e) => e instanceof ProblemError) ?? null;
  return (
    <section aria-label="Calendar">
      <h2>One calendar for all tanks</h2>
      <p>
        A link any calendar can subscribe to: what is due, in every tank. Whoever has the link can read it, so
        keep it to yourself; it can be revoked.
      </p>
      {link.isPending && <Waiting>Looking…</Waiting>}
      {make.data && (
        <p role="status">
          Copy it now, it is shown this once: <Address>{make.data.url}</Address>
        </p>
      )}
      {since && !make.data && <p>A link was made on {new Date(since).toLocaleDateString()}.</p>}
      <ProblemNote problem={problem} />
      <div>
        <Button
          $quiet
          onPress={() => {
            make.mutate();
          }}
        >
          {since ? "Make a new link" : "Make the link"}
        </Button>{" "}
        {since && (
          <Button
            $quiet
            onPress={() => {
              end.mutate();
            }}
          >
            Revoke it
          </Button>
        )}
      </div>
    </section>
  );
}
