/** Verdicts, cautions, problems, loading and empty states. */
import { useEffect, useRef, type ReactNode } from "react";
import { styled } from "styled-components";
import type { ProblemError } from "../api/client";

export const Verdict = styled.h1<{ $small?: boolean }>`
  ${(p) => (p.$small ? "font-size: 1.625rem;" : "")}
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
  font-size: 0.9375rem;
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
    font-size: 0.9375rem;
  }
`;

/** Focus the first faulty field of a refused form, or else the note; whoever is typing stays where they type. */
function toTheFault(note: HTMLElement | null): void {
  const at = document.activeElement;
  if (!note || (at instanceof HTMLElement && at.matches("input, textarea, [contenteditable]"))) return;
  const form = note.closest("form, section");
  const faulty = form?.querySelector<HTMLElement>(
    'input[aria-invalid="true"], textarea[aria-invalid="true"]',
  );
  (faulty ?? note).focus();
}

/** What happened, and what to do; children are the actions. `heads` where the page has no other heading. */
export function ProblemNote({
  problem,
  heads = false,
  children,
}: {
  problem: ProblemError | null | undefined;
  heads?: boolean;
  children?: ReactNode;
}) {
  const note = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (problem) toTheFault(note.current);
  }, [problem]);
  if (!problem) return null;
  // A single fault usually equals the detail; show it only when it adds something.
  const said = problem.errors.length === 1 && problem.detail.includes(problem.errors[0]?.what ?? "");
  return (
    <ProblemBox role="alert" ref={note} tabIndex={-1}>
      {heads ? <h1>{problem.title}</h1> : <strong>{problem.title}</strong>}
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

/** The heading of a page while its own is on the way: a page is never without one. */
export function WaitingPage({ children }: { children: ReactNode }) {
  return (
    <Opening data-waiting="">
      <span role="status">{children}</span>
    </Opening>
  );
}

const Opening = styled.h1`
  color: var(--ink-soft);
  font:
    italic 400 1rem "Source Sans 3",
    sans-serif;
  margin: 1em 0;
`;

/** A word with a capital first letter. */
export const Capital = styled.b`
  display: inline-block;
  font-weight: inherit;
  &::first-letter {
    text-transform: uppercase;
  }
`;
