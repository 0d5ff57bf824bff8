/** Disclosure whose content is mounted on first opening and kept. */
import { Suspense, useState, type ReactNode, type Ref } from "react";
import { Waiting } from "./notes";

interface Props {
  summary: ReactNode;
  children: ReactNode;
  /** Whether it stands open at first. Default: false. */
  open?: boolean;
  /** The element, to be opened from elsewhere. */
  ref?: Ref<HTMLDetailsElement>;
}

export function Fold({ summary, children, ref, open = false }: Props) {
  const [opened, setOpened] = useState(open);
  return (
    <details
      ref={ref}
      open={open || undefined}
      onToggle={(e) => {
        if (e.currentTarget.open) setOpened(true);
      }}
    >
      <summary>{summary}</summary>
      {opened && <Suspense fallback={<Waiting>Opening it…</Waiting>}>{children}</Suspense>}
    </details>
  );
}
