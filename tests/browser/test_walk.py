"""From an empty tank to "you may add fish", as a person does it."""

import re
from pathlib import Path

from playwright.sync_api import Page, expect

from tests.browser.conftest import PASSWORD
from tests.support.browser_api import cycled_tank
from tests.support.running import Running


def heading(page: Page):
    return page.get_by_role("heading", level=1)


def litres(page: Page) -> float:
    return float(re.search(r"([\d.]+) L ", heading(page).inner_text()).group(1))


def stage(page: Page, name: str) -> None:
    page.get_by_role("navigation", name="Stages").get_by_role("link", name=re.compile(f"^{name}")).click()


def test_a_keeper_walks_the_whole_job_and_finds_it_all_again(
    page: Page, new_keeper: str, running: Running, downloads: Path
) -> None:
    # A tank with a name.
    page.get_by_label("A new tank").fill("Landing")
    page.get_by_role("button", name="Begin it").click()
    expect(heading(page)).to_contain_text("A tank like this holds")

    # Tank: inches and centimetres, the answer while typing, the drawing with it, the working behind it.
    page.get_by_label("Length, cm").fill("36 in")
    page.get_by_label("Width, cm").fill("40")
    page.get_by_label("Height, cm", exact=True).fill("45")
    page.get_by_label("Substrate depth, cm").fill("4")
    page.get_by_label("Stone, kg").fill("8")
    page.get_by_label("Glass to wall, cm").fill("6")
    expect(heading(page)).to_contain_text("It holds 133 L ")
    expect(page.get_by_role("group", name=re.compile("The tank to scale, 91.4 by 40 by 45"))).to_be_visible()
    page.get_by_role("button", name="133 L").click()
    working = page.get_by_role("dialog")
    expect(working).to_contain_text("A × d / 1000")
    expect(working).to_contain_text("Plane and solid geometry")
    page.keyboard.press("Escape")
    handle = page.get_by_role("slider", name=re.compile("Water line"))
    before = litres(page)
    handle.focus()
    handle.press("ArrowDown")
    handle.press("ArrowDown")
    expect(page.get_by_label("Water below rim, cm")).to_have_value("4")
    expect(heading(page)).not_to_contain_text(f"{before:.0f} L ")
    page.get_by_role("button", name="Save the tank").click()
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()

    # Stock.
    stage(page, "Stock")
    for typed, name, count in (("harle", "Harlequin rasbora", "12"), ("danio", "Zebra danio", "8")):
        page.get_by_role("combobox", name="Add an animal").fill(typed)
        page.get_by_role("option", name=re.compile(name)).click()
        page.get_by_label(f"How many {name}").fill(count)
        page.keyboard.press("Tab")
    expect(page.get_by_role("main")).to_contain_text(re.compile(r"\d+ mg of ammonia nitrogen"))
    expect(page.get_by_text("Delivered turnover", exact=True)).to_be_visible()
    page.get_by_role("button", name="Save the animals").click()
    expect(page.get_by_text("20 animals")).to_be_visible()

    # Filter: ranked with reasons, left out with reasons, the flow through this plumbing, a box of one's own.
    stage(page, "Filter")
    expect(heading(page)).to_contain_text(re.compile(r"whose box says \d+ to \d+ L/h|sold for \d+ to \d+ L"))
    expect(page.get_by_text(re.compile(r"It would be .*: \d+ L/h in service where \d+ is asked"))).to_be_visible()
    page.get_by_text("What matters to you").click()
    for priority in ("Out of sight", "Clear water"):
        page.get_by_role("slider", name=priority).press("End")
    map_ = page.get_by_role("region", name="Type and size")
    canister = map_.get_by_role("button", name=re.compile("^Canister"))
    canister.click()
    expect(page.get_by_role("main")).to_contain_text(re.compile("Canister of [0-9]+ L.h would move"))
    moves = page.get_by_role("button", name=re.compile("^[0-9]+ L.h$"))
    wide = moves.inner_text()
    page.get_by_text("Hoses, for a filter not chosen yet").click()
    bore = page.get_by_label(re.compile("^Hose bore")).last
    bore.fill("9")
    page.keyboard.press("Tab")
    expect(moves).not_to_have_text(wide)
    assert int(moves.inner_text().split()[0]) < 0.7 * int(wide.split()[0])
    bore.fill("0")
    page.keyboard.press("Tab")
    expect(moves).to_have_text(wide)
    page.get_by_text(re.compile("left out, and why")).click()
    expect(page.get_by_text(re.compile("needs a drilled tank or an overflow box")).first).to_be_visible()
    page.get_by_text("In the shop: a filter from its box").click()
    page.get_by_label("Name", exact=True).fill("Attic find")
    page.get_by_label("Flow on the box, L/h").fill("900")
    page.get_by_label("US gal/h, if printed").fill("190")
    page.keyboard.press("Tab")
    expect(page.get_by_text(re.compile("two flows differ by 20%"))).to_be_visible()
    page.get_by_label("US gal/h, if printed").fill("238")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="Keep it and see").click()
    expect(page.get_by_role("main")).to_contain_text("Attic find would move")
    page.get_by_text("Kinds and sizes on this tank").click()
    canister.click()
    page.get_by_role("button", name="Plan with it until one is bought").click()
    expect(page.get_by_role("navigation", name="Stages")).to_contain_text("Canister of")

    # Fit: ticked and remembered, the flow proved.
    stage(page, "Fit")
    page.get_by_text("Feet or pads on first", exact=True).click()
    expect(heading(page)).to_contain_text("1 of")
    page.get_by_text("Rinse and load the media", exact=True).click()
    expect(heading(page)).to_contain_text("2 of")
    expect(page.get_by_text("residual-current protection")).to_be_visible()
    page.get_by_text("Prove the flow, once it runs").click()
    for label, seconds in (("Fill 1, s", "12"), ("Fill 2, s", "12.2"), ("Fill 3, s", "11.9")):
        page.get_by_label(label).fill(seconds)
        page.keyboard.press("Tab")
    expect(page.get_by_text(re.compile("You measured 598 L/h, give or take"))).to_be_visible()
    page.get_by_role("button", name="Log the flow test").click()
    expect(page.get_by_text("Last test:")).to_be_visible()

    # Cycle: the dose in grams for this water, a test in one line, what to do and why, not yet because.
    stage(page, "Cycle")
    expect(page.get_by_text(re.compile(r"Add 0\.\d\d g of ammonium chloride")).first).to_be_visible()
    page.get_by_role("button", name="Begin the cycle").click()
    expect(page.get_by_role("region", name="First, today")).to_contain_text("Test ammonia, nitrite, nitrate, pH and KH")
    page.get_by_label("Log a test in one line").fill("a 0 n 0 no3 5 ph 7.4 kh 5 25C")
    expect(page.get_by_text("Reads as: ammonia 0 ppm, nitrite 0 ppm")).to_be_visible()
    page.get_by_role("button", name="Log the test").click()
    expect(page.get_by_role("region", name="First, today")).to_contain_text("Dose to 2 ppm")
    page.get_by_role("region", name="First, today").get_by_role("button", name="Done").click()
    expect(page.get_by_text("Written in the logbook.")).to_be_visible()
    expect(page.get_by_text("Animals: not yet")).to_be_visible()
    expect(page.get_by_text(re.compile(r"Ready between day \d+ and day \d+")).first).to_be_visible()
    page.get_by_label("Log a test in one line").fill("a lots")
    page.get_by_role("button", name="Log the test").click()
    expect(page.get_by_role("alert")).to_contain_text("not understood")
    expect(page.get_by_label("Log a test in one line")).to_have_value("a lots")
    page.get_by_label("Log a test in one line").fill("")

    # Readings out and in: what a file holds is shown, its faults too, before anything is written.
    page.get_by_role("tab", name="Kit and files").click()
    with page.expect_download() as download:
        page.get_by_role("link", name=re.compile("Readings as CSV")).click()
    path = downloads / "readings.csv"
    download.value.save_as(path)
    assert "ion,0,0,5,7.4,5,25" in path.read_text()
    path.write_text(path.read_text() + "2026-10-01T08:00+00:00,ion,1,2,,,,\n2026-10-02T08:00+00:00,ion,much,2,,,,\n")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Take readings from a CSV").click()
    chooser.value.set_files(path)
    faults = page.get_by_role("list", name="Faults in the file")
    expect(faults).to_contain_text('Line 4, ammonia_ppm: "much" is not a figure.')
    expect(page.get_by_role("button", name=re.compile("^Write .* readings"))).to_be_disabled()
    path.write_text(path.read_text().replace("much", "0.5"))
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Take readings from a CSV").click()
    chooser.value.set_files(path)
    expect(page.get_by_text("3 rows can be written, 1 of them are in the logbook already")).to_be_visible()
    page.get_by_role("button", name="Write 2 readings").click()
    expect(page.get_by_text("2 readings written, 1 were there already.")).to_be_visible()

    # Keep shows what was written; then reload, sign out, restart the server: all there.
    stage(page, "Keep")
    book = page.get_by_role("region", name="Logbook")
    expect(book).to_contain_text("Flow timed: 598 L/h")
    expect(book).to_contain_text("Ammonia dosed")
    address = page.url
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Sign out").click()
    expect(page.get_by_role("link", name="Sign in")).to_be_visible()
    assert running.stop() == 0
    running.start()
    page.goto(address)
    page.get_by_label("E-mail").fill(new_keeper)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    stems = page.get_by_role("navigation", name="Stages")
    expect(stems).to_contain_text("20 animals")
    expect(stems).to_contain_text("Canister of")
    expect(stems).to_contain_text("2 of 16 steps")
    stage(page, "Fit")
    expect(page.get_by_text("Last test:")).to_be_visible()


def test_a_tank_that_cleared_its_doses_may_have_fish(page: Page, new_keeper: str, running: Running) -> None:
    tank = cycled_tank(page, running.url)
    page.goto(f"{running.url}/tanks/{tank}/cycle")
    expect(heading(page)).to_contain_text("You may add fish")
    expect(page.get_by_text(re.compile("Ready, by the load-matched standard")).first).to_be_visible()
    # What has been proved is no longer forecast.
    expect(page.get_by_text(re.compile(r"Ready between day \d+"))).to_have_count(0)
    expect(page.get_by_role("region", name="First, today")).to_contain_text("Change 3")
    expect(page.get_by_text("Add the first animals", exact=True)).to_be_visible()
    # Once changed, the animals come first, and no second change is asked for.
    page.get_by_role("region", name="First, today").get_by_role("button", name="Done").click()
    expect(page.get_by_role("region", name="First, today")).to_contain_text("Add the first animals")
    expect(page.get_by_text(re.compile(r"^Change \d+ L"))).to_have_count(0)
    page.get_by_role("region", name="First, today").get_by_role("button", name="They are in").click()
    expect(page.get_by_role("tab", name="First animals")).to_have_attribute("aria-selected", "true")


def test_the_keyboard_alone_measures_stocks_chooses_and_logs(page: Page, new_keeper: str) -> None:
    def tab_to(locator) -> None:
        for _ in range(80):
            if locator.evaluate("e => e === document.activeElement || e.contains(document.activeElement)"):
                return
            page.keyboard.press("Tab")
        raise AssertionError(f"the keyboard does not reach {locator}")

    def type_over(text: str) -> None:
        page.keyboard.press("ControlOrMeta+a")
        page.keyboard.type(text)

    tab_to(page.get_by_label("A new tank"))
    page.keyboard.type("Keys")
    page.keyboard.press("Enter")
    expect(heading(page)).to_contain_text("A tank like this holds")
    tab_to(page.get_by_label("Length, cm"))
    type_over("80")
    page.keyboard.press("Tab")
    type_over("14 in")
    page.keyboard.press("Tab")
    expect(page.get_by_label("Width, cm")).to_have_value("35.56")
    tab_to(page.get_by_role("button", name="Save the tank"))
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()
    page.keyboard.press("2")
    expect(heading(page)).to_contain_text("Who will live in it?")
    tab_to(page.get_by_role("combobox", name="Add an animal"))
    page.keyboard.type("guppy")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(page.get_by_label("How many Guppy")).to_be_visible()
    page.keyboard.press("Tab")
    tab_to(page.get_by_role("button", name="Save the animals"))
    page.keyboard.press("Space")
    expect(page.get_by_text("3 animals")).to_be_visible()
    page.keyboard.press("3")
    choose = page.get_by_role("button", name=re.compile("^(Choose|Plan with)"))
    tab_to(choose)
    # One press chooses and saves.
    page.keyboard.press("Enter")
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()
    page.locator("body").press("4")
    tab_to(page.get_by_role("checkbox").first)
    page.keyboard.press("Space")
    expect(heading(page)).to_contain_text("1 of")
    page.keyboard.press("5")
    tab_to(page.get_by_role("button", name="Begin the cycle"))
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="First, today")).to_be_visible()
    page.locator("body").press("l")
    page.keyboard.type("a 0 n 0 kh 6")
    page.keyboard.press("Enter")
    expect(page.get_by_role("region", name="First, today")).to_contain_text("Dose to 2 ppm")
    page.locator("h1").click()
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
    page.keyboard.press("Escape")
    expect(page.get_by_role("dialog", name="Keys")).to_be_hidden()
