"""The figures of the agreement suite as a keeper sees them: generated tanks, each stage opened in Chromium."""

import json
from typing import Any

import pytest
from playwright.sync_api import Page, expect

from reedmace.logbook.questions import net_litres
from reedmace.logbook.stages import filter_view, fit_view
from tests.agreement.tanks import bodies_of, state_of
from tests.running import Running

SEEDS = (0, 1, 2, 10, 14, 23)


def send(page: Page, path: str, body: dict[str, Any]) -> dict[str, Any]:
    """A call to the API as the page itself would make it."""
    token = page.evaluate("async () => (await (await fetch('/api/session')).json()).csrf_token")
    answer = page.request.post(
        path, data=json.dumps(body), headers={"Content-Type": "application/json", "X-CSRF-Token": token}
    )
    assert answer.status == 201, answer.text()
    return answer.json()


@pytest.mark.parametrize("seed", SEEDS)
def test_every_stage_shows_the_figure_every_other_door_gives(
    page: Page, running: Running, new_keeper: str, seed: int
) -> None:
    bodies = bodies_of(seed)
    tank = send(page, f"{running.url}/api/tanks", {"name": f"Tank {seed}"})["id"]
    latest: dict[str, int] = {}
    for n, body in enumerate(bodies):
        entry = {
            "key": f"voice-{seed}-{n:03d}",
            "at": "2026-05-01T08:00:00Z",
            "body": body,
            "based_on": latest.get(body["kind"]),
        }
        written = send(page, f"{running.url}/api/tanks/{tank}/entries", entry)
        if body["kind"].endswith("-plan"):
            latest[body["kind"]] = written["id"]
    state = state_of(*bodies)
    litres, seen, fitted = net_litres(state), filter_view(state), fit_view(state)
    flows = [f.hung.flow.delivered_lph for f in seen.shown.filters] if seen.shown else []
    assert len(flows) == 1 + seed % 3

    page.goto(f"{running.url}/tanks/{tank}/tank")
    main = page.get_by_role("main")
    expect(main.get_by_text(f"{litres:.0f} litres")).to_be_visible()
    expect(page.get_by_role("navigation").get_by_text(f"{litres:.0f} L net").first).to_be_visible()

    page.goto(f"{running.url}/tanks/{tank}/filter")
    together = seen.shown.delivered_lph
    expect(
        main.get_by_text(f"{together:.0f} litres an hour").or_(main.get_by_text(f"{together:.0f} L/h")).first
    ).to_be_visible()
    for flow, one in zip(flows, fitted.filters, strict=True):
        assert one.hung.flow.delivered_lph == pytest.approx(flow)
    if len(flows) > 1:
        for flow in flows:
            expect(main).to_contain_text(f"{flow:.0f} L/h")

    page.goto(f"{running.url}/tanks/{tank}/fit")
    expect(main).to_contain_text(f"{flows[0]:.0f} L/h")
    # The same litres in the list of stages, wherever one stands.
    expect(page.get_by_role("navigation").get_by_text(f"{litres:.0f} L net").first).to_be_visible()
