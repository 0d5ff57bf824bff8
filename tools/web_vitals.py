"""Core Web Vitals of a running demo on a slow phone: python tools/web_vitals.py ADDRESS.

Prints the table of docs/speed.md. The phone: 390x844, its processor four times slower than this machine, 1.6 Mbit/s
down, 150 ms there and back, nothing kept from before.
"""

import sys
from statistics import median
from typing import Any

from playwright.sync_api import Browser, Page, sync_playwright

TURNS = 3
OBSERVE = """
() => {
  window.vitals = { lcp: 0, cls: 0, inp: 0 };
  new PerformanceObserver((l) => l.getEntries().forEach((e) => { vitals.lcp = e.startTime; }))
    .observe({ type: "largest-contentful-paint", buffered: true });
  new PerformanceObserver((l) => l.getEntries().forEach((e) => { if (!e.hadRecentInput) vitals.cls += e.value; }))
    .observe({ type: "layout-shift", buffered: true });
  new PerformanceObserver((l) => l.getEntries().forEach((e) => {
    if (e.interactionId) vitals.inp = Math.max(vitals.inp, e.duration);
  }))
    .observe({ type: "event", durationThreshold: 16, buffered: true });
}
"""
STAGES = ("tank", "stock", "filter", "fit", "cycle", "keep")


def phone(browser: Browser, address: str, state: Any) -> Page:
    """A page on the slow phone, signed in, with an empty cache. browser, address: of the demo; state: cookies."""
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, storage_state=state, service_workers="block"
    )
    page = context.new_page()
    page.add_init_script(f"({OBSERVE})()")
    cdp = context.new_cdp_session(page)
    cdp.send("Emulation.setCPUThrottlingRate", {"rate": 4})
    cdp.send("Network.enable")
    cdp.send(
        "Network.emulateNetworkConditions",
        {"offline": False, "latency": 150, "downloadThroughput": 200_000, "uploadThroughput": 94_000},
    )
    return page


def measure(browser: Browser, address: str, state: Any, path: str) -> dict[str, float]:
    """LCP in ms, CLS, and the longest of a few presses in ms.

    browser, address, state: as for `phone`; path: of the page.
    """
    page = phone(browser, address, state)
    page.goto(f"{address}{path}")
    page.get_by_role("heading", level=1).wait_for()
    page.wait_for_load_state("networkidle")
    for summary in page.locator("main summary").all()[:4]:
        if summary.is_visible():
            summary.tap()
            page.wait_for_timeout(300)
    page.keyboard.press("Tab")
    page.wait_for_timeout(300)
    found: dict[str, float] = page.evaluate("() => vitals")
    page.context.close()
    return found


def main(address: str) -> None:
    """Today and every stage of a tank, medians of three visits."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell", args=["--no-sandbox", "--disable-gpu"]
        )
        page = browser.new_page()
        page.goto(address)
        page.get_by_role("button", name="Look round as the demo keeper").click()
        page.wait_for_url(f"{address}/today")
        ids = {t["name"]: t["id"] for t in page.request.get(f"{address}/api/tanks").json()["tanks"]}
        state = page.context.storage_state()
        print("| page | LCP | INP | CLS |\n|---|---|---|---|")
        for path in ("/today", *(f"/tanks/{ids['Long bench']}/{stage}" for stage in STAGES)):
            turns = [measure(browser, address, state, path) for _ in range(TURNS)]
            lcp, inp, cls = (median(t[what] for t in turns) for what in ("lcp", "inp", "cls"))
            print(f"| {path.rsplit('/', 1)[1]} | {lcp / 1000:.2f} s | {inp:.0f} ms | {cls:.3f} |", flush=True)


if __name__ == "__main__":
    main(sys.argv[1])
