/** Tank settings: name, copy, archive, remove. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { ask, client, ProblemError } from "../../api/client";
import { invalidate } from "../../api/replaceData";
import { useTank } from "../../api/tanks";
import { Button, LineLink, ProblemNote, TextField } from "../../kit";
import { SecretLink } from "../../shared/SecretLink";
import { Bar } from "../../kit";

/** The way to a tank's settings, for who may change them. */
export function ToThisTank({ tankId }: { tankId: number }) {
  const tank = useTank(tankId).data?.tank;
  if (!tank || tank.role) return null;
  return <LineLink to={`/tanks/${tankId}/keep/settings`}>This tank: its name, a copy, out of sight</LineLink>;
}

export function ThisTank({ tankId }: { tankId: number }) {
  const tank = useTank(tankId).data?.tank;
  // Another's tank is renamed, shared and archived by its own keeper.
  const name = tank?.role ? undefined : tank?.name;
  return name ? <Named key={name} tankId={tankId} name={name} /> : null;
}

interface ArchiveOrRemoveProps {
  tankId: number;
  /** Runs a request and goes to the address it returns. */
  attempt: (work: () => Promise<string>) => Promise<void>;
}

/** Out of sight, or gone; its logbook as a file first. */
function ArchiveOrRemove({ tankId, attempt }: ArchiveOrRemoveProps) {
  const path = { path: { tank_id: tankId } };
  return (
    <Bar>
      <Button
        $quiet
        onPress={() =>
          void attempt(async () => {
            await ask(client.POST("/api/tanks/{tank_id}/archive", { params: path }));
            return "/today";
          })
        }
      >
        Put it out of sight
      </Button>
      <Button
        $quiet
        onPress={() =>
          void attempt(async () => {
            await ask(client.DELETE("/api/tanks/{tank_id}", { params: path }));
            return "/today";
          })
        }
      >
        Remove it with its logbook
      </Button>
      <a href={`/api/tanks/${tankId}/bundle.json`} download>
        Its logbook as a file, first
      </a>
      <a href={`/api/tanks/${tankId}/bundle.zip`} download>
        the same with its photographs
      </a>
    </Bar>
  );
}

function Named({ tankId, name }: { tankId: number; name: string }) {
  const [typed, setTyped] = useState(name);
  const [copyName, setCopyName] = useState(`${name}, another`);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [done, setDone] = useState("");
  const queries = useQueryClient();
  const navigate = useNavigate();
  const path = { path: { tank_id: tankId } };
  const attempt = async (work: () => Promise<string>, says = "") => {
    setProblem(null);
    setDone("");
    try {
      const address = await work();
      await invalidate(queries);
      setDone(says);
      if (address) await navigate(address);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <section aria-label="This tank">
      <h2>This tank: its name, a copy, out of sight</h2>
      <ProblemNote problem={problem} />
      <Bar style={{ alignItems: "end" }}>
        <TextField label="Its name" value={typed} onChange={setTyped} />
        <Button
          $quiet
          isDisabled={!typed.trim() || typed.trim() === name}
          onPress={() =>
            void attempt(async () => {
              await ask(client.PATCH("/api/tanks/{tank_id}", { params: path, body: { name: typed.trim() } }));
              return "";
            }, "Renamed.")
          }
        >
          Rename
        </Button>
        {done && <span role="status">{done}</span>}
      </Bar>
      <Bar style={{ alignItems: "end" }}>
        <TextField
          label="A tank planned the same"
          value={copyName}
          onChange={setCopyName}
          hint="sizes, animals, filter and kit; no history"
        />
        <Button
          $quiet
          isDisabled={!copyName.trim()}
          onPress={() =>
            void attempt(async () => {
              const made = await ask(
                client.POST("/api/tanks/{tank_id}/copy", { params: path, body: { name: copyName.trim() } }),
              );
              return `/tanks/${made.id}/tank`;
            })
          }
        >
          Copy it
        </Button>
      </Bar>
      <ArchiveOrRemove tankId={tankId} attempt={attempt} />
      <SecretLink
        title="A link to look"
        words="Whoever has it sees how this tank stands, its newest tests and what is due, without an account: for a friend, a shop, a sitter. It changes nothing, and can be revoked."
        queryKey={["look-link", tankId]}
        read={() => ask(client.GET("/api/tanks/{tank_id}/link", { params: path }))}
        make={() => ask(client.POST("/api/tanks/{tank_id}/link", { params: path }))}
        end={() => ask(client.DELETE("/api/tanks/{tank_id}/link", { params: path }))}
      />
      <p>What is removed can be brought back on Today for a day; what is out of sight, for ever.</p>
    </section>
  );
}
