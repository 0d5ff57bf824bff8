"""What takes long says so, can be left, and can be asked again."""

import threading

from playwright.sync_api import Page, Route, expect

from tests.support.running import Running


def test_a_long_sum_says_so_is_left_and_asked_again(demo_page: Page, running: Running) -> None:
    page, held = demo_page, threading.Event()
    tanks = page.request.get(f"{running.url}/api/tanks").json()["tanks"]
    (tank,) = [t["id"] for t in tanks if t["name"] == "Long bench"]
    waiting: list[Route] = []

    def hold(route: Route) -> None:
        if held.is_set():
            route.continue_()
        else:
            waiting.append(route)

    page.route("**/api/tanks/*/cycle", hold)
    page.goto(f"{running.url}/tanks/{tank}/cycle")
    expect(page.get_by_text("Running the forecast")).to_be_visible()
    expect(page.get_by_text("At work")).to_be_visible()
    # The rest of the stage is there to be used meanwhile.
    expect(page.get_by_role("button", name="Log the test")).to_be_visible()
    page.get_by_role("button", name="Leave it").click()
    expect(page.get_by_text("Left undone.")).to_be_visible()
    expect(page.get_by_text("At work")).to_have_count(0)
    held.set()
    page.get_by_role("button", name="Ask again").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("stalled")
    expect(page.get_by_text("Left undone.")).to_have_count(0)
    assert waiting
