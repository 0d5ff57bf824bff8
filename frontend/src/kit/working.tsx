/** The working behind a number: formula, numbers put in, value, unit, source. */
import { createContext, useContext, useMemo, useState, type ReactNode } from "react";
import { Button as AriaButton, Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import { styled } from "styled-components";
import { useTables } from "../api/tables";
import type { WorkingLine } from "../api/schemas";
import { Button } from "./controls";
import { phone } from "./theme";
import { withMark } from "../quantity/format";

interface Shown {
  title: string;
  lines: WorkingLine[];
  /** The answer's field whose figure was pressed. */
  of?: string;
}
const Opener = createContext<(shown: Shown) => void>(() => undefined);

export function WorkingProvider({ children }: { children: ReactNode }) {
  const [shown, setShown] = useState<Shown | null>(null);
  const tables = useTables();
  const titles = useMemo(
    () => new Map(tables.data?.sources.map((s) => [s.key, s] as const) ?? []),
    [tables.data?.sources],
  );
  return (
    <Opener value={setShown}>
      {children}
      <Overlay
        isOpen={shown !== null}
        isDismissable
        onOpenChange={(open) => {
          if (!open) setShown(null);
        }}
      >
        <Drawer>
          <Dialog>
            {({ close }) => (
              <>
                <Head>
                  <Heading slot="title">{shown?.title}</Heading>
                  <Button $quiet onPress={close}>
                    Close
                  </Button>
                </Head>
                <p>
                  Each line can be followed on paper: the formula, the figures put in, and where it comes
                  from.
                </p>
                <Lines>
                  {linesOf(shown).map((line, i) => (
                    <li key={i} data-own={(shown?.of && line.gives.includes(shown.of)) || undefined}>
                      <div>
                        <b>{line.symbol || "="}</b> = {line.formula}
                      </div>
                      <div>
                        = {line.with_numbers} = <b>{show(line.value)}</b> {line.unit}
                      </div>
                      <small>
                        {titles.get(line.source)?.title ?? line.source}
                        {titles.get(line.source) && <i> ({titles.get(line.source)?.provenance})</i>}
                      </small>
                    </li>
                  ))}
                  {shown?.lines.length === 0 && <li>No sums were needed for this.</li>}
                </Lines>
              </>
            )}
          </Dialog>
        </Drawer>
      </Overlay>
    </Opener>
  );
}

/** The lines that lead to the figure, its own last; all of them where no line is its own. */
function linesOf(shown: Shown | null): WorkingLine[] {
  if (!shown) return [];
  const { lines, of } = shown;
  const own = of ? lines.findLastIndex((l) => l.gives.includes(of)) : -1;
  return own < 0 ? lines : lines.slice(0, own + 1);
}

/** A number that opens its working. */
export function Figure({
  title,
  lines,
  of,
  children,
  label,
}: {
  title: string;
  lines?: WorkingLine[];
  /** The answer's field this figure shows. Default: the whole answer. */
  of?: string;
  children: ReactNode;
  label?: string;
}) {
  const open = useContext(Opener);
  return (
    <NumberButton
      aria-label={label}
      onPress={() => {
        open({ title, lines: lines ?? [], of });
      }}
    >
      {children}
    </NumberButton>
  );
}

function show(value: number): string {
  const size = Math.abs(value);
  if (size === 0) return "0";
  if (size >= 1000) return value.toFixed(0);
  if (size >= 0.01) return withMark(String(Number(value.toPrecision(4))));
  return value.toExponential(2);
}

const NumberButton = styled(AriaButton)`
  font: inherit;
  color: inherit;
  background: none;
  border: 0;
  padding: 1px 0;
  cursor: pointer;
  text-align: inherit;
  text-decoration: underline dotted 1.5px;
  text-decoration-color: var(--water);
  text-underline-offset: 0.18em;
  &[data-hovered] {
    text-decoration-style: solid;
    text-decoration-color: var(--seed);
  }
`;
const Overlay = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: var(--shade);
  z-index: 20;
`;
const Drawer = styled(Modal)`
  position: fixed;
  inset: 0 0 0 auto;
  width: min(520px, 100vw);
  background: var(--paper);
  border-left: 1px solid var(--line);
  overflow: auto;
  padding: 22px 26px;
  ${phone} {
    padding: 16px;
  }
  [role="dialog"] {
    outline: none;
    display: grid;
    gap: 12px;
  }
  h2 {
    font:
      600 1.375rem/1.2 Vollkorn,
      serif;
  }
`;
const Head = styled.div`
  display: flex;
  justify-content: space-between;
  align-items: start;
  gap: 12px;
`;
const Lines = styled.ol`
  li {
    border-top: 1px solid var(--line);
    padding: 7px 0;
    overflow-wrap: anywhere;
  }
  li[data-own] {
    border-left: 4px solid var(--seed);
    padding-left: 10px;
  }
  small {
    color: var(--ink-soft);
    font-size: 0.875rem;
  }
`;
