/** Tokens with which a program may read, each with its scope and its end. */
import { useState, type SyntheticEvent } from "react";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { styled } from "styled-components";
import { ask, client, type ProblemError } from "../api/client";
import { range } from "../api/range";
import { replaceData } from "../api/replaceData";
import { useToday } from "../api/tanks";
import { Button, Fold, InlineButton, phone, ProblemNote, Select, TextField } from "../kit";
import { NumberBox } from "../kit/quantities";
import { LOCALE } from "../quantity/locale";

const KEY = ["read-tokens"];
const ALL = "all";

export function ReadTokens() {
  const queries = useQueryClient();
  const list = useQuery({ queryKey: KEY, queryFn: () => ask(client.GET("/api/account/tokens")) });
  const revoke = useMutation<unknown, ProblemError, number>({
    mutationFn: async (id) => {
      const path = { token_id: id };
      replaceData(
        queries,
        KEY,
        await ask(client.DELETE("/api/account/tokens/{token_id}", { params: { path } })),
      );
    },
  });
  return (
    <Fold summary="Let a program read them">
      <p>
        A token reads the tables and writes nothing. A program sends it as <code>Authorization: Bearer</code>{" "}
        to <code>/api/read/tables.zip</code>.
      </p>
      <ul>
        {list.data?.tokens.map((token) => (
          <Token key={token.id}>
            <span>
              <b>{token.name}</b>: {token.tank ?? "all tanks"}, {token.over ? "over since" : "until"}{" "}
              {new Date(token.until).toLocaleDateString(LOCALE)}
            </span>
            <InlineButton
              aria-label={`Revoke ${token.name}`}
              isDisabled={revoke.isPending}
              onPress={() => {
                revoke.mutate(token.id);
              }}
            >
              Revoke
            </InlineButton>
          </Token>
        ))}
      </ul>
      <ProblemNote problem={revoke.error} />
      <NewToken />
    </Fold>
  );
}

function NewToken() {
  const queries = useQueryClient();
  const tanks = useToday().data?.rows.map((r): [string, string] => [String(r.tank.id), r.tank.name]) ?? [];
  const [name, setName] = useState("");
  const [scope, setScope] = useState(ALL);
  const [days, setDays] = useState<number | null>(null);
  const make = useMutation<string, ProblemError>({
    mutationFn: async () => {
      const body = {
        name: name.trim(),
        ...(scope !== ALL && { tank_id: Number(scope) }),
        ...(days !== null && { days: Math.round(days) }),
      };
      const made = await ask(client.POST("/api/account/tokens", { body }));
      replaceData(queries, KEY, { tokens: made.tokens });
      return made.token;
    },
    onSuccess: () => {
      setName("");
    },
  });
  const submit = (e: SyntheticEvent) => {
    e.preventDefault();
    if (name.trim()) make.mutate();
  };
  return (
    <Form onSubmit={submit}>
      <TextField label="What will read with it" value={name} onChange={setName} />
      <Select label="It reads" value={scope} onChange={setScope} options={[[ALL, "all tanks"], ...tanks]} />
      <NumberBox
        label="Good for days"
        hint="a quarter of a year if left empty"
        value={days}
        {...range("ReadTokenIn.days")}
        onChange={setDays}
        onClear={() => {
          setDays(null);
        }}
      />
      <Button type="submit" $quiet isDisabled={!name.trim() || make.isPending}>
        Make a token
      </Button>
      {make.data && (
        <p role="status">
          Copy it now, it is shown this once: <code>{make.data}</code>
        </p>
      )}
      <ProblemNote problem={make.error} />
    </Form>
  );
}

const Token = styled.li`
  display: flex;
  justify-content: space-between;
  gap: 12px;
  padding: 4px 0;
`;
const Form = styled.form`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 8px 14px;
  align-items: end;
  code {
    overflow-wrap: anywhere;
  }
  > p {
    grid-column: 1 / -1;
  }
  ${phone} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
