"""The drawing of tanks nobody chose: no label lies on another or on a line of dimension, and none leaves the frame."""

import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.bounds import bounded
from tests.support.browser_api import send
from tests.support.running import Running
from tests.support.tanks import bodies_of

STAGES = ("fit", "filter", "tank", "fit", "stock", "keep", "cycle")
SIZES = {"wide": (1280, 800), "phone": (390, 844)}
FAULTS = """() => {
  const svg = document.querySelector("figure svg[role=group]");
  const frame = svg.getBoundingClientRect();
  const scale = frame.width / svg.viewBox.baseVal.width;
  const inside = (r) => r.right > frame.left && r.left < frame.right && r.bottom > frame.top && r.top < frame.bottom;
  const box = (e) => ({ what: e.textContent || "a line", r: e.getBoundingClientRect() });
  const words = [...svg.querySelectorAll("text")].filter((t) => t.textContent.trim());
  const shown = words.filter((t) => t.style.visibility !== "hidden").map(box).filter((o) => inside(o.r));
  const lines = [...svg.querySelectorAll("path[data-line]")].map(box).filter((o) => inside(o.r));
  const faults = [];
  const meet = (a, b) => {
    const wide = Math.min(a.r.right, b.r.right) - Math.max(a.r.left, b.r.left);
    const high = Math.min(a.r.bottom, b.r.bottom) - Math.max(a.r.top, b.r.top);
    // Boxes of text are taller than their letters: what shares less than a fifth of a line keeps clear.
    if (wide > scale && high > 4 * scale) faults.push(`${a.what} on ${b.what}`);
  };
  shown.forEach((a, i) => {
    if (a.r.left < frame.left - 1 || a.r.right > frame.right + 1 || a.r.top < frame.top - 1
      || a.r.bottom > frame.bottom + 1) faults.push(`${a.what} leaves the frame`);
    shown.slice(i + 1).forEach((b) => meet(a, b));
    lines.forEach((b) => meet(a, b));
  });
  const visible = words.filter((t) => t.style.visibility !== "hidden");
  return { faults, shown: shown.length, left_out: words.length - visible.length };
}"""


@pytest.mark.parametrize("first", range(0, bounded(80, 30), 10))
def test_no_label_lies_on_another_or_leaves_the_frame(
    page: Page, new_keeper: str, running: Running, first: int
) -> None:
    found: dict[str, Any] = {}
    for seed in range(first, first + 10):
        stage = STAGES[seed % len(STAGES)]
        tank = send(page, running.url, "POST", "/api/tanks", {"name": f"Made {seed}"})["id"]
        for n, body in enumerate(bodies_of(seed)):
            entry = {"key": f"drawn-{seed}-{n}", "at": "2026-05-01T08:00:00Z", "body": body}
            send(page, running.url, "POST", f"/api/tanks/{tank}/entries", entry)
        page.goto(f"{running.url}/tanks/{tank}/{stage}")
        expect(page.locator("figure svg[role=group]")).to_be_visible()
        page.wait_for_load_state("networkidle")
        for size, (width, height) in SIZES.items():
            page.set_viewport_size({"width": width, "height": height})
            page.wait_for_timeout(150)
            seen = page.evaluate(FAULTS)
            assert seen["shown"] >= 2, f"tank {seed} at {stage}, {size}: nothing is written on the drawing"
            # On a phone a name may be left out that the list beside the drawing has as well.
            if seen["faults"] or seen["left_out"] > (0 if size == "wide" else 2):
                found[f"tank {seed} at {stage}, {size}"] = seen
    assert found == {}


def test_two_canisters_stand_beside_each_other_and_where_filter_draws_them(
    page: Page, new_keeper: str, running: Running
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Two"})["id"]
    bodies = bodies_of(2)
    # Two that find room beside each other under this tank.
    slim = [next(f for f in SAMPLE_BOXES if f.id == name) for name in ("sweetflag-500", "lockgate-700")]
    installed = [{"key": f"f{n}", "filter": f.model_dump(mode="json")} for n, f in enumerate(slim, 1)]
    bodies = [{"kind": "filter-plan", "filters": installed} if b["kind"] == "filter-plan" else b for b in bodies]
    for n, body in enumerate(bodies):
        entry = {"key": f"made-two-{n}", "at": "2026-05-01T08:00:00Z", "body": body}
        send(page, running.url, "POST", f"/api/tanks/{tank}/entries", entry)

    def heads() -> list[tuple[float, float]]:
        """(left, right) of each canister's head in the front view, in pixels of the page."""
        expect(page.locator("rect[data-head]")).to_have_count(2)
        boxes = [one.bounding_box() for one in page.locator("rect[data-head]").all()]
        return sorted((round(b["x"], 1), round(b["x"] + b["width"], 1)) for b in boxes if b)

    page.goto(f"{running.url}/tanks/{tank}/filter")
    expect(page.get_by_role("main")).to_contain_text(re.compile("Together"))
    drawn = heads()
    assert drawn[0][1] < drawn[1][0]
    page.goto(f"{running.url}/tanks/{tank}/fit")
    assert heads() == drawn
