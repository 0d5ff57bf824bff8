/** Logging a test: by tapping the kit's steps, in one line, or by figures. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { compute, ProblemError } from "../../api/client";
import { useBlanks } from "../../api/tables";
import { useCompute } from "../../api/compute";
import { useWrite } from "../../api/entries";
import type { LogbookState } from "../../api/schemas";
import { Button, InlineButton, phone, ProblemNote, TextField, Term } from "../../kit";
import { usePhone } from "../../kit/usePhone";
import { TapTest } from "./TapTest";
import { FIELDS, readingOf, lineQuestion } from "../../shared/testLine";
import { When } from "../../shared/When";
import { unitName } from "../../quantity/format";

type Field = (typeof FIELDS)[number][0];
const NAMES: Record<Field, string> = {
  ammonia_ppm: "a",
  nitrite_ppm: "n",
  nitrate_ppm: "no3",
  ph: "ph",
  kh_dkh: "kh",
  temperature_c: "t",
  phosphate_ppm: "po4",
  salinity_g_kg: "sal",
};
type Way = "taps" | "line" | "boxes";
const WAY_KEY = "reedmace.logtest";

export function LogTest({ tankId, logbook }: { tankId: number; logbook: LogbookState }) {
  const small = usePhone();
  const [way, setWay] = useState<Way | null>(() => localStorage.getItem(WAY_KEY) as Way | null);
  const chosen = way ?? (small ? "taps" : "line");
  const kit = logbook.plans.kit.kit;
  const [written, setWritten] = useState<number | "held" | null>(null);
  const undo = useWrite(tankId);
  const choose = (next: Way) => {
    setWay(next);
    localStorage.setItem(WAY_KEY, next);
  };
  return (
    <Box role="group" aria-label="Log a test">
      {chosen === "taps" ? (
        <TapTest tankId={tankId} kit={kit} onWritten={setWritten} />
      ) : (
        <TypedTest
          tankId={tankId}
          kitBasis={kit.basis}
          boxes={chosen === "boxes"}
          onWritten={setWritten}
          onType={() => {
            setWritten(null);
          }}
        />
      )}
      <p role="status">
        {written === "held"
          ? "Kept on this device; it will be sent when the connection is back."
          : written !== null
            ? "Logged. "
            : ""}
        {typeof written === "number" && (
          <InlineButton
            onPress={() => {
              undo.mutate(
                { body: { kind: "withdrawal" }, supersedes: written },
                {
                  onSuccess: () => {
                    setWritten(null);
                  },
                },
              );
            }}
          >
            Undo
          </InlineButton>
        )}
      </p>
      <div className="row">
        {WAYS.filter(([w]) => w !== chosen).map(([w, words]) => (
          <InlineButton
            key={w}
            onPress={() => {
              choose(w);
            }}
          >
            {words}
          </InlineButton>
        ))}
      </div>
    </Box>
  );
}

const WAYS: readonly (readonly [Way, string])[] = [
  ["taps", "Tap the steps"],
  ["line", "One line"],
  ["boxes", "A box each"],
];

interface TypedProps {
  tankId: number;
  kitBasis: "ion" | "N";
  boxes: boolean;
  onWritten: (id: number | "held") => void;
  onType: () => void;
}

function TypedTest({ tankId, kitBasis, boxes, onWritten, onType }: TypedProps) {
  const form_defaults = useBlanks();
  const storageKey = `reedmace.draft.${tankId}.line`;
  const [line, setLine] = useState(() => localStorage.getItem(storageKey) ?? "");
  const [asN, setAsN] = useState(() => {
    const kept = localStorage.getItem("reedmace.basis");
    return kept ? kept === "N" : kitBasis === "N";
  });
  const [at, setAt] = useState<string | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const write = useWrite(tankId);
  const read = useCompute("read-test-line", line.trim() ? lineQuestion(line) : null);
  const type = (next: string) => {
    setLine(next);
    localStorage.setItem(storageKey, next);
    setProblem(null);
    if (next) onType();
  };
  const send = async (e: SyntheticEvent) => {
    e.preventDefault();
    if (!line.trim()) return;
    setProblem(null);
    try {
      const found = await compute("read-test-line", lineQuestion(line));
      const entry = await write.mutateAsync({
        body: readingOf(form_defaults.reading, found, asN ? "N" : "ion"),
        at: at ?? undefined,
      });
      type("");
      setAt(null);
      onWritten(entry === "held" ? "held" : entry.id);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const values: Partial<Record<string, string>> = {};
  for (const piece of line.trim().split(/\s+(?=[a-z])/i)) {
    const [name, figure] = piece.split(/\s+/);
    if (name) values[name] = figure ?? "";
  }
  const put = (field: Field, figure: string) => {
    const next = { ...values, [NAMES[field]]: figure };
    type(
      FIELDS.map(([f]) => [NAMES[f], next[NAMES[f]] ?? ""] as const)
        .filter(([, v]) => v.trim())
        .map(([k, v]) => `${k} ${v.trim()}`)
        .join(" "),
    );
  };
  return (
    <form onSubmit={(e) => void send(e)} aria-label="Test, typed">
      {boxes ? (
        <Grid data-quick-entry>
          {FIELDS.map(([f, label]) => (
            <TextField
              key={f}
              label={f === "temperature_c" ? unitName("°C") : label}
              value={values[NAMES[f]] ?? ""}
              inputMode="decimal"
              onChange={(v) => {
                put(f, v);
              }}
            />
          ))}
        </Grid>
      ) : (
        <div data-quick-entry>
          <TextField
            label="Log a test in one line"
            value={line}
            onChange={type}
            placeholder="a 0.5 n 1 no3 20 kh 4 ph 7.4 26C"
          />
        </div>
      )}
      <div className="row">
        <Button type="submit" isDisabled={write.isPending || !line.trim()}>
          Log the test
        </Button>
        <InlineButton
          onPress={() => {
            setAsN(!asN);
            localStorage.setItem("reedmace.basis", asN ? "ion" : "N");
          }}
        >
          Kit reads ppm as {asN ? "nitrogen (N)" : "the ion"}
        </InlineButton>
        <small>
          <Term of="as-ion">which is it?</Term>
        </small>
        <When at={at} onChange={setAt} />
      </div>
      {line.trim() && read.data && !read.error && !read.isPlaceholderData && (
        <p>{`Reads as: ${read.data.verdict}.`}</p>
      )}
      <ProblemNote problem={problem} />
    </form>
  );
}

const Box = styled.div`
  display: grid;
  gap: 4px;
  form {
    display: grid;
    gap: 6px;
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
    align-items: center;
  }
  p {
    font-size: 15px;
    color: var(--ink-soft);
  }
`;
const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(7, minmax(0, 1fr));
  gap: 8px;
  ${phone} {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
`;
