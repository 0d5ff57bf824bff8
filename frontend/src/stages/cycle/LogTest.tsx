/** Logging a test: one line, or a tap and a figure each. */
import { useState, type SyntheticEvent } from "react";
import { styled } from "styled-components";
import { compute, ProblemError } from "../../api/client";
import { useCompute, useWrite } from "../../api/hooks";
import type { Reading } from "../../api/schemas";
import { Button, InlineButton, phone, ProblemNote, TextField } from "../../kit";

const FIELDS = [
  ["ammonia_ppm", "Ammonia"],
  ["nitrite_ppm", "Nitrite"],
  ["nitrate_ppm", "Nitrate"],
  ["ph", "pH"],
  ["kh_dkh", "KH"],
  ["temperature_c", "°C"],
] as const;
type Field = (typeof FIELDS)[number][0];
const NAMES: Record<Field, string> = {
  ammonia_ppm: "a",
  nitrite_ppm: "n",
  nitrate_ppm: "no3",
  ph: "ph",
  kh_dkh: "kh",
  temperature_c: "t",
};

export function LogTest({ tankId }: { tankId: number }) {
  const shelf = `reedmace.draft.${tankId}.line`;
  const [line, setLine] = useState(() => localStorage.getItem(shelf) ?? "");
  const [boxes, setBoxes] = useState(false);
  const [asN, setAsN] = useState(() => localStorage.getItem("reedmace.basis") === "N");
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const write = useWrite(tankId);
  const undo = useWrite(tankId);
  const read = useCompute("read-test-line", line.trim() ? { text: line } : null);
  const type = (next: string) => {
    setLine(next);
    localStorage.setItem(shelf, next);
    setProblem(null);
  };
  const send = async (e: SyntheticEvent) => {
    e.preventDefault();
    if (!line.trim()) return;
    setProblem(null);
    try {
      const found = await compute("read-test-line", { text: line });
      const body: Reading = {
        kind: "reading",
        basis: asN ? "N" : "ion",
        off_scale: found.off_scale,
        ...Object.fromEntries(FIELDS.map(([f]) => [f, found[f] ?? null])),
      };
      await write.mutateAsync({ body });
      type("");
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
  const written = write.data && write.data !== "held" ? write.data : null;
  return (
    <Box onSubmit={(e) => void send(e)} aria-label="Log a test">
      {boxes ? (
        <Grid>
          {FIELDS.map(([f, label]) => (
            <TextField
              key={f}
              label={label}
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
            setBoxes(!boxes);
          }}
        >
          {boxes ? "One line" : "A box each"}
        </InlineButton>
        <InlineButton
          onPress={() => {
            setAsN(!asN);
            localStorage.setItem("reedmace.basis", asN ? "ion" : "N");
          }}
        >
          Kit reads ppm as {asN ? "nitrogen (N)" : "the ion"}
        </InlineButton>
      </div>
      <p role="status">
        {line.trim() && read.data && !read.error && !read.isPlaceholderData
          ? `Reads as: ${read.data.verdict}.`
          : !line.trim() && written
            ? "Logged. "
            : write.data === "held" && !line.trim()
              ? "Kept on this device; it will be sent when the connection is back."
              : ""}
        {!line.trim() && written && (
          <InlineButton
            onPress={() => {
              undo.mutate(
                { body: { kind: "withdrawal" }, supersedes: written.id },
                {
                  onSuccess: () => {
                    write.reset();
                  },
                },
              );
            }}
          >
            Undo
          </InlineButton>
        )}
      </p>
      <ProblemNote problem={problem} />
    </Box>
  );
}

const Box = styled.form`
  display: grid;
  gap: 6px;
  .row {
    display: flex;
    flex-wrap: wrap;
    gap: 6px 18px;
    align-items: center;
  }
  p {
    font-size: 15px;
    color: var(--ink-soft);
    min-height: 21px;
  }
`;
const Grid = styled.div`
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 8px;
  ${phone} {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
`;
