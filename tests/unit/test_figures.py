"""Figures, dates and entries as the page writes them, and figures as they are typed."""

from typing import Any

import pytest
from playwright.sync_api import Page, Route

METRIC = {"units": {"currency": "", "decimal": "."}, "written": []}
US: dict[str, Any] = {
    "units": {"currency": "USD", "decimal": "."},
    "written": [
        {"home": "L", "name": "US gal", "factor": 1 / 3.785411784, "offset": 0, "more_places": 1,
         "twin": "L", "twin_factor": 1, "twin_offset": 0},
        {"home": "°C", "name": "°F", "factor": 1.8, "offset": 32, "more_places": 0,
         "twin": "°C", "twin_factor": 1, "twin_offset": 0},
    ],
}  # fmt: skip
COMMA = {"units": {"currency": "EUR", "decimal": ","}, "written": []}


def units(page: Page, session: dict[str, Any]) -> None:
    page.evaluate("(session) => modules.units.chooseUnits(session)", session)


def said(page: Page, script: str) -> Any:
    return page.evaluate(f"modules.{script}")


def test_figures_are_written_in_the_keepers_units_with_their_mark(bare: Page) -> None:
    units(bare, METRIC)
    assert said(bare, "format.show(26.04, '°C', 1)") == "26.0 °C"
    assert said(bare, "format.short(0.2500, 3)") == "0.25"
    units(bare, US)
    assert said(bare, "format.show(100, 'L')") == "26.4 US gal"
    assert said(bare, "format.degreesWords(25)") == "77 °F"
    assert said(bare, "format.degreesWords(null)") is None
    assert said(bare, "format.twinOf(100, 'L')") == "100 L"
    for litres in (0.5, 3.0, 240.0):
        back = said(bare, f"format.toHome(modules.format.fromHome({litres}, 'L'), 'L')")
        assert back == pytest.approx(litres, rel=1e-5)
    units(bare, COMMA)
    assert said(bare, "format.fixed(1.5, 2)") == "1,50"
    assert said(bare, "format.digits(0.0456, 2)") == "0,046"


def test_ticks_are_round_in_the_keepers_own_unit(bare: Page) -> None:
    units(bare, METRIC)
    assert said(bare, "format.ticksOf(100, 'L', 4)") == [0, 20, 40, 60, 80, 100]
    units(bare, US)
    # In gallons, as the axis is.
    assert said(bare, "format.ticksOf(100, 'L', 4)") == [0, 5, 10, 15, 20, 25]


@pytest.mark.parametrize(
    ("language", "locale", "decimal", "first_day", "date"),
    [
        ("en-US", "en-US", ".", "Monday", "Feb 3"),
        ("en-GB", "en-GB", ".", "Monday", "3 Feb"),
        ("de-DE", "en-DE", ",", "Monday", "3 Feb"),
        ("pt", "en-001-u-hc-h23", ",", "Monday", "3 Feb"),
    ],
)
def test_dates_are_english_in_the_countrys_order(
    in_language: Any, language: str, locale: str, decimal: str, first_day: str, date: str
) -> None:
    page = in_language(language)
    assert said(page, "locale.LOCALE") == locale
    assert said(page, "locale.DECIMAL") == decimal
    assert said(page, "WEEKDAYS[0]") == ["0", first_day]
    assert said(page, "cycleDates.dater(new Date('2026-02-01T12:00:00Z'))(2)") == date


def test_days_ahead_are_told_as_people_say_them_over_the_night_the_clocks_change(in_language: Any) -> None:
    page = in_language("en-GB", "Europe/London")
    # 29 March 2026 has 23 hours in London.
    page.clock.install(time="2026-03-28T22:30:00Z")
    start = "new Date('2026-03-28T22:00:00Z')"
    told = [said(page, f"cycleDates.about({start}, {day})") for day in (-1, 0, 1, 2, 6, 7)]
    assert told == ["today", "today", "tomorrow", "about Monday", "about Friday", "about 4 April"]
    # A practice tank's clock is its own.
    page.evaluate("modules.clock.followClock('2026-04-03T10:00:00Z')")
    assert said(page, f"cycleDates.about({start}, 7)") == "tomorrow"


def test_a_test_is_told_with_its_ranges_its_units_and_the_kit(bare: Page) -> None:
    units(bare, US)
    body = (
        "{kind: 'reading', basis: 'N', ammonia_ppm: 0.375, nitrite_ppm: 5, temperature_c: 25, oxygen_mg_l: 6.4,"
        " gh_dgh: 9, off_scale: ['nitrite'], other_kit: true,"
        " between: [{what: 'ammonia', low_ppm: 0.25, high_ppm: 0.5}]}"
    )
    words = said(bare, f"entryWords.testInWords({body})")
    assert words == "Test: ammonia 0.25–0.5, nitrite 5+, 77 °F, GH 9, oxygen 6.4 mg/L (as N), with another kit"


def figure(page: Page, value: str = "60", more: str = "") -> None:
    """A typed figure whose value is kept in `window.value`."""
    page.evaluate(
        f"window.value = {value}; void modules.mount('figure', () => modules.useTypedFigure("
        f"{{ kind: 'volume', value: window.value, onChange: (v) => {{ window.value = v; }}{more} }}))"
    )
    page.wait_for_function("() => modules.results.figure")


def typed(page: Page, text: str) -> Any:
    page.evaluate("(text) => modules.results.figure.onText(text)", text)
    page.wait_for_timeout(80)
    return page.evaluate("window.value")


def test_a_plain_figure_is_taken_at_once_with_either_mark_and_a_thousand_is_asked(bare: Page) -> None:
    units(bare, METRIC)
    asked: list[str] = []

    def answer(route: Route) -> None:
        text = route.request.post_data_json["text"]
        asked.append(text)
        if text == "20 gal":
            route.fulfill(json={"value": 75.7, "verdict": "", "working": []})
        else:
            remedy = "Write 1000 or 1.0."
            error = {"where": "text", "what": "may be a thousand.", "remedy": remedy}
            route.fulfill(status=422, json={"status": 422, "title": "No", "detail": "no", "errors": [error]})

    bare.route("**/api/compute/read-quantity", answer)
    figure(bare)
    assert typed(bare, "75") == 75
    assert typed(bare, "75,5") == 75.5
    assert asked == []
    with bare.expect_response("**/api/compute/read-quantity"):
        assert typed(bare, "1.000") == 75.5
    assert asked == ["1.000"]
    bare.evaluate("modules.results.figure.onBlur()")
    bare.wait_for_function("() => modules.results.figure.error === 'may be a thousand. Write 1000 or 1.0.'")
    # The answer comes by way of the page and back, however busy the machine is.
    bare.evaluate("modules.results.figure.onText('20 gal')")
    bare.wait_for_function("() => window.value === 75.7")


def test_a_figure_out_of_range_is_not_taken_and_says_its_range_in_the_keepers_unit(bare: Page) -> None:
    units(bare, US)
    figure(bare, "100", ", home: 'L', min: 5, max: 1000")
    assert bare.evaluate("modules.results.figure.text") == "26.42"
    assert typed(bare, "900") == 100
    bare.evaluate("modules.results.figure.onBlur()")
    bare.wait_for_function("() => modules.results.figure.error")
    assert bare.evaluate("modules.results.figure.error") == "Between 1.321 and 264.2 US gal."
    assert typed(bare, "20") == pytest.approx(75.708, abs=0.01)
    assert bare.evaluate("modules.results.figure.error") is None


def test_an_answer_to_what_was_typed_before_changes_nothing(bare: Page) -> None:
    units(bare, METRIC)
    late: list[Route] = []
    bare.route("**/api/compute/read-quantity", lambda route: late.append(route))
    figure(bare)
    typed(bare, "20 gal")
    assert typed(bare, "75") == 75
    for route in late:
        route.fulfill(json={"value": 1.0, "verdict": "", "working": []})
    bare.wait_for_timeout(100)
    assert bare.evaluate("window.value") == 75


LABELS = (
    '<text x="20" y="60">fixed label</text><text x="24" y="62" data-free="">steps aside</text>'
    '<text x="20" y="150" data-free="">has room</text>'
)
BOXES = (
    "[...document.querySelectorAll('text')].map((t) => { const b = t.getBoundingClientRect();"
    " return { left: b.left, right: b.right, top: b.top, bottom: b.bottom,"
    " shown: t.style.visibility !== 'hidden', moved: t.style.translate }; })"
)


def overlaps(a: dict[str, float], b: dict[str, float]) -> bool:
    return (
        min(a["right"], b["right"]) - max(a["left"], b["left"]) > 0.5
        and min(a["bottom"], b["bottom"]) - max(a["top"], b["top"]) > 0.5
    )


def test_a_label_steps_aside_by_the_least_and_one_with_room_stays(bare: Page) -> None:
    bare.evaluate("(inside) => void modules.labels(inside)", LABELS)
    bare.wait_for_selector("text")
    bare.wait_for_timeout(100)
    fixed, aside, free = bare.evaluate(BOXES)
    assert not overlaps(fixed, aside)
    assert aside["shown"]
    assert free["moved"] in ("", "0px", "0px 0px")


def test_a_label_without_a_place_is_hidden_rather_than_laid_over_another(bare: Page) -> None:
    wall = "".join(f'<text x="0" y="{y}">{"x" * 48}</text>' for y in range(10, 210, 10))
    bare.evaluate("(inside) => void modules.labels(inside)", f'{wall}<text x="150" y="100" data-free="">no room</text>')
    bare.wait_for_selector("text")
    bare.wait_for_timeout(100)
    assert bare.evaluate(BOXES)[-1]["shown"] is False
