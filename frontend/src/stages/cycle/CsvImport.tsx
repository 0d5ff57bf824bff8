/** Import of past readings from any CSV: column mapping, and every fault, before anything is written. */
import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { FileTrigger } from "react-aria-components";
import { styled } from "styled-components";
import { ask, client, ProblemError } from "../../api/client";
import { refresh } from "../../api/entries";
import { WATER_PARAMETERS } from "../../api/waterParameters";
import type { CsvPreview, FoundColumn, MappedCsv } from "../../api/schemas";
import { Button, Lead, ProblemNote, Select } from "../../kit";
import { Bar } from "../../kit";
import { Table } from "./Ready";
import { parameterCell, parameterLabel, parametersRead } from "../../quantity/waterParameters";
import { LOCALE } from "../../quantity/locale";

type Target = FoundColumn["target"];
type Unit = FoundColumn["unit"];

const TARGETS: readonly (readonly [Target, string])[] = [
  ["skip", "leave it out"],
  ["date", "date"],
  ["time", "time of day"],
  ["basis", "ion or N, by row"],
  ...WATER_PARAMETERS.map(
    (one) => [one.key, one.label.replace(/^[A-Z](?=[a-z])/, (c) => c.toLowerCase())] as const,
  ),
];
const UNITS: Partial<Record<Target, readonly (readonly [Unit, string])[]>> = Object.fromEntries(
  WATER_PARAMETERS.filter((one) => one.units.length > 0).map((one) => [one.key, one.units]),
);

export function CsvImport({ tankId }: { tankId: number }) {
  const queries = useQueryClient();
  const [question, setQuestion] = useState<MappedCsv | null>(null);
  const [preview, setPreview] = useState<CsvPreview | null>(null);
  const [problem, setProblem] = useState<ProblemError | null>(null);
  const [said, setSaid] = useState("");
  const path = { params: { path: { tank_id: tankId } } };
  const attempt = async (work: () => Promise<void>) => {
    try {
      setProblem(null);
      await work();
    } catch (error) {
      if (error instanceof ProblemError) setProblem(error);
      else throw error;
    }
  };
  const look = (next: MappedCsv) =>
    attempt(async () => {
      setQuestion(next);
      setPreview(await ask(client.POST("/api/tanks/{tank_id}/readings/preview", { ...path, body: next })));
    });
  const take = async (files: FileList | null) => {
    const file = files?.[0];
    if (!file) return;
    setSaid("");
    await look({ text: await file.text(), zone_offset_minutes: -new Date().getTimezoneOffset() });
  };
  const map = (column: string, change: Partial<FoundColumn>) => {
    if (!question || !preview) return;
    const columns = preview.columns.map((c) => {
      const next = c.column === column ? { ...c, ...change } : c;
      const units = UNITS[next.target];
      const unit: Unit = units?.some(([u]) => u === next.unit) ? next.unit : (units?.[0]?.[0] ?? "");
      return { column: next.column, target: next.target, unit };
    });
    void look({ ...question, columns });
  };
  const write = () =>
    attempt(async () => {
      if (!question) return;
      const done = await ask(
        client.POST("/api/tanks/{tank_id}/readings/import", { ...path, body: question }),
      );
      setSaid(`${done.added} readings written${done.known ? `, ${done.known} were there already` : ""}.`);
      setPreview(null);
      setQuestion(null);
      await refresh(queries, tankId);
    });
  return (
    <section aria-label="Readings from a CSV">
      <Bar>
        <FileTrigger acceptedFileTypes={["text/csv", ".csv", ".txt"]} onSelect={(f) => void take(f)}>
          <Button $quiet>Take readings from a CSV</Button>
        </FileTrigger>
        <span role="status">{said}</span>
      </Bar>
      <ProblemNote problem={problem} />
      {preview && question && (
        <>
          <PreviewSummary preview={preview} />
          <Columns columns={preview.columns} onChange={map} />
          <DateOrder
            order={preview.date_order as Order}
            onChange={(date_order) => void look({ ...question, date_order })}
          />
          <FaultList faults={preview.faults} />
          {preview.rows.length > 0 && <ReadingRows rows={preview.rows} />}
          <ImportButtons
            preview={preview}
            onWrite={() => void write()}
            onLeave={() => {
              setPreview(null);
              setQuestion(null);
            }}
          />
        </>
      )}
    </section>
  );
}

/** The first thirty readings that would be written. */
function ReadingRows({ rows }: { rows: CsvPreview["rows"] }) {
  const columns = parametersRead(rows.map((r) => r.reading));
  return (
    <Scroll>
      <Table>
        <thead>
          <tr>
            <th>Line</th>
            <th>When</th>
            {columns.map((one) => (
              <th key={one.field}>{parameterLabel(one)}</th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, 30).map((r) => (
            <tr key={r.line}>
              <th scope="row">{r.line}</th>
              <td>{new Date(r.at).toLocaleString(LOCALE)}</td>
              {columns.map((one) => (
                <td key={one.field}>{parameterCell(one, r.reading[one.field])}</td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </Scroll>
  );
}

interface ColumnsProps {
  columns: FoundColumn[];
  onChange: (column: string, change: Partial<FoundColumn>) => void;
}

/** What each column of the file is taken for. */
function Columns({ columns, onChange }: ColumnsProps) {
  return (
    <Map>
      {columns.map((c) => (
        <li key={c.column}>
          <p>
            <b>{c.column || "(no name)"}</b>
            <small>{c.examples.join(", ")}</small>
          </p>
          <Select
            label={`${c.column} is`}
            value={c.target}
            onChange={(target) => {
              onChange(c.column, { target });
            }}
            options={TARGETS}
          />
          {UNITS[c.target] && (
            <Select
              label={`${c.column} in`}
              value={c.unit}
              onChange={(unit) => {
                onChange(c.column, { unit });
              }}
              options={UNITS[c.target] ?? []}
            />
          )}
        </li>
      ))}
    </Map>
  );
}

interface ImportButtonsProps {
  preview: CsvPreview;
  onWrite: () => void;
  onLeave: () => void;
}

function ImportButtons({ preview, onWrite, onLeave }: ImportButtonsProps) {
  return (
    <Bar>
      <Button isDisabled={preview.faults.length > 0 || preview.good === 0} onPress={onWrite}>
        Write {preview.good - preview.known} readings
      </Button>
      <Button $quiet onPress={onLeave}>
        Leave it
      </Button>
    </Bar>
  );
}

function PreviewSummary({ preview }: { preview: CsvPreview }) {
  return (
    <Lead>
      {preview.good} row{preview.good === 1 ? "" : "s"} can be written
      {preview.known ? `, ${preview.known} of them are in the logbook already` : ""};{" "}
      {preview.faults.length ? `${preview.faults.length} faults.` : "no fault."} Nothing is written yet.
    </Lead>
  );
}

type Order = NonNullable<MappedCsv["date_order"]>;

function DateOrder({ order, onChange }: { order: Order; onChange: (order: Order) => void }) {
  return (
    <Select
      label="Dates are written"
      value={order}
      onChange={onChange}
      options={[
        ["year-first", "year first"],
        ["day-first", "day first"],
        ["month-first", "month first"],
      ]}
    />
  );
}

function FaultList({ faults }: { faults: CsvPreview["faults"] }) {
  if (faults.length === 0) return null;
  return (
    <Faults aria-label="Faults in the file">
      {faults.map((f) => (
        <li key={`${f.where}${f.what}`}>
          {f.where.replace(/^./, (letter) => letter.toUpperCase())}: {f.what}
        </li>
      ))}
    </Faults>
  );
}

const Map = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 10px 16px;
  li {
    display: grid;
    gap: 4px;
    align-content: start;
    border-top: 1px solid var(--line);
    padding-top: 4px;
  }
  p {
    display: grid;
  }
  small {
    color: var(--ink-soft);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
    font-size: 0.875rem;
  }
`;
const Faults = styled.ul`
  border-left: 4px solid var(--alarm);
  padding-left: 10px;
  max-height: 160px;
  overflow: auto;
  font-size: 0.9375rem;
`;
const Scroll = styled.div`
  overflow: auto;
  max-height: 260px;
`;
