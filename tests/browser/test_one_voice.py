"""The figures of the agreement suite as a keeper sees them: generated tanks, each stage opened in Chromium."""

import json
import re
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres
from reedmace.logbook.stages import filter_view, fit_view
from tests.support.bounds import bounded
from tests.support.running import Running
from tests.support.tanks import AT, bodies_of, state_of

SEEDS, APART = range(bounded(60, 15)), bounded(12, 3)
"""Sixty tanks, five to a keeper: signing up in a browser costs more than looking at a tank."""


def send(page: Page, path: str, body: dict[str, Any], token: str) -> dict[str, Any]:
    """A call to the API as the page itself would make it."""
    answer = page.request.post(
        path, data=json.dumps(body), headers={"Content-Type": "application/json", "X-CSRF-Token": token}
    )
    assert answer.status == 201, answer.text()
    return answer.json()


def put_up(page: Page, url: str, seed: int) -> tuple[int, LogbookState]:
    """The tank of a seed, written entry by entry; its number and where it stands."""
    token = page.evaluate("async () => (await (await fetch('/api/session')).json()).csrf_token")
    bodies = bodies_of(seed)
    tank = send(page, f"{url}/api/tanks", {"name": f"Tank {seed}"}, token)["id"]
    latest: dict[str, int] = {}
    for n, body in enumerate(bodies):
        entry = {
            "key": f"voice-{seed}-{n:03d}",
            "at": "2026-05-01T08:00:00Z",
            "body": body,
            "based_on": latest.get(body["kind"]),
        }
        written = send(page, f"{url}/api/tanks/{tank}/entries", entry, token)
        if body["kind"].endswith("-plan"):
            latest[body["kind"]] = written["id"]
    return tank, state_of(*bodies)


def look(page: Page, url: str, seed: int) -> None:
    """Open Tank, Filter and Fit, and hold every figure on them against the views."""
    tank, state = put_up(page, url, seed)
    litres, seen, fitted = net_litres(state), filter_view(state), fit_view(state, AT)
    flows = [f.installed.flow.delivered_lph for f in seen.shown.filters] if seen.shown else []
    assert len(flows) == 1 + seed % 3

    page.goto(f"{url}/tanks/{tank}/tank")
    main, stages = page.get_by_role("main"), page.get_by_role("navigation", name="Stages")
    expect(main.get_by_text(f"{litres:.0f} L", exact=True).first).to_be_visible()
    expect(stages.get_by_text(f"{litres:.0f} L net").first).to_be_visible()

    stages.get_by_role("link", name=re.compile("^Filter")).click()
    together = seen.shown.delivered_lph
    expect(main.get_by_text(f"{together:.0f} L/h").first).to_be_visible()
    for flow, one in zip(flows, fitted.filters, strict=True):
        assert one.installed.flow.delivered_lph == pytest.approx(flow)
    if len(flows) > 1:
        for flow in flows:
            expect(main).to_contain_text(f"{flow:.0f} L/h")

    stages.get_by_role("link", name=re.compile("^Fit(?!ler|lter)")).click()
    expect(main).to_contain_text(f"As laid out it moves {flows[0]:.0f} L/h")
    # The same litres in the list of stages, wherever one stands.
    expect(stages.get_by_text(f"{litres:.0f} L net").first).to_be_visible()


@pytest.mark.parametrize("first", range(APART))
def test_every_stage_shows_the_figure_every_other_door_gives(
    page: Page, running: Running, new_keeper: str, first: int
) -> None:
    for seed in SEEDS[first::APART]:
        look(page, running.url, seed)


def shown(text: str) -> str:
    """Text with one kind of space and no case, as it stands on paper in any style."""
    return re.sub(r"\s+", " ", text).casefold()


def test_printed_sheets_say_what_the_screens_say(demo_page: Page, running: Running) -> None:
    page = demo_page
    get = lambda path: page.request.get(f"{running.url}/api{path}").json()  # noqa: E731
    today = {row["tank"]["name"]: row for row in get("/today")["rows"]}
    page.emulate_media(media="print")
    for name in ("Long bench", "Bindery window", "Courtyard door"):
        row = today[name]
        tank = row["tank"]["id"]
        keep, cycle = get(f"/tanks/{tank}/views/keep"), get(f"/tanks/{tank}/cycle")
        page.goto(f"{running.url}/tanks/{tank}/care")
        expect(page.get_by_role("heading", level=1)).to_contain_text("what is done when")
        card = shown(page.get_by_role("main").inner_text())
        places = [card.find(shown(r["task"]["title"])) for r in keep["rows"]]
        assert -1 not in places, name
        planned = {r["task"]["title"] for r in keep["rows"]}
        assert all(shown(d["title"]) in card for d in row["due"] if d["title"] in planned)
        page.goto(f"{running.url}/tanks/{tank}/diary")
        main = page.get_by_role("main")
        if cycle["advice"] is None or not cycle["log"]:
            expect(main).to_contain_text("Begin the cycle first")
            continue
        expect(main.get_by_role("heading", name="What was done and read")).to_be_visible()
        diary = shown(main.inner_text())
        assert shown(cycle["advice"]["verdict"]) in diary
        for action in [cycle["advice"]["first"], *cycle["advice"]["then"]]:
            assert shown(action["title"]) in diary
        if row["stage"] == "cycle":
            # A tank in its cycle has the sheet's headline on Today.
            assert row["verdict"] == cycle["advice"]["verdict"], name
