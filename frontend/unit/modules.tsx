/** The front end's own modules on a bare page, for the tests in `tests/unit`. */
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { useRef, type ReactNode } from "react";
import { createRoot } from "react-dom/client";
import * as clock from "../src/api/clock";
import * as creatingKeys from "../src/api/creatingKeys";
import * as drafts from "../src/api/drafts";
import * as outbox from "../src/api/outbox";
import { invalidate, replaceData } from "../src/api/replaceData";
import * as units from "../src/api/units";
import { useOutbox } from "../src/api/useOutbox";
import * as format from "../src/quantity/format";
import * as locale from "../src/quantity/locale";
import { useTypedFigure } from "../src/quantity/useTypedFigure";
import * as parameters from "../src/quantity/waterParameters";
import { WEEKDAYS } from "../src/quantity/weekdays";
import { useKeptApart } from "../src/section/labelPlacement";
import * as cycleDates from "../src/shared/cycleDates";
import * as entryWords from "../src/shared/entryWords";
import * as cardLayout from "../src/stages/cycle/cardLayout";
import * as cardTouches from "../src/stages/cycle/cardTouches";

/** Newest result of each mounted hook, by the name it was mounted under. */
const results: Record<string, unknown> = {};
const queries = new QueryClient();

interface ProbeProps {
  name: string;
  hook: () => unknown;
}

function Probe({ name, hook }: ProbeProps) {
  results[name] = hook();
  return null;
}

function draw(child: ReactNode): () => void {
  const root = createRoot(document.body.appendChild(document.createElement("div")));
  root.render(<QueryClientProvider client={queries}>{child}</QueryClientProvider>);
  return () => {
    root.unmount();
  };
}

/** Run a hook in a component; its newest result stands under its name. */
function mount(name: string, hook: () => unknown): () => void {
  return draw(<Probe name={name} hook={hook} />);
}

function Sheet({ inside }: { inside: string }) {
  const sheet = useRef<SVGSVGElement>(null);
  useKeptApart(sheet);
  return (
    <svg
      ref={sheet}
      viewBox="0 0 400 200"
      width="400"
      height="200"
      style={{ font: "14px monospace" }}
      dangerouslySetInnerHTML={{ __html: inside }}
    />
  );
}

const modules = {
  cardLayout,
  cardTouches,
  clock,
  creatingKeys,
  cycleDates,
  drafts,
  entryWords,
  format,
  invalidate,
  locale,
  mount,
  outbox,
  parameters,
  QueryClient,
  replaceData,
  results,
  units,
  useOutbox,
  useTypedFigure,
  WEEKDAYS,
  /** Draw an SVG whose labels step aside. */
  labels: (inside: string) => draw(<Sheet inside={inside} />),
};

declare global {
  interface Window {
    modules: typeof modules;
  }
}
window.modules = modules;
