/** Verdicts, cautions, problems, loading and empty states. */
import type { ReactNode } from "react";
import { styled } from "styled-components";
import type { ProblemError } from "../api/client";

export const Verdict = styled.h1<{ $small?: boolean }>`
  ${(p) => (p.$small ? "font-size: 26px;" : "")}
  em {
    font-style: normal;
    color: var(--seed);
  }
`;

export const Lead = styled.p`
  color: var(--ink-soft);
  max-width: 68ch;
`;

export const Caution = styled.p`
  border-left: 3px solid var(--seed);
  padding: 2px 0 2px 10px;
  font-size: 15px;
  color: var(--ink-soft);
`;

const ProblemBox = styled.div`
  border: 1px solid var(--alarm);
  border-left-width: 4px;
  border-radius: 4px;
  background: var(--alarm-fill);
  padding: 8px 12px;
  display: grid;
  gap: 4px;
  li {
    font-size: 15px;
  }
`;

/** What happened, and what to do; children are the actions. */
export function ProblemNote({
  problem,
  children,
}: {
  problem: ProblemError | null | undefined;
  children?: ReactNode;
}) {
  if (!problem) return null;
  // A single fault usually equals the detail; show it only when it adds something.
  const said = problem.errors.length === 1 && problem.detail.includes(problem.errors[0]?.what ?? "");
  return (
    <ProblemBox role="alert">
      <strong>{problem.title}</strong>
      <p>{problem.detail}</p>
      {problem.requestId && <p>For whoever runs this: request {problem.requestId}.</p>}
      {problem.errors.length > 0 && !said && (
        <ul>
          {problem.errors.map((e) => (
            <li key={e.where + e.what}>
              {e.where}: {e.what} {e.remedy}
            </li>
          ))}
        </ul>
      )}
      {children}
    </ProblemBox>
  );
}

export const Waiting = styled.p.attrs({ role: "status" })`
  color: var(--ink-soft);
  font-style: italic;
`;

/** A word with a capital first letter. */
export const Capital = styled.b`
  display: inline-block;
  font-weight: inherit;
  &::first-letter {
    text-transform: uppercase;
  }
`;
