/** A secret link: created, shown once, revoked. */
import { useMutation, useQuery } from "@tanstack/react-query";
import { styled } from "styled-components";
import { ProblemError } from "../api/client";
import { Button, ProblemNote, Waiting } from "../kit";
import { LOCALE } from "../quantity/locale";

interface Props {
  title: string;
  words: string;
  queryKey: readonly unknown[];
  read: () => Promise<{ made_at: string | null }>;
  make: () => Promise<{ url: string }>;
  end: () => Promise<unknown>;
}

export function SecretLink({ title, words, queryKey, read, make: asked, end: revoked }: Props) {
  const link = useQuery({ queryKey, queryFn: read });
  const make = useMutation({ mutationFn: asked, onSuccess: () => void link.refetch() });
  const end = useMutation({
    mutationFn: revoked,
    onSuccess: () => {
      make.reset();
      void link.refetch();
    },
  });
  const since = link.data?.made_at;
  const problem = [make.error, end.error, link.error].find((e) => e instanceof ProblemError) ?? null;
  return (
    <section aria-label={title}>
      <h2>{title}</h2>
      <p>{words}</p>
      {link.isPending && <Waiting>Looking…</Waiting>}
      {make.data && (
        <p role="status">
          Copy it now, it is shown this once: <Address>{make.data.url}</Address>
        </p>
      )}
      {since && !make.data && <p>A link was made on {new Date(since).toLocaleDateString(LOCALE)}.</p>}
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

const Address = styled.code`
  overflow-wrap: anywhere;
`;
