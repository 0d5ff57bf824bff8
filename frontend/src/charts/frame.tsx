/** Frame of a chart: a summary sentence, and its figures as a table. */
import type { ReactNode } from "react";
import { styled } from "styled-components";

interface ChartFrameProps {
  title: string;
  /** A glossary word in the title. */
  word?: ReactNode;
  sentence: string;
  /** The text beside the chart says it already; keep the summary for screen readers. */
  quiet?: boolean;
  columns: string[];
  rows: (string | number)[][];
  children: ReactNode;
}

export function ChartFrame({ title, word, sentence, quiet, columns, rows, children }: ChartFrameProps) {
  return (
    <Figure>
      <h2>
        {title} <small>{word}</small>
      </h2>
      {children}
      {!quiet && <figcaption>{sentence}</figcaption>}
      <details>
        <summary>As a table</summary>
        <table>
          <thead>
            <tr>
              {columns.map((c) => (
                <th key={c} scope="col">
                  {c}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <tr key={i}>
                {row.map((cell, j) => (
                  <td key={j}>{cell}</td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </Figure>
  );
}

const Figure = styled.figure`
  margin: 0;
  display: grid;
  gap: 4px;
  min-width: 0;
  svg {
    display: block;
    width: 100%;
    height: auto;
    overflow: visible;
  }
  svg text {
    font:
      400 min(0.9063rem, 20px) "Source Sans 3",
      sans-serif;
    fill: var(--ink);
  }
  svg .soft {
    fill: var(--ink-soft);
  }
  svg .strong {
    font-weight: 600;
  }
  svg .halo {
    paint-order: stroke;
    stroke: var(--paper);
    stroke-width: 4px;
    stroke-linejoin: round;
  }
  figcaption {
    color: var(--ink-soft);
    font-size: 0.9375rem;
  }
  grid-template-columns: minmax(0, 1fr) auto;
  > * {
    grid-column: 1 / -1;
  }
  > h2 {
    grid-column: 1;
    grid-row: 1;
  }
  > details {
    font-size: 0.875rem;
    grid-column: 2;
    grid-row: 1;
  }
  > details[open] {
    grid-column: 1 / -1;
    grid-row: auto;
  }
  summary {
    cursor: pointer;
    color: var(--ink-soft);
    min-height: 24px;
  }
  table {
    border-collapse: collapse;
    margin-top: 4px;
  }
  th,
  td {
    text-align: left;
    padding: 2px 14px 2px 0;
    border-bottom: 1px solid var(--line);
  }
`;
