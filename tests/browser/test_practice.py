"""Practice on the screen: a lesson from the first page to its end, vials read by eye, the twin of a real tank."""

import json
import re
from typing import Any

import pytest
from playwright.sync_api import Browser, Locator, Page, Route, expect

from tests.browser.test_care import violations
from tests.browser.test_presses import heading
from tests.browser.test_ways_in import no_sideways_scroll
from tests.support.browser_api import send
from tests.support.running import Running


@pytest.fixture
def first_cycle(page: Page, running: Running) -> Page:
    """A guest in the first lesson, its cycle begun."""
    page.goto(running.url)
    page.get_by_role("button", name=re.compile("Just to look")).click()
    page.get_by_role("button", name="Practise a first cycle").click()
    expect(page.get_by_role("region", name="Practice")).to_contain_text("not a real tank")
    page.get_by_role("button", name="Begin the cycle").click()
    expect(heading(page)).to_contain_text("begin with a test")
    return page


def bar(page: Page) -> Locator:
    return page.get_by_role("region", name="Practice")


def let_pass(page: Page, how: str, day: int) -> None:
    bar(page).get_by_role("button", name=how, exact=True).click()
    expect(bar(page)).to_contain_text(f"day {day},")


def colours(page: Page, what: str) -> tuple[list[float], list[list[float]]]:
    """Colour of a vial, and of the steps it is laid against."""
    return page.evaluate(
        """(what) => {
          const row = document.querySelector(`[role=group][aria-label="${what}, ppm"]`);
          const canvas = document.createElement("canvas").getContext("2d", { willReadFrequently: true });
          const rgb = (colour) => {
            canvas.clearRect(0, 0, 1, 1);
            canvas.fillStyle = colour;
            canvas.fillRect(0, 0, 1, 1);
            return [...canvas.getImageData(0, 0, 1, 1).data].slice(0, 3);
          };
          const vial = getComputedStyle(row.querySelector("svg[aria-label='the vial'] path:last-child")).fill;
          return [rgb(vial), [...row.querySelectorAll("button")].map((b) => rgb(getComputedStyle(b).backgroundColor))];
        }""",
        what,
    )


def nearest(page: Page, what: str) -> int:
    """The step a vial looks most like."""
    vial, steps = colours(page, what)
    apart = [sum((a - b) ** 2 for a, b in zip(vial, step, strict=True)) for step in steps]
    return apart.index(min(apart))


def test_vials_are_read_by_eye_and_show_what_was_dosed(first_cycle: Page) -> None:
    page = first_cycle
    page.get_by_role("button", name="Run the test kit").click()
    expect(page.get_by_text("Lay each vial against the steps")).to_be_visible()
    assert nearest(page, "Ammonia") == 0
    for what in ("Ammonia", "Nitrite", "Nitrate"):
        row = page.get_by_role("group", name=f"{what}, ppm")
        row.get_by_role("button").nth(nearest(page, what)).click()
    page.get_by_role("button", name="Log the test").click()
    expect(heading(page)).to_contain_text("First meal")
    # A dose still on its way counts from before the day that is let pass.
    waiting: list[Route] = []
    page.route(re.compile(r"/entries$"), lambda route: waiting.append(route), times=1)
    page.get_by_role("button", name="Done").first.click()
    bar(page).get_by_role("button", name="One day", exact=True).click()
    expect(bar(page).get_by_role("button", name="One day", exact=True)).to_be_disabled()
    assert waiting
    for route in waiting:
        route.continue_()
    expect(bar(page)).to_contain_text("day 1,")
    page.unroute_all(behavior="ignoreErrors")
    expect(bar(page).get_by_role("list", name="Days that passed").get_by_role("listitem")).not_to_have_count(0)
    page.get_by_role("button", name="Run the test kit").click()
    expect(page.get_by_text("Lay each vial against the steps")).to_be_visible()
    # 2 ppm was dosed: the fifth of the steps, or one beside it.
    assert abs(nearest(page, "Ammonia") - 4) <= 1


def test_a_mistake_stops_the_clock_and_the_end_says_what_it_cost(
    page: Page, new_keeper: str, running: Running, axe_source: str
) -> None:
    page.goto(f"{running.url}/practice")
    page.get_by_role("button", name="Begin: Saturday's fish").click()
    expect(bar(page)).to_contain_text("day 6,")
    for _ in range(4):
        before = bar(page).inner_text()
        bar(page).get_by_role("button", name="A week", exact=True).click()
        expect(bar(page)).not_to_have_text(before)
        expect(bar(page).get_by_role("button", name="A week", exact=True)).to_be_enabled()
        if "died" in bar(page).inner_text():
            break
    expect(bar(page)).to_contain_text("died")
    bar(page).get_by_role("button", name="End the lesson").click()
    expect(heading(page)).to_contain_text("animals died")
    expect(page.get_by_text("What cost most.")).to_be_visible()
    expect(page.get_by_role("heading", name="Your decisions")).to_be_visible()
    assert violations(page, axe_source) == []
    # Nothing of it stands on Today, and the lesson counts as tried.
    page.goto(f"{running.url}/today")
    expect(page.get_by_text("Practice: Saturday")).to_have_count(0)
    page.goto(f"{running.url}/practice")
    expect(page.get_by_text("Tried once, without a loss 0 of 3")).to_be_visible()


def test_a_silent_coach_says_nothing_until_the_end(first_cycle: Page) -> None:
    page = first_cycle
    page.get_by_text("Food, air, heater").click()
    page.get_by_role("button", name=re.compile("Coach$")).click()
    page.get_by_role("option", name="silent until the end").click()
    expect(heading(page)).to_have_text("What would you do?")
    expect(page.get_by_role("button", name="Run the test kit")).to_be_visible()
    expect(page.get_by_text("Animals: not yet")).to_have_count(0)


def test_a_real_tank_has_a_twin_and_stays_as_it_is(page: Page, new_keeper: str, running: Running) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Real one", "stands": "running", "litres": 100})["id"]
    page.goto(f"{running.url}/tanks/{tank}/keep")
    page.get_by_role("button", name="Try it in practice, on a copy").click()
    expect(bar(page)).to_contain_text("Free · day 0")
    assert f"/tanks/{tank}/" not in page.url
    let_pass(page, "A week", 7)
    entries = send(page, running.url, "GET", f"/api/tanks/{tank}/entries?limit=200")["entries"]
    assert {e["body"]["kind"] for e in entries} <= {"situation", "tank-plan"}


@pytest.mark.parametrize("path", ["/practice", "lesson"])
def test_practice_fits_the_narrowest_screen_and_every_hand(
    page: Page, new_keeper: str, running: Running, axe_source: str, path: str
) -> None:
    page.set_viewport_size({"width": 320, "height": 640})
    page.goto(f"{running.url}/practice")
    expect(page.get_by_role("heading", name="The first cycle")).to_be_visible()
    if path == "lesson":
        page.get_by_role("button", name="Begin: The stall").click()
        expect(bar(page)).to_contain_text("day 16,")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
    assert no_sideways_scroll(page)
    assert violations(page, axe_source) == []


def test_costs_and_files_stand_at_their_own_addresses(page: Page, new_keeper: str, running: Running) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Real one", "stands": "running", "litres": 100})["id"]
    page.goto(f"{running.url}/tanks/{tank}/keep/costs")
    expect(heading(page)).to_have_text("What it costs in a year")
    page.get_by_role("link", name="Back to Keep").click()
    page.get_by_role("link", name="Files in and out, your kit, devices").click()
    expect(heading(page)).to_have_text("Files in and out, your kit, devices")
    expect(page.get_by_role("link", name="The whole logbook as JSON")).to_be_visible()
    page.get_by_role("link", name="Back to Cycle").click()
    expect(page).to_have_url(re.compile(r"/cycle$"))


def test_a_class_of_three_browsers_from_link_to_printed_sheet(
    browser: Browser,
    browser_context_args: dict[str, Any],
    page: Page,
    new_keeper: str,
    running: Running,
    axe_source: str,
) -> None:
    page.goto(f"{running.url}/practice")
    page.get_by_text("Teach a class").click()
    page.get_by_role("button", name="Open a class on The first cycle, one tank alike for all").click()
    learners = page.get_by_role("list", name="Learners")
    expect(page.get_by_text("Nobody has joined yet.")).to_be_visible()
    code = re.search(r"/class/\s*([A-Z0-9]{6})", page.get_by_role("main").inner_text())[1]
    seats = []
    for name in ("Ada", "Bo"):
        context = browser.new_context(**{**browser_context_args, "viewport": {"width": 390, "height": 844}})
        seat = context.new_page()
        # The code as somebody types it who does not hold the shift key.
        seat.goto(f"{running.url}/class/{code.lower()}")
        expect(heading(seat)).to_contain_text("The first cycle: a class")
        seat.get_by_label("What shall you be called?").fill(name)
        seat.get_by_role("button", name="Join").click()
        expect(bar(seat)).to_contain_text(f"in a class, as {name}")
        assert no_sideways_scroll(seat)
        seats.append(seat)
    expect(learners.get_by_role("listitem")).to_have_count(2)
    let_pass(seats[0], "A week", 7)
    expect(learners).to_contain_text("Day 7")
    page.get_by_role("button", name="Stop the clock for all").click()
    expect(bar(seats[1])).to_contain_text("The teacher has stopped the clock for all.")
    expect(bar(seats[1]).get_by_role("button", name="One day", exact=True)).to_be_disabled()
    page.get_by_role("button", name="Let the clocks go").click()
    page.get_by_role("button", name="Send it to all").click()
    expect(page.get_by_text("Sent to 2")).to_be_visible()
    expect(bar(seats[1]).get_by_role("button", name="One day", exact=True)).to_be_enabled()
    bar(seats[1]).get_by_role("button", name="One day", exact=True).click()
    expect(bar(seats[1])).to_contain_text("The power is off")
    # The truth stands nowhere on the wall before it is uncovered.
    expect(page.get_by_text("True: ammonia")).to_have_count(0)
    page.get_by_role("button", name="Uncover the truth").click()
    expect(page.get_by_text("True: ammonia")).to_have_count(2)
    for name in ("Ada", "Bo"):
        page.get_by_role("button", name=f"Compare {name}").click()
    expect(page.get_by_role("region", name="Compared").get_by_role("heading", name="Ada")).to_be_visible()
    assert violations(page, axe_source) == []
    page.get_by_role("link", name="and after").click()
    page.emulate_media(media="print")
    expect(page.get_by_role("row", name=re.compile("^Ada 7"))).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("^days passed 0"))).to_be_visible()
    for seat in seats:
        seat.context.close()


NEWCOMER_PRESSES = 200
"""Presses that fit into ten minutes at three seconds each (a stated judgement)."""


class Newcomer:
    """Somebody who does what the page says first, and lets time pass where it says nothing for now."""

    def __init__(self, page: Page) -> None:
        self.page, self.presses = page, 0
        self._waiting: set[Any] = set()
        page.on("request", lambda r: self._waiting.add(r) if "/api/" in r.url else None)
        page.on("requestfinished", lambda r: self._waiting.discard(r))
        page.on("requestfailed", lambda r: self._waiting.discard(r))

    def press(self, what: Locator) -> None:
        """Press, and wait until the page has said what it says."""
        what.click()
        self.presses += 1
        self._settle()

    def _settle(self) -> None:
        quiet = 0
        while quiet < 3:
            self.page.wait_for_timeout(50)
            quiet = 0 if self._waiting else quiet + 1

    def act(self) -> bool:
        """Do the next thing; whether that was to put the animals in."""
        page, first = self.page, self.page.locator("p.amount").first
        done = first.locator("xpath=..").get_by_role("button", name="Done", exact=True) if first.count() else first
        if first.count() and done.count() and done.is_disabled():
            # Done, and the page has not heard of it yet.
            self._settle()
            return False
        kit, now = page.get_by_role("button", name="Run the test kit"), page.get_by_role("main")
        if page.get_by_role("button", name="They are in", exact=True).count():
            self.press(page.get_by_role("button", name="They are in", exact=True))
            self.press(page.get_by_role("button", name="These are in", exact=True))
            return True
        if now.get_by_text(re.compile("^Test ammonia( and|, |:)")).count() and kit.count():
            self.press(kit)
            self.press(page.get_by_role("button", name="Log what it reads"))
        elif first.count() and done.count():
            self.press(done)
        else:
            self.press(bar(page).get_by_role("button", name="To the next thing to do", exact=True))
        return False


def _day(page: Page) -> int:
    found = re.search(r"day (\d+),", bar(page).inner_text())
    assert found
    return int(found.group(1))


@pytest.mark.timeout(900)
def test_a_newcomer_finishes_the_first_cycle_in_under_ten_minutes_of_presses(page: Page, running: Running) -> None:
    def seeded(route: Route) -> None:
        asked = json.loads(route.request.post_data or "{}")
        route.continue_(post_data=json.dumps(asked | {"seed": 12}))

    page.route(re.compile(r"/api/practice/tanks$"), seeded)
    page.goto(running.url)
    newcomer = Newcomer(page)
    newcomer.press(page.get_by_role("button", name=re.compile("Just to look")))
    newcomer.press(page.get_by_role("button", name="Practise a first cycle"))
    newcomer.press(page.get_by_role("button", name="Begin the cycle"))
    newcomer.press(page.get_by_text("Food, air, heater"))
    newcomer.press(page.get_by_text("I read the vials myself"))
    came = None
    while came is None or _day(page) < came + 8:
        assert newcomer.presses < NEWCOMER_PRESSES
        if newcomer.act():
            came = _day(page)
    newcomer.press(bar(page).get_by_role("button", name="End the lesson"))
    expect(heading(page)).to_contain_text("without a loss")
    assert newcomer.presses < NEWCOMER_PRESSES


def test_done_is_not_done_twice_while_the_page_has_not_heard_of_it(first_cycle: Page, running: Running) -> None:
    page = first_cycle
    newcomer = Newcomer(page)
    newcomer.press(page.get_by_text("Food, air, heater"))
    newcomer.press(page.get_by_text("I read the vials myself"))
    newcomer.act()
    expect(heading(page)).to_contain_text("First meal")
    held: list[Route] = []
    # The first answer that knows of the dose is long on its way.
    page.route(re.compile(r"/api/tanks/\d+/cycle"), lambda route: held.append(route), times=1)
    done = page.get_by_role("button", name="Done", exact=True).first
    done.click()
    expect(page.get_by_text("Written in the logbook.")).to_be_visible()
    expect(done).to_be_disabled()
    assert held
    for route in held:
        route.continue_()
    expect(heading(page)).not_to_contain_text("First meal")
    tank = int(page.url.split("/tanks/")[1].split("/")[0])
    entries = send(page, running.url, "GET", f"/api/tanks/{tank}/entries?limit=50")["entries"]
    assert [e["body"]["kind"] for e in entries].count("dose") == 1


def test_four_bottles_stand_side_by_side_on_one_clock_to_one_page(
    page: Page, new_keeper: str, running: Running, axe_source: str
) -> None:
    page.goto(f"{running.url}/practice")
    page.get_by_role("button", name="Begin: The bottle").click()
    beside = page.get_by_role("navigation", name="Tanks side by side")
    expect(beside.get_by_role("link")).to_have_count(4)
    expect(bar(page)).to_contain_text("Bottle A")
    let_pass(page, "A week", 7)
    beside.get_by_role("link", name="Bottle C").click()
    expect(bar(page)).to_contain_text("The bottle, Bottle C · day 7,")
    assert violations(page, axe_source) == []
    bar(page).get_by_role("button", name="End the lesson").click()
    expect(heading(page)).to_contain_text("Bottle C: Ended after 7 days")
    ended = page.get_by_role("table", name="Tanks side by side")
    expect(ended.get_by_role("row")).to_have_count(5)
    expect(ended).to_contain_text("Nothing lived in its bottle.")
    assert violations(page, axe_source) == []
    ended.get_by_role("link", name="Bottle A").click()
    expect(heading(page)).to_contain_text("Bottle A: Ended after 7 days")
