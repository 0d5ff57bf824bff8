"""The Cycle stage as a keeper uses it: the stall in one glance, what if, corrections, kit, plan, seeds, diary, keys."""

import json
import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.support.browser_api import cycled_tank, send, write
from tests.support.running import Running


def heading(page: Page):
    return page.get_by_role("heading", level=1)


def first(page: Page):
    return page.get_by_role("region", name="First, today")


@pytest.fixture
def long_bench(demo_page: Page, running: Running) -> Page:
    """The demo's stalled tank, at Cycle."""
    tanks = {t["name"]: t["id"] for t in send(demo_page, running.url, "GET", "/api/tanks")["tanks"]}
    demo_page.goto(f"{running.url}/tanks/{tanks['Long bench']}/cycle")
    expect(heading(demo_page)).to_be_visible()
    return demo_page


def leaf(page: Page, name: str) -> None:
    page.get_by_role("tab", name=name).click()
    page.wait_for_load_state("networkidle")


@pytest.fixture
def own_tank(page: Page, new_keeper: str, running: Running) -> tuple[Page, int]:
    """A keeper's own tank, ten days into a cycle whose KH falls."""
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Own"})["id"]
    start = (datetime.now(UTC) - timedelta(days=10)).isoformat()
    plan = {"kind": "cycle-plan", "started_at": start, "start_kh_dkh": 5, "start_ph": 7.4}
    write(page, running.url, tank, 10, plan, 0)
    rows = ((0, 2, 0, 5.0), (4, 1, 0.5, 4.3), (7, 0.5, 1, 3.4), (9.8, 0.25, 1, 2.5))
    for n, (day, ammonia, nitrite, kh) in enumerate(rows):
        body = {"kind": "reading", "ammonia_ppm": ammonia, "nitrite_ppm": nitrite, "nitrate_ppm": 5, "kh_dkh": kh}
        write(page, running.url, tank, 10 - day, body, n + 1)
    write(page, running.url, tank, 10, {"kind": "dose", "raise_mg_n_l": 1.55}, 9)
    page.goto(f"{running.url}/tanks/{tank}/cycle")
    expect(first(page)).to_be_visible()
    return page, tank


def test_the_stall_its_cause_and_the_grams_stand_in_one_glance(long_bench: Page) -> None:
    page = long_bench
    expect(heading(page)).to_have_text(
        "It has stalled: the filter bacteria have used up the alkalinity and the water turned acid."
    )
    for seen in (heading(page), first(page), page.get_by_role("img", name=re.compile("Lines are your tests"))):
        expect(seen).to_be_in_viewport()
    expect(first(page)).to_contain_text(re.compile(r"Add 1\d g of baking soda"))
    expect(page.get_by_role("region", name="Why it has stalled")).to_contain_text("Alkalinity is nearly spent")
    first(page).get_by_role("button", name=re.compile("Add 1. g")).click()
    expect(page.get_by_role("dialog")).to_contain_text("(target − current) × litres × k")
    page.keyboard.press("Escape")


def test_what_if_shows_each_change_side_by_side_and_takes_ones_own(long_bench: Page) -> None:
    page = long_bench
    leaf(page, "What if")
    chart = page.get_by_role("figure").filter(has_text="If it were done otherwise")
    expect(chart).to_contain_text("KH left alone")
    chart.get_by_text("As a table").click()
    expect(chart.get_by_role("row", name=re.compile("KH left alone.*none"))).to_be_visible()
    expect(page.get_by_text(re.compile("Since last week"))).to_be_visible()
    expect(page.get_by_text(re.compile("It rests on.*[0-9]+ tests"))).to_be_visible()
    page.get_by_role("button", name="Try a change of your own").click()
    page.get_by_label("Seeded media, % of a filter's").fill("50")
    page.keyboard.press("Tab")
    row = chart.get_by_role("row", name=re.compile("Your own"))
    expect(row).to_contain_text("sooner")


def test_the_other_lines_have_their_bands(long_bench: Page) -> None:
    for line, words in (
        ("KH", "KH: last read 0.6 dKH"),
        ("pH", "pH: last read 6.5"),
        ("nitrate", "Nitrate: last read"),
    ):
        long_bench.get_by_role("radio", name=line, exact=True).check(force=True)
        expect(long_bench.get_by_text(re.compile(words)).first).to_be_visible()


def test_the_section_stays_in_view_beside_long_work(long_bench: Page) -> None:
    leaf(long_bench, "Ready?")
    section = long_bench.get_by_role("group", name=re.compile("on this tank|What the water carries"))
    long_bench.get_by_role("link", name="The cycle diary, to print").scroll_into_view_if_needed()
    long_bench.mouse.wheel(0, 2000)
    expect(heading(long_bench)).not_to_be_in_viewport()
    expect(section).to_be_in_viewport(ratio=0.9)


def test_a_kit_that_reads_nitrogen_is_spoken_to_in_its_own_ppm(own_tank, running: Running) -> None:
    page, tank = own_tank
    expect(page.get_by_text("Ammonia still reads 0.25 ppm and nitrite 1 ppm.")).to_be_visible()
    kit = {"basis": "N", "ammonia_ppm": [0, 0.2, 0.4, 0.8], "nitrite_ppm": [0, 0.1, 0.3, 0.8]}
    write(page, running.url, tank, 0, {"kind": "kit-plan", "kit": kit}, 40)
    page.reload()
    expect(page.get_by_text("Ammonia still reads 0.19 ppm as N and nitrite 0.3 ppm as N.")).to_be_visible()
    chart = page.get_by_role("figure").filter(has_text="What the tests say")
    chart.get_by_text("As a table").click()
    # The same tests in the same chart, now as nitrogen: 2 ppm of ammonia as the ion are 1.6.
    expect(chart.get_by_role("row", name=re.compile(r"1\.5\d|1\.6")).first).to_be_visible()


def test_tests_off_the_scale_are_no_stall_and_say_what_stands_in_the_way(
    page: Page, new_keeper: str, running: Running
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Plateau"})["id"]
    start = (datetime.now(UTC) - timedelta(days=18)).isoformat()
    write(page, running.url, tank, 18, {"kind": "cycle-plan", "started_at": start, "start_kh_dkh": 9}, 0)
    write(page, running.url, tank, 18, {"kind": "dose", "raise_mg_n_l": 3}, 1)
    for n, day in enumerate((5, 3, 0.1)):
        body = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 5, "off_scale": ["nitrite"], "kh_dkh": 7}
        write(page, running.url, tank, day, body, 2 + n)
    page.goto(f"{running.url}/tanks/{tank}/cycle")
    expect(heading(page)).to_contain_text("It may not have stalled: nitrite is off the scale")
    expect(page.get_by_role("region", name="What stands in its way")).to_contain_text("Nitrite is off the kit.")
    expect(page.get_by_text("Read nitrite diluted")).to_be_visible()


def test_what_is_foreseen_is_said_with_its_day_here_and_on_today(own_tank, running: Running) -> None:
    page, _tank = own_tank
    seen = page.get_by_role("list", name="Foreseen")
    expect(seen).to_contain_text(re.compile(r"KH runs out about \w+day\."))
    page.goto(f"{running.url}/today")
    expect(page.get_by_role("listitem").filter(has_text="Own")).to_contain_text("KH runs out about")


def test_the_first_action_is_done_and_undone_from_today(own_tank, running: Running) -> None:
    page, tank = own_tank
    page.goto(f"{running.url}/today")
    row = page.get_by_role("listitem").filter(has_text="Own")
    row.get_by_role("button", name=re.compile("^Own: Dose to")).click()
    expect(row.get_by_text("Written.")).to_be_visible()
    path = f"/api/tanks/{tank}"
    assert len(send(page, running.url, "GET", path)["state"]["doses"]) == 2
    row.get_by_role("button", name="Undo").click()
    expect(row.get_by_text("Written.")).to_be_hidden()
    assert len(send(page, running.url, "GET", path)["state"]["doses"]) == 1


def test_a_test_is_corrected_with_its_history_and_its_time(own_tank) -> None:
    page, _ = own_tank
    leaf(page, "Logbook")
    tests = page.get_by_role("region", name="Tests", exact=True)
    tests.get_by_role("button", name=re.compile("^Correct: the test")).first.click()
    form = page.get_by_role("region", name=re.compile("^Correct the test"))
    form.get_by_label("Nitrite", exact=True).fill("2")
    page.keyboard.press("Tab")
    earlier = (datetime.now() - timedelta(hours=3)).strftime("%Y-%m-%dT%H:%M")
    form.get_by_label("When").fill(earlier)
    form.get_by_role("button", name="Write the correction").click()
    expect(form).to_be_hidden()
    newest = tests.get_by_role("row").nth(1)
    expect(newest).to_contain_text("corrected")
    expect(newest.get_by_role("cell").nth(1)).to_have_text("2")
    newest.get_by_role("button").click()
    expect(page.get_by_text(re.compile("Before, written .*Nitrite 1"))).to_be_visible()


def test_tapping_uses_the_steps_of_ones_own_kit_and_another_time(own_tank, running: Running) -> None:
    page, tank = own_tank
    leaf(page, "Kit and files")
    page.get_by_label("Ammonia steps").fill("0 0.3 0.6 1.2")
    page.get_by_role("button", name="Save the kit").click()
    # Nothing is left to save, so nothing offers to.
    expect(page.get_by_role("button", name="Save the kit")).to_have_count(0)
    page.get_by_role("button", name="Tap the steps").click()
    page.get_by_role("button", name="Ammonia 0.6 ppm").click()
    page.get_by_role("button", name="Nitrite 5+ ppm").click()
    page.reload()
    # What was tapped and not yet logged is still there.
    expect(page.get_by_role("button", name="Ammonia 0.6 ppm")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Now; another time").click()
    page.get_by_label("When").fill((datetime.now() - timedelta(days=1)).strftime("%Y-%m-%dT%H:%M"))
    page.get_by_role("button", name="Log the test").click()
    expect(page.get_by_text("Logged.")).to_be_visible()
    readings = send(page, running.url, "GET", f"/api/tanks/{tank}")["state"]["readings"]
    logged = next(r for r in readings if r["body"]["ammonia_ppm"] == 0.6)
    # The top step counts as this or more.
    assert logged["body"]["off_scale"] == ["nitrite"]
    age = datetime.now(UTC) - datetime.fromisoformat(logged["at"])
    assert timedelta(hours=22) < age < timedelta(hours=26)


def test_a_method_is_chosen_from_what_one_has_and_the_plan_is_judged(
    page: Page, new_keeper: str, running: Running
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "New"})["id"]
    page.goto(f"{running.url}/tanks/{tank}/cycle")
    choose = page.get_by_role("region", name="Choose a method")
    expect(choose.get_by_role("button", name="Take it: Measured ammonia")).to_be_visible()
    choose.get_by_role("button", name=re.compile("Media from a running tank")).click()
    page.get_by_role("option", name="from my own tank").click()
    expect(choose.get_by_role("listitem").first).to_contain_text("A seeded filter or its media")
    expect(choose.get_by_role("listitem").first).to_contain_text(re.compile(r"\d+ to \d+ days here"))
    choose.get_by_text("Where keepers disagree").click()
    expect(choose).to_contain_text("Against it: Its window is narrow")
    choose.get_by_role("button", name="Take it: A seeded filter or its media").click()
    expect(page.get_by_label("Film brought, % of its donor's")).to_have_value("50")
    page.get_by_role("button", name="Compare the ways to cycle").click()
    choose.get_by_role("button", name="Take it: Measured ammonia and some seeded media").click()
    judged = page.get_by_role("region", name="The plan judged")
    page.get_by_text("Your water and your tap").click()
    page.get_by_label("KH at the start, dKH").fill("1.5")
    expect(judged).to_contain_text(re.compile(r"\d+ g of bicarbonate"))
    page.get_by_role("button", name=re.compile("Ammonia is")).click()
    page.get_by_role("option", name="a household cleaner").click()
    expect(judged).to_contain_text("Put right first: Never a household cleaner")


def test_the_first_animals_are_counted_and_written_down(page: Page, new_keeper: str, running: Running) -> None:
    tank = cycled_tank(page, running.url)
    stock = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 8}]}
    write(page, running.url, tank, 0.05, stock, 90)
    page.goto(f"{running.url}/tanks/{tank}/cycle")
    leaf(page, "First animals")
    panel = page.get_by_role("tabpanel", name="First animals")
    expect(panel).to_contain_text("How many now, and how many later")
    expect(panel.get_by_role("row").nth(1)).to_contain_text("Zebra danio")
    panel.get_by_role("button", name="These are in").click()
    expect(page.get_by_role("navigation", name="Stages")).to_contain_text("stocked day 0")


def test_a_dose_made_yesterday_is_written_down_with_its_time(own_tank, running: Running) -> None:
    page, tank = own_tank
    leaf(page, "Logbook")
    form = page.get_by_role("form", name="Write in the logbook")
    form.get_by_role("radio", name="Ammonia").check(force=True)
    form.get_by_label("Raised by, ppm of ammonia").fill("2")
    form.get_by_role("button", name="Now; another time").click()
    form.get_by_label("When").fill((datetime.now() - timedelta(days=1)).strftime("%Y-%m-%dT%H:%M"))
    form.get_by_role("button", name="Write it").click()
    expect(form.get_by_label("Raised by, ppm of ammonia")).to_have_value("")
    newest = send(page, running.url, "GET", f"/api/tanks/{tank}")["state"]["doses"][-1]
    assert newest["body"]["raise_mg_n_l"] == pytest.approx(2 * 0.7765, rel=1e-3)
    age = datetime.now(UTC) - datetime.fromisoformat(newest["at"])
    assert timedelta(hours=22) < age < timedelta(hours=26)


def test_cloudy_water_starts_with_tests(own_tank) -> None:
    page, _ = own_tank
    leaf(page, "Cloudy?")
    panel = page.get_by_role("tabpanel", name="Cloudy?")
    expect(panel).to_contain_text("Most likely a bloom of free bacteria")
    expect(panel).to_contain_text("Do not add another filter")
    page.get_by_role("radio", name="green").check(force=True)
    expect(panel).to_contain_text("green water")


def test_a_spare_sponge_is_put_in_and_moved_on_a_running_clock(demo_page: Page, running: Running) -> None:
    page = demo_page
    tanks = {t["name"]: t["id"] for t in send(page, running.url, "GET", "/api/tanks")["tanks"]}
    page.goto(f"{running.url}/tanks/{tanks['Bindery window']}/keep")
    spares = page.get_by_role("region", name="Spare sponges")
    expect(spares.get_by_role("listitem").first).to_contain_text("Ready: it carries a full film")
    spares.get_by_role("button", name="Put a spare in to seed").click()
    spares.get_by_label("What is put in").fill("Sponge C")
    spares.get_by_role("button", name="It is in").click()
    fresh = spares.get_by_role("listitem").filter(has_text="Sponge C")
    expect(fresh).to_contain_text("Too young")
    expect(fresh.get_by_role("button", name="Move it: Sponge C")).to_be_disabled()
    spares.get_by_role("button", name="Move it: Spare sponge A").click()
    expect(spares).to_contain_text("Lift it in a bag or tub")
    spares.get_by_role("button", name="Out now: start the clock").click()
    expect(spares.get_by_role("timer", name=re.compile("Spare sponge A"))).to_contain_text("0 min")
    spares.get_by_label("Where to").fill("Hospital tank")
    spares.get_by_role("button", name="It is in").click()
    expect(spares).to_contain_text("Moved to Hospital tank")


def test_the_diary_prints_on_two_pages_at_most(long_bench: Page) -> None:
    page = long_bench
    page.get_by_role("link", name="The cycle diary, to print").click()
    expect(heading(page)).to_have_text("Long bench: cycle diary")
    expect(page.get_by_text("Day 0,")).to_be_visible()
    expect(page.get_by_text(re.compile("Test: ammonia 2, nitrite 0"))).to_have_count(2)
    pdf = page.pdf(format="A4")
    assert 1 <= len(re.findall(rb"/Type\s*/Page[^s]", pdf)) <= 2


def test_a_logbook_goes_out_as_json_and_comes_in_as_a_tank(own_tank, running: Running, downloads: Path) -> None:
    page, _ = own_tank
    leaf(page, "Kit and files")
    with page.expect_download() as download:
        page.get_by_role("link", name="The whole logbook as JSON").click()
    path = downloads / "own.json"
    download.value.save_as(path)
    bundle = json.loads(path.read_text())
    bundle["tank"] = "Brought along"
    path.write_text(json.dumps(bundle))
    page.goto(f"{running.url}/today")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Take in a logbook from a file").click()
    chooser.value.set_files(path)
    expect(page.get_by_role("button", name=re.compile("Tank: Brought along"))).to_be_visible()
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=re.compile("^Cycle")).click()
    expect(page.get_by_role("list", name="Foreseen")).to_contain_text("KH runs out")


def test_the_leaves_turn_by_arrow_keys(own_tank) -> None:
    page, _ = own_tank
    page.get_by_role("tab", name="Forecast").focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("tab", name="What if")).to_have_attribute("aria-selected", "true")
    page.keyboard.press("End")
    expect(page.get_by_role("tabpanel", name="Kit and files")).to_be_visible()
    expect(page.get_by_label("Ammonia steps")).to_be_visible()


def test_animals_in_show_limits_changes_and_the_vet(page: Page, new_keeper: str, running: Running) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Too soon"})["id"]
    start = (datetime.now(UTC) - timedelta(days=5)).isoformat()
    write(page, running.url, tank, 5, {"kind": "cycle-plan", "started_at": start, "method": "animals-in"}, 0)
    body = {"kind": "reading", "ammonia_ppm": 2, "nitrite_ppm": 1, "ph": 7.8, "kh_dkh": 5}
    write(page, running.url, tank, 0.1, body, 1)
    page.goto(f"{running.url}/tanks/{tank}/cycle")
    expect(first(page)).to_contain_text(re.compile(r"Change \d+ % of the water now"))
    leaf(page, "Animals are in")
    panel = page.get_by_role("tabpanel", name="Animals are in")
    expect(panel.get_by_role("row", name=re.compile("ammonia over", re.IGNORECASE))).to_be_visible()
    expect(panel).to_contain_text("Feeding:")
    expect(panel).to_contain_text("vet")
