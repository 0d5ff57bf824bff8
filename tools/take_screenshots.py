"""Take the pictures in docs/screenshots from a running demo: python tools/take_screenshots.py ADDRESS [NAME ...]."""

import sys
from pathlib import Path
from urllib.parse import quote

from playwright.sync_api import Page, sync_playwright

COUNTER = (
    '{"litres":100,"animals":[{"species_id":"guppy","count":8,"length_cm":null}],"boxes":'
    '[{"box_us_gal_per_hour":264,"watts":20,"max_head_m":1.6},{"kind":"hang-on","box_lph":600}]}'
)
SHOTS = Path(__file__).parents[1] / "docs" / "screenshots"
# Name of the picture: tank, stage, width, height, colour scheme, and what to press first.
VIEWS: dict[str, tuple[str, str, int, int, str, str | None]] = {
    "tank": ("Kiln room", "tank", 1280, 800, "light", None),
    "stock": ("Kiln room", "stock", 1280, 800, "light", None),
    "filter": ("Kiln room", "filter", 1280, 800, "light", None),
    "counter": ("", "counter?q=" + quote(COUNTER), 1280, 800, "light", None),
    "kind": ("", "kinds/hang-on", 1280, 800, "light", None),
    "sump": ("Stairwell", "filter", 1280, 800, "light", None),
    "working": ("Kiln room", "tank", 1280, 800, "light", "h1 button"),
    "fit": ("Long bench", "fit", 1280, 800, "light", None),
    "cycle": ("Long bench", "cycle", 1280, 800, "light", None),
    "cycle-dark": ("Long bench", "cycle", 1280, 800, "dark", None),
    "keep": ("Bindery window", "keep", 1280, 800, "light", None),
    "phone-log": ("Long bench", "cycle", 390, 844, "light", None),
    "sheet": ("Long bench", "sheet", 1280, 800, "light", None),
    "phone-filter": ("Kiln room", "filter", 390, 844, "light", None),
    "phone-fit": ("Long bench", "fit", 390, 844, "light", None),
}


def enter(page: Page, address: str) -> dict[str, int]:
    """Sign in as the demo keeper; tank ids by name."""
    page.goto(address)
    page.get_by_role("button", name="Look round as the demo keeper").click()
    page.wait_for_url(f"{address}/today")
    return {t["name"]: t["id"] for t in page.request.get(f"{address}/api/tanks").json()["tanks"]}


def end_a_lesson(page: Page, address: str) -> None:
    """Wait out a lesson in which animals die, as its mistake is, and open the page at its end."""
    enter(page, address)
    page.goto(f"{address}/practice")
    page.get_by_role("button", name="Begin: Saturday's fish").click()
    bar = page.get_by_role("region", name="Practice")
    bar.wait_for()
    for _ in range(4):
        before = bar.inner_text()
        bar.get_by_role("button", name="A week", exact=True).click()
        page.wait_for_function("([b]) => document.querySelector('[aria-label=Practice]').innerText !== b", arg=[before])
        page.wait_for_load_state("networkidle")
    bar.get_by_role("button", name="End the lesson").click()
    page.wait_for_url("**/end")


def main(address: str, names: list[str]) -> None:
    """Take the named pictures, or all of them."""
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(
            executable_path="/usr/bin/chromium-headless-shell",
            args=["--no-sandbox", "--disable-gpu", "--disable-background-networking", "--force-device-scale-factor=1"],
        )
        for name in names or ["door", "today", "room", "practice", *VIEWS]:
            tank, stage, width, height, scheme, press = VIEWS.get(name, ("", name, 1280, 800, "light", None))
            page = browser.new_page(
                viewport={"width": width, "height": height}, color_scheme=scheme, reduced_motion="reduce"
            )
            if name == "door":
                page.goto(address)
            elif name == "practice":
                end_a_lesson(page, address)
            elif name == "room":
                enter(page, address)
                first = page.request.get(f"{address}/api/rooms").json()["rooms"][0]["id"]
                page.goto(f"{address}/rooms/{first}")
            else:
                ids = enter(page, address)
                if tank:
                    page.goto(f"{address}/tanks/{ids[tank]}/{stage}")
                elif name in VIEWS:
                    page.goto(f"{address}/{stage}")
            page.get_by_role("heading", level=1).wait_for()
            page.wait_for_load_state("networkidle")
            if press:
                page.locator(press).first.click()
                page.wait_for_load_state("networkidle")
            page.wait_for_timeout(400)
            page.screenshot(path=SHOTS / f"{name}.png")
            page.close()
        browser.close()


if __name__ == "__main__":
    main(sys.argv[1].rstrip("/"), sys.argv[2:])
