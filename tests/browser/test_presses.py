"""How many presses and fields each kind of arrival takes to its first own figure, and to its verdict, by visible words
only.
"""

import re
from collections.abc import Callable
from datetime import date, timedelta

import pytest
from playwright.sync_api import Locator, Page, expect

from tests.browser.test_units import from_
from tests.browser.test_walk import heading

__all__ = ["from_"]

FIGURE, VERDICT, KEYS = 6, 12, 60

# What a hand does, counted where the page hears it: each press, and each field typed in however many letters it took.
COUNT = """() => {
  const typed = new Set();
  window.hand = { presses: 0, keys: 0, fields: () => typed.size };
  addEventListener("click", (e) => { if (e.isTrusted) window.hand.presses += 1; }, true);
  addEventListener("input", (e) => typed.add(e.target), true);
  addEventListener("keydown", () => { window.hand.keys += 1; }, true);
}"""


def spent(page: Page) -> int:
    return page.evaluate("() => window.hand.presses + window.hand.fields()")


def begin(page: Page, stands: str, *, since: tuple[str, int] | None = None, holds: str | None = None) -> None:
    page.evaluate(COUNT)
    page.get_by_text(stands, exact=True).click()
    page.get_by_label("A new tank").fill("Hall")
    if since is not None:
        label, days = since
        page.get_by_label(label).fill((date.today() - timedelta(days=days)).isoformat())
    if holds is not None:
        page.get_by_label("It holds, if known").fill(holds)
    page.get_by_role("button", name="Begin it").click()


def stages(page: Page) -> Locator:
    return page.get_by_role("navigation", name="Stages")


def add(page: Page, typed: str, name: str) -> None:
    page.get_by_role("combobox", name="Add an animal").fill(typed)
    page.get_by_role("option", name=re.compile(name)).first.click()


def test_an_empty_tank(page: Page, new_keeper: str) -> None:
    begin(page, "empty, at its beginning")
    page.get_by_label("Length, cm", exact=True).fill("90")
    page.get_by_label("Width, cm", exact=True).fill("40")
    page.get_by_label("Height, cm", exact=True).fill("45")
    expect(heading(page)).to_contain_text("It holds 136 L")
    assert spent(page) <= FIGURE
    page.get_by_role("button", name="Save the tank").click()
    stages(page).get_by_role("link", name=re.compile("^Stock")).click()
    add(page, "harle", "Harlequin rasbora")
    page.get_by_role("button", name="Save the animals").click()
    stages(page).get_by_role("link", name=re.compile("^Filter")).click()
    expect(heading(page)).to_contain_text(re.compile("whose box says|sold for"))
    assert spent(page) <= VERDICT


def test_a_cycle_that_began_weeks_ago(page: Page, new_keeper: str) -> None:
    begin(page, "cycling already", since=("Its cycle began on", 20), holds="110")
    expect(stages(page)).to_contain_text("110 L")
    assert spent(page) <= FIGURE
    expect(heading(page)).to_contain_text("How is it being cycled")
    page.get_by_role("button", name="Save the plan").click()
    page.get_by_label("Log a test in one line").fill("a 0.5 n 2 ph 7.4")
    page.get_by_role("button", name="Log the test").click()
    expect(page.get_by_role("region", name="First, today")).to_be_visible()
    assert spent(page) <= VERDICT


def test_animals_in_reach_the_emergency_in_two_presses(page: Page, new_keeper: str) -> None:
    page.evaluate(COUNT)
    page.get_by_label("A new tank").fill("Hall")
    page.get_by_text("animals are in already", exact=True).click()
    page.get_by_role("button", name="Begin it").click()
    expect(heading(page)).to_contain_text("Animals are in")
    assert page.evaluate("() => window.hand.presses") <= 2
    expect(page.get_by_role("main")).not_to_contain_text(re.compile("Dose to .* ppm"))


def test_a_tank_that_has_run_for_years(page: Page, new_keeper: str) -> None:
    begin(page, "has run for months or years", since=("It has run since about", 800), holds="120")
    expect(stages(page)).to_contain_text("120 L")
    assert spent(page) <= FIGURE
    add(page, "harle", "Harlequin rasbora")
    page.get_by_role("button", name="Save the animals").click()
    expect(heading(page)).to_contain_text("They fit this tank")
    assert spent(page) <= VERDICT


def test_a_filter_in_hand(page: Page, new_keeper: str) -> None:
    begin(page, "only a filter in hand", holds="90")
    hand = page.get_by_role("region", name="The filter in hand")
    hand.get_by_label("Flow on the box, L/h").fill("900")
    expect(hand).to_contain_text("The box agrees with itself: 900 L/h")
    expect(hand).to_contain_text("150 to 225 L with a community, 75 to 90 L with goldfish")
    assert spent(page) <= FIGURE
    hand.get_by_role("button", name="Keep it and see").click()
    expect(heading(page)).to_contain_text("in service where")
    assert spent(page) <= VERDICT


@pytest.mark.parametrize(
    ("locale", "length", "sizes", "litres"),
    [("en-US", "in", ("36", "16", "18"), "US gal"), ("de-DE", "cm", ("90,5", "40,5", "45,5"), " L")],
)
def test_sizes_in_inches_and_with_a_decimal_comma(
    from_: Callable[[str], Page], locale: str, length: str, sizes: tuple[str, ...], litres: str
) -> None:
    page = from_(locale)
    expect(page.get_by_label(f"Length, {length}")).to_be_visible()
    page.evaluate(COUNT)
    for label, figure in zip(("Length", "Width", "Height"), sizes, strict=True):
        page.get_by_label(f"{label}, {length}", exact=True).fill(figure)
    expect(heading(page)).to_contain_text(litres)
    # Its name and the press that began it came before.
    assert spent(page) + 2 <= FIGURE
    page.get_by_role("button", name="Save the tank").click()
    stages(page).get_by_role("link", name=re.compile("^Stock")).click()
    add(page, "guppy", "Guppy")
    page.get_by_role("button", name="Save the animals").click()
    stages(page).get_by_role("link", name=re.compile("^Filter")).click()
    expect(heading(page)).to_contain_text(re.compile("whose box says|sold for"))
    assert spent(page) + 2 <= VERDICT


def test_a_filter_is_chosen_by_keyboard_under_sixty_keys(demo_page: Page) -> None:
    page = demo_page
    page.get_by_role("link", name=re.compile("Kiln room")).first.click()
    expect(stages(page)).to_be_visible()
    page.evaluate(COUNT)
    page.keyboard.press("3")
    choose = page.get_by_role("button", name=re.compile("^(Choose|Plan with)"))
    expect(choose).to_be_visible()
    for _ in range(KEYS):
        if choose.evaluate("e => e === document.activeElement"):
            break
        page.keyboard.press("Tab")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()
    assert page.evaluate("() => window.hand.keys") < KEYS
