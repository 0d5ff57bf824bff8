"""Keepers who read in gallons and Fahrenheit, or write a decimal comma, by visible words only."""

import itertools
import re
from collections.abc import Callable, Iterator

import pytest
from playwright.sync_api import Browser, Page, Route, expect

from tests.browser.conftest import PASSWORD
from tests.browser.test_walk import heading

_numbers = itertools.count(1)
METRIC = re.compile(r"[^\n]*\b\d[\d.,]*\s?(?:L/h|L|cm|kg|°C|litres)(?![\w/])[^\n]*")
STAGES = ("Tank", "Stock", "Filter", "Fit", "Cycle", "Keep")


@pytest.fixture
def from_(browser: Browser, running, browser_context_args: dict) -> Iterator[Callable[[str], Page]]:
    """A new account made in a browser of that locale; its first page."""
    open_ = []

    def go(locale: str) -> Page:
        context = browser.new_context(**{**browser_context_args, "locale": locale})
        open_.append(context)
        page = context.new_page()
        page.goto(f"{running.url}/sign-in")
        page.get_by_role("button", name="I have no account yet").click()
        page.get_by_label("E-mail").fill(f"{locale.lower()}-{next(_numbers)}@yard.example")
        page.get_by_label("Password").fill(PASSWORD)
        page.get_by_role("button", name="Make it").click()
        page.get_by_role("button", name="I have them: go on").click()
        page.get_by_label("A new tank").fill("Hall")
        page.get_by_role("button", name="Begin it").click()
        return page

    yield go
    for context in open_:
        context.close()


def without_twins(text: str) -> str:
    """The text less what stands beside a figure for those who compare labels."""
    text = re.sub(r"\([^)\n]*\)|^[\d.,]+ (?:L|cm|kg|°C|L/h|m)(?: ·.*)?$", "", text, flags=re.MULTILINE)
    return re.sub(r"US gal(?:/h)? net, [\d.,]+ L|(?:^|\n)[\d.,]+ L · ", "", text)


def test_a_keeper_in_gallons_meets_no_litre_but_beside_a_gallon(from_: Callable[[str], Page]) -> None:
    page = from_("en-US")
    for label, figure in (("Length, in", "36"), ("Width, in", "18"), ("Height, in", "18"), ("Glass to wall, in", "3")):
        page.get_by_label(label, exact=True).fill(figure)
    # 36 × 18 × 18 in is 50.5 US gal to the rim of its outside.
    expect(heading(page)).to_contain_text(re.compile(r"It holds (39|4\d)(\.\d)? US gal"))
    gallons = re.search(r"It holds ([\d.]+) US gal", heading(page).inner_text())[1]
    page.get_by_role("button", name="Save the tank").click()
    stages = page.get_by_role("navigation", name="Stages")
    expect(stages).to_contain_text(f"{gallons} US gal net")
    stages.get_by_role("link", name=re.compile("^Stock")).click()
    page.get_by_role("combobox", name="Add an animal").fill("zebra")
    page.get_by_role("option").first.click()
    page.get_by_role("button", name="Save the animals").click()
    stages.get_by_role("link", name=re.compile("^Filter")).click()
    page.get_by_role("button", name=re.compile("^(Choose|Plan with)")).first.click()
    expect(stages.get_by_role("link", name=re.compile("^Filter"))).not_to_contain_text("choosing")
    for stage in STAGES:
        stages.get_by_role("link", name=re.compile(f"^{stage}")).click()
        expect(heading(page)).to_be_visible()
        page.wait_for_load_state("networkidle")
        met = METRIC.findall(without_twins(page.get_by_role("main").inner_text()))
        assert not met, (stage, met)


def test_a_box_and_a_test_are_typed_in_the_keepers_units(from_: Callable[[str], Page]) -> None:
    page = from_("en-US")
    stages = page.get_by_role("navigation", name="Stages")
    stages.get_by_role("link", name=re.compile("^Filter")).click()
    page.get_by_role("button", name="I have seen a box").click()
    box = page.get_by_label("Flow on the box, US gal/h")
    box.fill("200")
    box.blur()
    expect(box).to_have_value("200")
    box.fill("757 L/h")
    box.blur()
    expect(box).to_have_value("199.98")
    stages.get_by_role("link", name=re.compile("^Cycle")).click()
    page.get_by_label("Log a test in one line").fill("a 1 t 78")
    expect(page.get_by_text("Reads as: ammonia 1 ppm, 78 °F.")).to_be_visible()


def test_a_decimal_comma_is_never_a_hundredfold(from_: Callable[[str], Page]) -> None:
    page = from_("de-DE")
    page.get_by_label("Substrate depth, cm").fill("4,5")
    page.get_by_label("Substrate depth, cm").blur()
    expect(page.get_by_label("Substrate depth, cm")).to_have_value("4,5")
    length = page.get_by_label("Length, cm", exact=True)
    length.fill("1,200")
    length.blur()
    expect(page.get_by_text('"1,200" may be 1200 or 1,2.')).to_be_visible()
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=re.compile("^Keep")).click()
    page.get_by_text("Ammonia", exact=True).first.click()
    raised = page.get_by_label("Raised by, ppm of ammonia")
    raised.fill("0,25")
    page.get_by_role("button", name="Write it").click()
    expect(page.get_by_text("Ammonia dosed: 0,19 mg N/L").first).to_be_visible()


def test_an_answer_that_comes_late_does_not_take_back_what_was_said(from_: Callable[[str], Page]) -> None:
    page = from_("de-DE")
    held: list[Route] = []

    def first_waits(route: Route) -> None:
        if held:
            route.continue_()
        else:
            held.append(route)

    page.route("**/api/compute/read-quantity", first_waits)
    length = page.get_by_label("Length, cm", exact=True)
    length.fill("1,200")
    length.blur()
    asked = page.get_by_text('"1,200" may be 1200 or 1,2.')
    expect(asked).to_be_visible()
    with page.expect_response("**/api/compute/read-quantity") as late:
        held[0].continue_()
    late.value.finished()
    page.wait_for_timeout(200)
    expect(asked).to_be_visible()


def test_units_changed_in_the_account_are_followed_at_once(demo_page: Page, running) -> None:
    demo_page.goto(f"{running.url}/account")
    demo_page.get_by_text("imperial gallons", exact=True).click()
    expect(demo_page.get_by_text("Everything is shown so from now on.")).to_be_visible()
    demo_page.get_by_role("link", name=re.compile("Reedmace")).first.click()
    expect(demo_page.get_by_role("main")).to_contain_text("imp gal net")
    demo_page.goto(f"{running.url}/account")
    demo_page.get_by_text("litres", exact=True).click()
    expect(demo_page.get_by_text("Everything is shown so from now on.")).to_be_visible()
