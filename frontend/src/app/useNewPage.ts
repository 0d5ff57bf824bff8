/** After a change of page: to its top, and the focus to its heading once it is drawn, so that it is read out. */
import { useEffect, useRef } from "react";
import { useLocation } from "react-router";

/** Longest wait for a page's heading, in ms. */
const WAIT_MS = 4_000;

export function useNewPage(): void {
  const { pathname } = useLocation();
  const before = useRef(pathname);
  useEffect(() => {
    // The first page is the browser's own business; so is a change of what stands behind the question mark.
    if (before.current === pathname) return;
    before.current = pathname;
    window.scrollTo(0, 0);
    return onceDrawn(focusHeading);
  }, [pathname]);
}

/** Try at once and after every change of the page, until it succeeds or time is up. */
function onceDrawn(attempt: () => boolean): () => void {
  if (attempt()) return () => undefined;
  const watch = new MutationObserver(() => {
    if (attempt()) stop();
  });
  const timer = window.setTimeout(() => {
    stop();
  }, WAIT_MS);
  const stop = () => {
    watch.disconnect();
    window.clearTimeout(timer);
  };
  watch.observe(document.body, { childList: true, subtree: true });
  return stop;
}

/** Focus the heading of the work; false while there is none. A field that took the focus meanwhile keeps it. */
function focusHeading(): boolean {
  const heading = document.querySelector<HTMLElement>("main h1:not([data-waiting])");
  if (!heading) return false;
  if (document.activeElement instanceof HTMLInputElement) return true;
  heading.tabIndex = -1;
  heading.style.outline = "none";
  heading.focus({ preventScroll: true });
  return true;
}
