/** Logging a test: by tapping the kit's steps, in one line, or by figures. */
import { useRef, useState, type SyntheticEvent } from "react";
import { Link } from "react-router";
import { styled } from "styled-components";
import { compute, ProblemError } from "../../api/client";
import { WATER_PARAMETERS } from "../../api/waterParameters";
import { useBlanks } from "../../api/tables";
import { useCompute } from "../../api/compute";
import { useWrite } from "../../api/entries";
import { usePracticeTank, useVials } from "../../api/practice";
import type { KitSteps, LogbookState } from "../../api/schemas";
import { Bar, Button, HowTo, InlineButton, phone, ProblemNote, TextField, Term } from "../../kit";
import { usePhone } from "../../kit/usePhone";
import { TapTest } from "./TapTest";
import { VialTimers } from "./VialTimers";
import { readingOf, lineQuestion } from "../../shared/testLine";
import { When } from "../../shared/When";
import { unitName } from "../../quantity/format";
import { parameterLabel } from "../../quantity/waterParameters";

type Way = "taps" | "line" | "boxes";
const WAY_KEY = "reedmace.logtest";

export function LogTest({ tankId, logbook }: { tankId: number; logbook: LogbookState }) {
  const small = usePhone();
  const [way, setWay] = useState<Way | null>(() => localStorage.getItem(WAY_KEY) as Way | null);
  const chosen = way ?? (small ? "taps" : "line");
  const kit = logbook.plans.kit.kit;
  const [written, setWritten] = useState<number | "held" | null>(null);
  const undo = useWrite(tankId);
  const practice = usePracticeTank();
  const choose = (next: Way) => {
    setWay(next);
    localStorage.setItem(WAY_KEY, next);
  };
  return (
    <Box role="group" aria-label="Log a test">
      {practice ? (
        <PracticeTest tankId={tankId} kit={kit} minute={practice.day} onWritten={setWritten} />
      ) : chosen === "taps" ? (
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
      {!practice && (
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
      )}
      {!practice && <VialTimers />}
      {!practice && <Link to={`/tanks/${tankId}/cycle/vial`}>Read a vial by a picture</Link>}
      <HowTo of={["run-test", "shake-nitrate", "old-kit"]}>
        How to run a test, and whether to believe it
      </HowTo>
    </Box>
  );
}

interface PracticeTestProps {
  tankId: number;
  kit: Required<KitSteps>;
  /** Moment of the practice clock. */
  minute: number;
  onWritten: (id: number | "held") => void;
}

/** A test of a practice tank: the kit is run, its vials are read against the steps, or entered for the keeper. */
function PracticeTest({ tankId, kit, minute, onWritten }: PracticeTestProps) {
  const [run, setRun] = useState<number | null>(null);
  const [other, setOther] = useState(false);
  // A test is of the moment it is run at; when time has passed it is run anew.
  const running = run === minute;
  const vials = useVials(tankId, running, other);
  const write = useWrite(tankId);
  const blank = useBlanks().reading;
  if (!running || !vials.data)
    return (
      <Bar>
        <Button
          isDisabled={vials.isFetching}
          onPress={() => {
            setOther(false);
            setRun(minute);
          }}
        >
          Run the test kit
        </Button>
        <InlineButton
          onPress={() => {
            setOther(true);
            setRun(minute);
          }}
        >
          Borrow another kit
        </InlineButton>
        <span>Vials of ammonia, nitrite, nitrate; KH by drops, pH.</span>
      </Bar>
    );
  const { entered } = vials.data;
  const { reads } = vials.data.vials;
  if (entered)
    return (
      <Bar>
        <Button
          isDisabled={write.isPending}
          onPress={() => {
            write.mutate(
              { body: { ...blank, ...entered } },
              {
                onSuccess: (entry) => {
                  setRun(null);
                  onWritten(entry === "held" ? "held" : entry.id);
                },
              },
            );
          }}
        >
          Log what it reads
        </Button>
        <span>{readWords(entered)}</span>
        <ProblemNote problem={write.error} />
      </Bar>
    );
  return (
    <>
      <p>Lay each vial against the steps, press the one it looks like; between two, the nearer.</p>
      <TapTest
        tankId={tankId}
        kit={kit}
        shown={vials.data}
        borrowed={other}
        onWritten={(id) => {
          setRun(null);
          onWritten(id);
        }}
      />
      <small>
        KH {reads.kh_dkh} dKH by drops, pH {reads.ph}, {reads.temperature_c} °C: logged with it.
      </small>
    </>
  );
}

function readWords(entered: Record<string, unknown>): string {
  return `ammonia ${String(entered.ammonia_ppm)}, nitrite ${String(entered.nitrite_ppm)}, nitrate ${String(entered.nitrate_ppm)}, KH ${String(entered.kh_dkh)}, pH ${String(entered.ph)}`;
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
  const latest = useRef(line);
  const type = (next: string) => {
    latest.current = next;
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
      // What was typed on while this one was on its way stays.
      if (latest.current === line) type("");
      setAt(null);
      onWritten(entry === "held" ? "held" : entry.id);
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  return (
    <form onSubmit={(e) => void send(e)} aria-label="Test, typed">
      {boxes ? (
        <Boxes line={line} onLine={type} />
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

/** One box a figure, for who does not write lines; they make the same line. */
function Boxes({ line, onLine }: { line: string; onLine: (line: string) => void }) {
  const values: Partial<Record<string, string>> = {};
  for (const piece of line.trim().split(/\s+(?=[a-z])/i)) {
    const [name, figure] = piece.split(/\s+/);
    if (name) values[name] = figure ?? "";
  }
  const put = (letter: string, figure: string) => {
    const next = { ...values, [letter]: figure };
    onLine(
      WATER_PARAMETERS.map((one) => [one.letter, next[one.letter] ?? ""] as const)
        .filter(([, v]) => v.trim())
        .map(([k, v]) => `${k} ${v.trim()}`)
        .join(" "),
    );
  };
  return (
    <Grid data-quick-entry>
      {WATER_PARAMETERS.map((one) => (
        <TextField
          key={one.field}
          label={one.unit === "°C" ? unitName("°C") : parameterLabel(one)}
          value={values[one.letter] ?? ""}
          inputMode="decimal"
          onChange={(v) => {
            put(one.letter, v);
          }}
        />
      ))}
    </Grid>
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
    font-size: 0.9375rem;
    color: var(--ink-soft);
  }
`;
const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(5, minmax(0, 1fr));
  gap: 8px;
  ${phone} {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
`;
