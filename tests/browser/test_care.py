"""Access, phone, drafts, two tabs, no connection."""

import gzip
import re

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.browser.test_choosing import open_stage
from tests.support.browser_api import send, write
from tests.support.running import Running

VIEWS = ["tank", "stock", "filter", "fit", "cycle", "keep"]


ALL_RULES = "{runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice']}"
CONTRAST = "{runOnly: {type: 'rule', values: ['color-contrast']}}"


def violations(page: Page, axe_source: str) -> list[str]:
    """What axe finds by day; by night what the other colours could bring."""
    page.evaluate(axe_source)
    # What passed stays in the page: written out it is megabytes.
    found = page.evaluate(f"() => axe.run(document, {ALL_RULES}).then((all) => all.violations)")
    page.emulate_media(color_scheme="dark")
    found += page.evaluate(f"() => axe.run(document, {CONTRAST}).then((all) => all.violations)")
    page.emulate_media(color_scheme="light")
    return [f"{v['id']}: {v['nodes'][0]['html'][:160]}" for v in found]


def settle(page: Page) -> None:
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.wait_for_load_state("networkidle")


@pytest.fixture
def door(page: Page, running: Running) -> Page:
    """The first page."""
    page.goto(running.url)
    settle(page)
    return page


def look_round(page: Page, running: Running) -> dict[str, int]:
    """In as the demo keeper; the tanks by name."""
    page.get_by_role("button", name="Look round as the demo keeper").click()
    expect(page).to_have_url(f"{running.url}/today")
    settle(page)
    return {t["name"]: t["id"] for t in send(page, running.url, "GET", "/api/tanks")["tanks"]}


def test_axe_finds_nothing_at_the_door_today_and_in_the_account(door: Page, running: Running, axe_source: str) -> None:
    assert violations(door, axe_source) == []
    look_round(door, running)
    assert violations(door, axe_source) == []
    door.goto(f"{running.url}/account")
    settle(door)
    assert violations(door, axe_source) == []


@pytest.mark.parametrize(
    ("name", "stages"),
    [
        ("Kiln room", ["tank", "stock", "filter", "fit", "cycle"]),
        ("Long bench", ["fit", "cycle", "keep", "diary"]),
        ("Bindery window", ["filter", "buying", "fit", "sheet", "keep"]),
    ],
)
def test_axe_finds_nothing_in_any_stage(
    door: Page, running: Running, axe_source: str, name: str, stages: list[str]
) -> None:
    page, tank, wrong = door, look_round(door, running)[name], {}
    for stage in stages:
        page.goto(f"{running.url}/tanks/{tank}/{stage}")
        settle(page)
        page.evaluate("() => document.querySelectorAll('main details').forEach(d => { d.open = true })")
        page.wait_for_load_state("networkidle")
        wrong[stage] = violations(page, axe_source)
    assert {view: found for view, found in wrong.items() if found} == {}


def test_axe_finds_nothing_in_the_cycles_tabs_and_a_working(door: Page, running: Running, axe_source: str) -> None:
    page, tanks, wrong = door, look_round(door, running), {}
    page.goto(f"{running.url}/tanks/{tanks['Long bench']}/cycle")
    page.get_by_role("button", name="Tap the steps").click()
    for leaf in ("What if", "Ready?", "First animals", "Logbook", "Plan", "Cloudy?", "Kit and files"):
        page.get_by_role("tab", name=leaf).click()
        settle(page)
        if leaf == "Logbook":
            page.get_by_role("button", name=re.compile("^Correct: the test")).first.click()
        if leaf == "Plan":
            page.get_by_role("button", name="Compare the ways to cycle").click()
            settle(page)
        wrong[f"cycle, {leaf}"] = violations(page, axe_source)
    page.goto(f"{running.url}/tanks/{tanks['Kiln room']}/tank")
    page.get_by_role("button", name=re.compile("^[0-9]+ L$")).first.click()
    expect(page.get_by_role("dialog")).to_be_visible()
    wrong["working"] = violations(page, axe_source)
    assert {view: found for view, found in wrong.items() if found} == {}


def test_a_phone_logs_a_test_in_four_taps_without_scrolling(
    browser: Browser, running: Running, axe_source: str
) -> None:
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True, reduced_motion="reduce"
    )
    page = context.new_page()
    page.goto(running.url)
    page.get_by_role("button", name="Look round as the demo keeper").tap()
    taps = 0
    page.get_by_role("listitem").filter(has_text="Long bench").get_by_role("link", name="Log a test").tap()
    taps += 1
    settle(page)
    for step in ("Ammonia 0.5 ppm", "Nitrite 5+ ppm", "Log the test"):
        button = page.get_by_role("button", name=step)
        expect(button).to_be_in_viewport()
        assert button.bounding_box()["height"] >= 44
        button.tap()
        taps += 1
    expect(page.get_by_text("Logged.")).to_be_visible()
    assert taps <= 4
    # All three figures on the tank's own page are four taps too, each step told by number and not by colour alone.
    for step in ("Ammonia 0.25 ppm", "Nitrite 2 ppm", "Nitrate 20 ppm"):
        page.get_by_role("button", name=step).tap()
        expect(page.get_by_role("button", name=step)).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Log the test").tap()
    expect(page.get_by_role("button", name="Log the test")).to_be_disabled()
    assert page.evaluate("window.scrollY") == 0
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    assert violations(page, axe_source) == []
    for stage in VIEWS:
        page.goto(re.sub(r"/\w+$", f"/{stage}", page.url))
        settle(page)
        assert page.evaluate("document.documentElement.scrollWidth") <= 390, f"{stage} is wider than the phone"
    context.close()


def new_tank(page: Page, running: Running) -> str:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Draft"})["id"]
    return f"{running.url}/tanks/{tank}"


def test_what_is_typed_survives_a_reload_and_can_be_dropped(page: Page, new_keeper: str, running: Running) -> None:
    page.goto(new_tank(page, running) + "/tank")
    page.get_by_label("Length, cm").fill("77")
    expect(page.get_by_text("Not saved yet; kept on this device.")).to_be_visible()
    page.reload()
    expect(page.get_by_label("Length, cm")).to_have_value("77")
    page.get_by_role("button", name="Undo changes").click()
    expect(page.get_by_label("Length, cm")).to_have_value("60")


def test_two_tabs_saving_one_plan_both_see_both(page: Page, new_keeper: str, running: Running) -> None:
    address = new_tank(page, running) + "/tank"
    # The second tab stands for another device: same keeper, no shared drafts.
    other_context = page.context.browser.new_context(storage_state=page.context.storage_state())
    other = other_context.new_page()
    page.goto(address)
    other.goto(address)
    page.get_by_label("Length, cm").fill("70")
    other.get_by_label("Length, cm").fill("85")
    page.get_by_role("button", name="Save the tank").click()
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()
    other.get_by_role("button", name="Save the tank").click()
    alert = other.get_by_role("alert")
    expect(alert).to_contain_text("This plan was saved elsewhere")
    expect(alert).to_contain_text("70 × 30 × 36 cm")
    expect(alert).to_contain_text("85 × 30 × 36 cm")
    expect(alert.get_by_role("row", name=re.compile("Length.*70 cm.*85 cm"))).to_be_visible()
    expect(other.get_by_label("Length, cm")).to_have_value("85")
    other.get_by_role("button", name="Keep mine").click()
    expect(other.get_by_text("Saved in the logbook.")).to_be_visible()
    page.reload()
    expect(page.get_by_label("Length, cm")).to_have_value("85")
    other_context.close()
    # What stood before can be taken up again from the logbook.
    page.goto(address.removesuffix("/tank") + "/keep")
    page.get_by_role("button", name=re.compile("Take up again: Tank: 70 × 30 × 36")).click()
    expect(page.get_by_role("button", name=re.compile("Take up again: Tank: 85 × 30 × 36"))).to_be_visible()
    page.goto(address)
    expect(page.get_by_label("Length, cm")).to_have_value("70")


def test_a_test_logged_without_connection_is_sent_later_and_once(page: Page, new_keeper: str, running: Running) -> None:
    address = new_tank(page, running)
    page.goto(address + "/cycle")
    page.get_by_role("button", name="Begin the cycle").click()
    expect(page.get_by_role("region", name="First, today")).to_be_visible()
    page.get_by_label("Log a test in one line").fill("a 2 n 0 kh 5")
    # The line is read by the server, so the connection drops between reading and writing.
    page.route("**/entries", lambda route: route.abort() if route.request.method == "POST" else route.continue_())
    page.get_by_role("button", name="Log the test").click()
    expect(page.get_by_text(re.compile("1 entry is kept on this device"))).to_be_visible()
    # The line is out of the field as soon as it is kept, so that nobody sends it a second time.
    expect(page.get_by_label("Log a test in one line")).to_have_value("")
    page.unroute("**/entries")
    page.reload()
    expect(page.get_by_text(re.compile("kept on this device and will be sent"))).to_be_hidden()
    expect(page.get_by_text("ammonia 2")).to_be_visible()
    tank = int(address.rsplit("/", 1)[1])
    entries = send(page, running.url, "GET", f"/api/tanks/{tank}/entries")["entries"]
    assert [e["body"]["kind"] for e in entries].count("reading") == 1


def test_what_is_done_without_connection_is_not_done_twice(page: Page, new_keeper: str, running: Running) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Shed"})["id"]
    write(page, running.url, tank, 200, {"kind": "stocking", "species_id": "zebra-danio", "count": 6}, 1)
    page.goto(f"{running.url}/tanks/{tank}/keep")
    done = page.get_by_role("button", name=re.compile("^Done: Change")).first
    expect(done).to_be_enabled()
    page.route("**/entries", lambda route: route.abort() if route.request.method == "POST" else route.continue_())
    done.click()
    expect(page.get_by_text("Kept on this device; it will be sent later.").first).to_be_visible()
    expect(done).to_be_disabled()
    page.unroute("**/entries")
    # A page just opened has not said yet what it keeps: it is sent when the server has answered.
    with page.expect_response(lambda answer: answer.request.method == "POST" and answer.url.endswith("/entries")):
        page.reload()
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    expect(page.get_by_text("kept on this device and will be sent")).to_be_hidden()
    entries = send(page, running.url, "GET", f"/api/tanks/{tank}/entries")["entries"]
    assert [e["body"]["kind"] for e in entries].count("water-change") == 1


def test_a_server_that_is_away_is_said_and_nothing_typed_is_lost(page: Page, new_keeper: str, running: Running) -> None:
    page.goto(new_tank(page, running) + "/tank")
    expect(page.get_by_role("heading", level=1)).to_contain_text(re.compile("[0-9] L "))
    page.route("**/api/**", lambda route: route.abort())
    page.get_by_label("Length, cm").fill("99")
    expect(page.get_by_role("alert")).to_contain_text("No connection")
    # Both the view and the save fail: a save still under way would pass once the route is open again.
    with page.expect_event("requestfailed", lambda request: request.url.endswith("/entries")):
        page.get_by_role("button", name="Save the tank").click()
    expect(page.get_by_role("alert")).to_have_count(2)
    expect(page.get_by_role("alert").last).to_contain_text("kept")
    page.unroute("**/api/**")
    page.get_by_role("button", name="Save the tank").click()
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()
    expect(page.get_by_label("Length, cm")).to_have_value("99")


def test_an_impossible_tank_is_said_at_once_with_what_to_do(page: Page, new_keeper: str, running: Running) -> None:
    page.goto(new_tank(page, running) + "/tank")
    page.get_by_label("Substrate depth, cm").fill("50")
    expect(page.get_by_role("alert")).to_contain_text("stands above the water")
    page.get_by_label("Length, cm").fill("blue")
    page.keyboard.press("Tab")
    expect(page.get_by_text('"blue" is not a length. Type for example')).to_be_visible()


def test_another_keepers_tank_is_not_there(page: Page, new_keeper: str, running: Running) -> None:
    page.goto(f"{running.url}/tanks/1/tank")
    expect(page.get_by_role("alert")).to_contain_text("No such tank")


def test_the_first_script_is_under_three_hundred_kilobytes(page: Page, running: Running) -> None:
    page.goto(running.url)
    settle(page)
    addresses = page.evaluate(
        "() => [...document.querySelectorAll('script[src], link[rel=modulepreload]')].map(e => e.src || e.href)"
    )
    assert addresses
    bodies = [page.request.get(address).body() for address in addresses]
    assert min(len(b) for b in bodies) > 0
    assert sum(len(gzip.compress(b, 6)) for b in bodies) < 300_000


def test_a_filter_that_stands_is_said_on_today_and_on_keep(page: Page, new_keeper: str, running: Running) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Shed"})["id"]
    write(page, running.url, tank, 200, {"kind": "stocking", "species_id": "zebra-danio", "count": 6}, 1)
    write(page, running.url, tank, 0.5, {"kind": "outage", "running": False}, 2)
    page.goto(f"{running.url}/today")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Shed cannot wait")
    expect(page.get_by_text("air stone")).to_be_visible()
    page.goto(f"{running.url}/tanks/{tank}/keep")
    expect(page.get_by_role("heading", level=1)).to_contain_text("has stood still for 12 hours")
    expect(page.get_by_role("region", name="The stop of the filter").get_by_text("air stone")).to_be_visible()


def test_a_filter_is_cleaned_step_by_step_and_the_plan_moves_on(demo_page: Page, running: Running) -> None:
    page = demo_page
    tank = next(t["id"] for t in send(page, running.url, "GET", "/api/tanks")["tanks"] if t["name"] == "Courtyard door")
    page.goto(f"{running.url}/tanks/{tank}/keep")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Open and rinse the canister now")
    care = page.get_by_role("region", name="Care")
    care.get_by_role("button", name="How, step by step").click()
    steps = page.get_by_role("region", name="Open and rinse the canister, step by step")
    expect(steps.get_by_text("In tank water it costs")).to_be_visible()
    ticks = steps.get_by_role("checkbox")
    expect(ticks.nth(1)).to_be_disabled()
    # The box itself is hidden under its own drawing: the words are what a wet hand meets.
    steps.get_by_text("Both valves shut", exact=True).click()
    expect(ticks.nth(1)).to_be_enabled()
    care.get_by_role("button", name="Done: Open and rinse the canister").click()
    expect(page.get_by_role("heading", level=1)).not_to_contain_text("canister now")
    expect(page.get_by_role("region", name="Logbook").get_by_text("Media rinsed").first).to_be_visible()


def test_away_for_a_while_moves_the_plan_and_writes_the_neighbours_page(demo_page: Page, running: Running) -> None:
    page = demo_page
    tank = next(t["id"] for t in send(page, running.url, "GET", "/api/tanks")["tanks"] if t["name"] == "Bindery window")
    page.goto(f"{running.url}/tanks/{tank}/keep")
    page.get_by_text("Away for a while").click()
    away = page.get_by_role("form", name="Away for a while")
    start, end = (page.evaluate("d => new Date(Date.now() + d * 864e5).toISOString().slice(0, 10)", d) for d in (3, 18))
    away.get_by_label("From").fill(start)
    away.get_by_label("Back on").fill(end)
    away.get_by_role("button", name="Move the plan").click()
    expect(page.get_by_text(re.compile("Moved: (before you leave|when you are back)")).first).to_be_visible()
    away.get_by_role("link", name="A page for whoever looks after it").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Bindery window, while we are away")
    expect(page.get_by_text("Nothing is cleaned, changed or added.")).to_be_visible()
    expect(page.get_by_role("button", name="Print")).to_be_visible()


def test_a_notebook_kept_elsewhere_is_taken_into_the_logbook(demo_page: Page, running: Running) -> None:
    page = demo_page
    open_stage(page, running.url, "Courtyard door", "keep")
    page.get_by_role("link", name="A notebook kept elsewhere: take it in").click()
    expect(page).to_have_url(re.compile("/keep/logbook$"))
    page.get_by_text("A notebook kept elsewhere", exact=True).click()
    table = b"at,what,amount,unit,filter,text\n2025-03-02T09:00,note,,,,The door was left open all night\n"
    for said in ("1 written.", "0 written, 1 were there already."):
        with page.expect_file_chooser() as chooser:
            page.get_by_role("button", name="Take it in").click()
        chooser.value.set_files({"name": "book.csv", "mimeType": "text/csv", "buffer": table})
        expect(page.get_by_text(said)).to_be_visible()
    page.get_by_label("Look for").fill("left open")
    expect(page.get_by_text("The door was left open all night")).to_be_visible()
