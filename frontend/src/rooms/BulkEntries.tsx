/** Bulk entries: tanks chosen on the wall or the board, one press for all logbooks. */
import { range } from "../api/range";
import { useState, type ReactNode, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { compute, ProblemError } from "../api/client";
import { useBlanks } from "../api/tables";
import { useWriteMany } from "../api/entries";
import type { BoardRow, Body } from "../api/schemas";
import { Button, Caution, InlineButton, ProblemNote, TextField } from "../kit";
import { NumberBox } from "../kit/quantities";
import { Alike } from "./BulkSettings";
import { lineQuestion, readingOf } from "../shared/testLine";

interface Props {
  rows: BoardRow[];
  chosen: number[];
  onChoose: (ids: number[]) => void;
  /** Further actions for the chosen tanks. */
  children?: ReactNode;
}

const DOINGS: readonly (readonly [string, Body])[] = [
  ["Squeezed", { kind: "media-work", what: "rinsed", share: 1, text: "", filter_key: null }],
  ["Water changed 25 %", { kind: "water-change", share: 0.25, treated: true, litres: null }],
  ["All seen running", { kind: "care", what: "plugs", part: "", filter_key: null }],
];

export function Together({ rows, chosen, onChoose, children }: Props) {
  const write = useWriteMany();
  const form_defaults = useBlanks();
  const [line, setLine] = useState("");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [said, setSaid] = useState("");
  const put = (body: Body, words: string) => {
    setSaid("");
    setProblem(null);
    write.mutate(
      { tankIds: chosen, body },
      {
        onSuccess: () => {
          setSaid(`${words}: written in ${chosen.length} ${chosen.length === 1 ? "tank" : "tanks"}.`);
        },
      },
    );
  };
  const test = async (e: SyntheticEvent) => {
    e.preventDefault();
    try {
      const read = await compute("read-test-line", lineQuestion(line));
      put(readingOf(form_defaults.reading, read, "ion"), "The test");
      setLine("");
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const none = chosen.length === 0 || write.isPending;
  return (
    <Box aria-label="For the chosen tanks" className="screen-only">
      <ChosenTanks rows={rows} chosen={chosen} onChoose={onChoose} />
      <div>
        {DOINGS.map(([words, body]) => (
          <Button
            key={words}
            $quiet
            isDisabled={none}
            onPress={() => {
              put(body, words);
            }}
          >
            {words}
          </Button>
        ))}
      </div>
      <form onSubmit={(e) => void test(e)}>
        <TextField label="A test that all showed" value={line} onChange={setLine} hint="a 0 n 0 no3 15" />
        <Button type="submit" isDisabled={none || !line.trim()}>
          Write it
        </Button>
      </form>
      <ShutIn rows={rows.filter((r) => r.quarantine && chosen.includes(r.tank_id))} />
      {children}
      {chosen.length > 0 && (
        <Quarantine none={none} put={put} rows={rows.filter((r) => chosen.includes(r.tank_id))} />
      )}
      {chosen.length > 0 && <Alike chosen={chosen} />}
      {said && <p role="status">{said}</p>}
      <ProblemNote problem={problem ?? write.error} />
    </Box>
  );
}

/** Which tanks it is for: all, those with something due, none. */
function ChosenTanks({ rows, chosen, onChoose }: Omit<Props, "children">) {
  const now = Date.now();
  const due = rows.filter((r) => r.next.some((d) => new Date(d.at).getTime() <= now)).map((r) => r.tank_id);
  return (
    <p>
      <b>
        {chosen.length === 0
          ? "Choose tanks, and write one thing in all of them"
          : `For ${chosen.length} of ${rows.length} tanks`}
      </b>{" "}
      <InlineButton
        onPress={() => {
          onChoose(rows.map((r) => r.tank_id));
        }}
      >
        all
      </InlineButton>{" "}
      {due.length > 0 && (
        <InlineButton
          onPress={() => {
            onChoose(due);
          }}
        >
          those with something due
        </InlineButton>
      )}{" "}
      {chosen.length > 0 && (
        <InlineButton
          onPress={() => {
            onChoose([]);
          }}
        >
          none
        </InlineButton>
      )}
    </p>
  );
}

function ShutIn({ rows }: { rows: BoardRow[] }) {
  if (rows.length === 0) return null;
  const one = rows.length === 1;
  return (
    <Caution>
      {rows.map((r) => r.name).join(", ")} {one ? "is" : "are"} in quarantine: last, with{" "}
      {one ? "its" : "their"} own net and bucket.
    </Caution>
  );
}

/** Quarantine of the chosen tanks for a number of days, or its end. */
interface QuarantineProps {
  none: boolean;
  put: (body: Body, words: string) => void;
  rows: BoardRow[];
}

function Quarantine({ none, put, rows }: QuarantineProps) {
  const [typed, setDays] = useState<number | null>(null);
  const days = typed ?? Math.max(...rows.map((r) => r.quarantine_days));
  return (
    <details>
      <summary>Quarantine</summary>
      <Line>
        <NumberBox label="Days" value={days} {...range("Quarantine.days")} onChange={setDays} />
        <Button
          $quiet
          isDisabled={none}
          onPress={() => {
            put({ kind: "quarantine", days: Math.round(days) }, "Quarantine");
          }}
        >
          It begins today
        </Button>
        <Button
          $quiet
          isDisabled={none}
          onPress={() => {
            put({ kind: "quarantine", days: 0 }, "The end of quarantine");
          }}
        >
          It is over
        </Button>
      </Line>
    </details>
  );
}

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: end;
  > :first-child {
    max-width: 110px;
  }
`;
const Box = styled.section`
  background: var(--silt);
  padding: 8px 14px 12px;
  display: grid;
  gap: 8px;
  > div,
  > form {
    display: flex;
    flex-wrap: wrap;
    gap: 8px 12px;
    align-items: end;
  }
`;
