/** Disclosure whose content is mounted on first opening and kept. */
import { Suspense, useState, type ReactNode, type Ref } from "react";
import { Waiting } from "./notes";

interface Props {
  summary: ReactNode;
  children: ReactNode;
  /** The element, to be opened from elsewhere. */
  ref?: Ref<HTMLDetailsElement>;
}

export function Fold({ summary, children, ref }: Props) {
  const [opened, setOpened] = useState(false);
  return (
    <details
      ref={ref}
      onToggle={(e) => {
        if (e.currentTarget.open) setOpened(true);
      }}
    >
      <summary>{summary}</summary>
      {opened && <Suspense fallback={<Waiting>Opening it…</Waiting>}>{children}</Suspense>}
    </details>
  );
}
