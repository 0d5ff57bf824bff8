/** Every test, with its corrections. */
import { range } from "../../api/range";
import { useState } from "react";
import { styled } from "styled-components";
import { ProblemError } from "../../api/client";
import { useEntries } from "../../api/tanks";
import { useWrite } from "../../api/entries";
import { WATER_PARAMETERS, type WaterParameter } from "../../api/waterParameters";
import type { Entry, Reading, LogbookState } from "../../api/schemas";
import { Button, Fields, InlineButton, Lead, LineLink, ProblemNote, YesNo } from "../../kit";
import { NumberBox, QuantityField } from "../../kit/quantities";
import { Bar } from "../../kit";
import { colourFigure } from "../../shared/entryWords";
import { When } from "../../shared/When";
import { Table } from "./Ready";
import { LOCALE } from "../../quantity/locale";
import { parameterCell, parameterLabel, parametersRead } from "../../quantity/waterParameters";

export function TestsBook({ tankId, logbook }: { tankId: number; logbook: LogbookState }) {
  const entries = useEntries(tankId);
  const [open, setOpen] = useState<number | null>(null);
  const readings = [...logbook.readings].reverse();
  const columns = parametersRead(readings.map((e) => e.body as Reading));
  const byId = new Map((entries.data?.entries ?? []).map((e) => [e.id, e]));
  const earlier = (entry: Entry): Entry[] => {
    const found: Entry[] = [];
    for (let at = entry.supersedes; at != null;) {
      const before = byId.get(at);
      if (!before) break;
      found.push(before);
      at = before.supersedes;
    }
    return found;
  };
  if (readings.length === 0)
    return <Lead>No test yet. The first is the baseline: all three, pH and KH.</Lead>;
  return (
    <section aria-label="Tests">
      <Scroll>
        <Table>
          <thead>
            <tr>
              <th>When</th>
              {columns.map((one) => (
                <th key={one.field}>{parameterLabel(one)}</th>
              ))}
              <th>
                <span>Correct</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {readings.map((entry) => {
              const r = entry.body as Reading;
              return (
                <tr key={entry.id}>
                  <th scope="row">{moment(entry.at)}</th>
                  {columns.map((one) => (
                    <td key={one.field}>{show(r, one)}</td>
                  ))}
                  <td>
                    <InlineButton
                      aria-label={`${earlier(entry).length ? "Corrected" : "Correct"}: the test of ${moment(entry.at)}`}
                      aria-expanded={open === entry.id}
                      onPress={() => {
                        setOpen(open === entry.id ? null : entry.id);
                      }}
                    >
                      {earlier(entry).length ? "corrected" : "correct"}
                    </InlineButton>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      </Scroll>
      <LineLink to={`/tanks/${tankId}/cycle/water`}>The water, species by species</LineLink>
      {readings
        .filter((e) => e.id === open)
        .map((e) => (
          <Correction
            key={e.id}
            tankId={tankId}
            entry={e}
            earlier={earlier(e)}
            onDone={() => {
              setOpen(null);
            }}
          />
        ))}
    </section>
  );
}

interface CorrectionProps {
  tankId: number;
  entry: Entry;
  earlier: Entry[];
  onDone: () => void;
}

function Correction({ tankId, entry, earlier, onDone }: CorrectionProps) {
  const [reading, setReading] = useState(entry.body as Reading);
  const [at, setAt] = useState<string | null>(entry.at);
  const write = useWrite(tankId);
  return (
    <Panel aria-label={`Correct the test of ${moment(entry.at)}`}>
      <FigureFields reading={reading} onChange={setReading} />
      <Bar>
        <When at={at} onChange={setAt} />
        {WATER_PARAMETERS.map(({ ion, key: what, field }) =>
          !ion || reading[field] == null ? null : (
            <YesNo
              key={what}
              label={`${what}: this or more`}
              value={reading.off_scale.includes(what)}
              onChange={(on) => {
                setReading((now) => ({
                  ...now,
                  off_scale: on
                    ? [...new Set([...now.off_scale, what])]
                    : now.off_scale.filter((o) => o !== what),
                }));
              }}
            />
          ),
        )}
      </Bar>
      <YesNo
        label="Read with another kit than the tests before"
        value={reading.other_kit}
        onChange={(on) => {
          setReading((now) => ({ ...now, other_kit: on }));
        }}
      />
      <Bar>
        <Button
          isDisabled={write.isPending}
          onPress={() => {
            write.mutate(
              { body: reading, at: at ?? undefined, supersedes: entry.id },
              {
                onSuccess: onDone,
              },
            );
          }}
        >
          Write the correction
        </Button>
        <Button
          $quiet
          onPress={() => {
            write.mutate({ body: { kind: "withdrawal" }, supersedes: entry.id }, { onSuccess: onDone });
          }}
        >
          Take the test back
        </Button>
        <Button $quiet onPress={onDone}>
          Leave it
        </Button>
      </Bar>
      <ProblemNote problem={write.error instanceof ProblemError ? write.error : null} />
      {earlier.length > 0 && <EarlierReadings entries={earlier} />}
    </Panel>
  );
}

/** What the test said before it was corrected. */
function EarlierReadings({ entries }: { entries: Entry[] }) {
  return (
    <ul>
      {entries.map((e) => (
        <li key={e.id}>
          Before, written {moment(e.written_at)}:{" "}
          {WATER_PARAMETERS.map((one) => {
            const text = show(e.body as Reading, one);
            return text ? `${one.label} ${text}` : "";
          })
            .filter(Boolean)
            .join(", ")}
        </li>
      ))}
    </ul>
  );
}

interface FigureFieldsProps {
  reading: Reading;
  onChange: (change: (now: Reading) => Reading) => void;
}

function FigureFields({ reading, onChange }: FigureFieldsProps) {
  return (
    <Fields $min={92}>
      {WATER_PARAMETERS.map((one) => {
        const props = {
          value: reading[one.field] ?? null,
          onChange: (v: number | null) => {
            // A corrected figure has no range any more.
            onChange((now) => ({
              ...now,
              [one.field]: v,
              between: now.between.filter((span) => one.field !== `${span.what}_ppm`),
            }));
          },
        };
        return one.unit === "°C" ? (
          <QuantityField key={one.field} label={one.label} unit="°C" {...props} />
        ) : (
          <NumberBox
            key={one.field}
            label={parameterLabel(one)}
            {...range(`Reading.${one.field}`)}
            {...props}
          />
        );
      })}
    </Fields>
  );
}

function show(r: Reading, one: WaterParameter): string {
  return one.ion ? (colourFigure(r, one.key) ?? "") : parameterCell(one, r[one.field]);
}

function moment(at: string): string {
  return new Date(at).toLocaleString(LOCALE, {
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
  });
}

const Scroll = styled.div`
  /* Its hidden words stay inside it: on a phone they made the page wider. */
  position: relative;
  overflow-x: auto;
  max-height: 340px;
  overflow-y: auto;
  thead span {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
`;
const Panel = styled.section`
  background: var(--silt);
  padding: 10px 12px;
  display: grid;
  gap: 10px;
  ul {
    font-size: 0.9375rem;
    color: var(--ink-soft);
  }
`;
