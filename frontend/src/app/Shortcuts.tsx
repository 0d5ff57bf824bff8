/** Keyboard shortcuts, listed on "?". */
import { useEffect, useState } from "react";
import { Dialog, Heading, Modal, ModalOverlay } from "react-aria-components";
import { useLocation, useNavigate } from "react-router";
import { styled } from "styled-components";
import { Button } from "../kit";

const STAGES = ["tank", "stock", "filter", "fit", "cycle", "keep"];
/** Whether the focus takes keys itself, so that no shortcut applies. */
const TYPING = "input:not([type=checkbox]):not([type=radio]), textarea, [role=listbox], [role=menu]";
const LIST: [string, string][] = [
  ["1 to 6", "the stages, Tank to Keep"],
  ["t", "Today"],
  ["l", "log a test in one line (on Cycle)"],
  ["?", "this list"],
  ["Esc", "close what is open"],
];

export function Shortcuts() {
  const [open, setOpen] = useState(false);
  const navigate = useNavigate();
  const { pathname } = useLocation();
  useEffect(() => {
    const pressed = (e: KeyboardEvent) => {
      const target = e.target as HTMLElement;
      if (e.ctrlKey || e.metaKey || e.altKey || target.closest(TYPING)) return;
      const stage = STAGES[Number(e.key) - 1];
      const tank = /^\/tanks\/(\d+)\//.exec(pathname)?.[1];
      if (e.key === "?") setOpen(true);
      else if (e.key === "t") void navigate("/today");
      else if (e.key === "l") {
        const field = document.querySelector<HTMLElement>(
          "[data-quick-entry] input, [data-quick-entry] button",
        );
        if (!field) return;
        e.preventDefault();
        field.focus();
      } else if (stage && tank) void navigate(`/tanks/${tank}/${stage}`);
    };
    window.addEventListener("keydown", pressed);
    return () => {
      window.removeEventListener("keydown", pressed);
    };
  }, [navigate, pathname]);
  return (
    <Shade isOpen={open} onOpenChange={setOpen} isDismissable>
      <Box>
        <Dialog>
          {({ close }) => (
            <>
              <Heading slot="title">Keys</Heading>
              <dl>
                {LIST.map(([key, what]) => (
                  <div key={key}>
                    <dt>{key}</dt>
                    <dd>{what}</dd>
                  </div>
                ))}
              </dl>
              <Button $quiet onPress={close}>
                Close
              </Button>
            </>
          )}
        </Dialog>
      </Box>
    </Shade>
  );
}

const Shade = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  background: var(--shade);
  display: grid;
  place-items: center;
  z-index: 25;
`;
const Box = styled(Modal)`
  background: var(--paper);
  border: 1px solid var(--line);
  padding: 20px 26px;
  min-width: 320px;
  [role="dialog"] {
    display: grid;
    gap: 12px;
    outline: none;
  }
  dl div {
    display: grid;
    grid-template-columns: 70px 1fr;
    padding: 3px 0;
  }
  dt {
    font-weight: 600;
  }
`;
