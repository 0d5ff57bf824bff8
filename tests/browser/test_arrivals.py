"""Arriving from wherever a tank stands, by visible words only."""

import re
import time
from collections.abc import Callable
from datetime import date, timedelta

import pytest
from playwright.sync_api import Page, expect

from tests.browser.test_walk import heading


@pytest.fixture
def arrive(page: Page, new_keeper: str) -> Callable[..., None]:
    """Begin a tank that stands so; how many presses and fields it took is held under ten."""

    def go(stands: str, *, since_days: int | None = None, holds: str | None = None, asked: str = "") -> None:
        page.get_by_text(stands, exact=True).click()
        page.get_by_label("A new tank").fill("Hall")
        if since_days is not None:
            page.get_by_label(asked).fill((date.today() - timedelta(days=since_days)).isoformat())
        if holds is not None:
            page.get_by_label("It holds, if known").fill(holds)
        page.get_by_role("button", name="Begin it").click()

    return go


def test_fish_in_for_six_days_in_gallons_reach_what_to_do_today(page: Page, arrive: Callable[..., None]) -> None:
    arrive("animals are in already", since_days=6, holds="20 gal", asked="The first animals came on")
    expect(heading(page)).to_contain_text("Animals are in")
    expect(page.get_by_role("navigation", name="Stages")).to_contain_text("76 L")
    expect(page.get_by_role("region", name="First, today")).to_contain_text("Test ammonia, nitrite and pH")
    page.get_by_label("Log a test in one line").fill("a 2 n 2 ph 8.2 25C")
    page.get_by_role("button", name="Log the test").click()
    first = page.get_by_role("region", name="First, today")
    expect(first).not_to_contain_text("Test ammonia, nitrite and pH")
    expect(page.get_by_role("main")).not_to_contain_text(re.compile("Dose to .* ppm"))
    page.goto(page.url.replace(re.search(r"/tanks/.*", page.url)[0], "/today"))
    expect(heading(page)).to_contain_text("Hall cannot wait")


def test_a_tank_that_has_run_for_years_begins_with_who_lives_in_it(page: Page, arrive: Callable[..., None]) -> None:
    arrive("has run for months or years", since_days=800, holds="120 L", asked="It has run since about")
    expect(heading(page)).to_contain_text("Who lives in it?")
    page.get_by_role("combobox", name="Add an animal").fill("harle")
    page.get_by_role("option", name=re.compile("Harlequin rasbora")).click()
    page.get_by_role("button", name="Save the animals").click()
    stages = page.get_by_role("navigation", name="Stages")
    expect(stages).to_contain_text("stocked 2.2 years")
    stages.get_by_role("link", name=re.compile("^Cycle")).click()
    expect(page.get_by_role("main")).not_to_contain_text("Begin the cycle")


def test_a_filter_in_hand_is_asked_what_is_on_its_box(page: Page, arrive: Callable[..., None]) -> None:
    arrive("only a filter in hand", holds="90")
    expect(heading(page)).to_contain_text("A filter in hand")
    hand = page.get_by_role("region", name="The filter in hand")
    hand.get_by_label("Name", exact=True).fill("Attic find")
    hand.get_by_label("Flow on the box, L/h").fill("900")
    hand.get_by_role("button", name="Keep it and see").click()
    expect(page.get_by_role("main")).to_contain_text("Attic find would move")


def test_what_is_added_is_what_is_typed_however_soon_it_is_pressed(page: Page, arrive: Callable[..., None]) -> None:
    arrive("only a filter in hand", holds="90")
    hand = page.get_by_role("region", name="The filter in hand")
    expect(hand).to_contain_text("The flow is enough to begin with")
    hand.get_by_label("Flow on the box, L/h").fill("900")
    expect(hand).to_contain_text("The box agrees with itself")
    expect(hand).to_contain_text("No lift: ")
    # An answer to what is typed last is a second on its way, and the button is pressed before.
    page.route("**/api/compute/label-check", lambda route: (time.sleep(1), route.continue_()))
    hand.get_by_label("Name", exact=True).fill("Attic find")
    hand.get_by_label("Flow on the box, L/h").fill("640")
    hand.get_by_role("button", name="Keep it and see").click()
    expect(page.get_by_role("main")).to_contain_text("Attic find would move")
    expect(page.get_by_role("main")).to_contain_text("not the 640 on its box")


def test_where_it_stands_is_said_anew_in_tank(page: Page, arrive: Callable[..., None]) -> None:
    arrive("empty, at its beginning")
    expect(heading(page)).to_contain_text("A tank like this holds")
    expect(page.get_by_text("Where it stands: empty")).to_be_visible()
    page.get_by_role("button", name="Say otherwise").click()
    page.get_by_text("animals are in already", exact=True).click()
    page.get_by_role("button", name="Write it down").click()
    expect(page.get_by_text("Where it stands: animals are in already")).to_be_visible()
    expect(page.get_by_role("navigation", name="Stages")).to_contain_text("stocked day 0")
