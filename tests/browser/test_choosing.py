"""Choosing in full on the screen: handles, shapes, own animals, the shop's box, pairs, media, the list to buy."""

import re

import pytest
from playwright.sync_api import Browser, Page, expect

from tests.support.browser_api import send
from tests.support.running import Running


def open_stage(page: Page, url: str, tank: str, stage: str) -> None:
    ids = {t["name"]: t["id"] for t in send(page, url, "GET", "/api/tanks")["tanks"]}
    page.goto(f"{url}/tanks/{ids[tank]}/{stage}")
    expect(page.get_by_role("heading", level=1)).to_be_visible()


@pytest.fixture
def fresh_tank(page: Page, new_keeper: str, running: Running) -> str:
    """Address of a new tank of a new keeper."""
    return f"{running.url}/tanks/{send(page, running.url, 'POST', '/api/tanks', {'name': 'Choosing'})['id']}"


def test_wall_and_stand_are_dragged_or_typed_and_both_agree(page: Page, fresh_tank: str) -> None:
    page.goto(f"{fresh_tank}/tank")
    wall = page.get_by_role("slider", name=re.compile("Gap to the wall"))
    wall.press("ArrowRight")
    wall.press("ArrowRight")
    expect(page.get_by_label("Glass to wall, cm")).to_have_value("11")
    page.get_by_label("Stand height, cm").fill("80")
    expect(page.get_by_role("slider", name=re.compile("Stand height"))).to_have_attribute("aria-valuenow", "80")
    box = wall.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 + 25, box["y"] + box["height"] / 2, steps=5)
    page.mouse.up()
    expect(page.get_by_label("Glass to wall, cm")).not_to_have_value("11")
    typed = float(page.get_by_label("Glass to wall, cm").input_value())
    assert 12 < typed < 40
    expect(wall).to_have_attribute("aria-valuenow", f"{typed:g}")


@pytest.mark.parametrize(
    ("shape", "label", "size", "litres"),
    [
        # 36 cm high, 6 mm glass, 3 cm under the rim, 3 cm of gravel with 0.4 of pores: area × 30.6 cm, by hand.
        ("Cylinder", "Diameter, cm", "48", "5[23]"),
        ("Prism", "Across flats, cm", "48", "58"),
        ("Quarter-round corner", "Along the wall, cm", "50", "57"),
    ],
    ids=["cylinder", "prism", "corner"],
)
def test_each_shape_asks_for_its_own_size_and_says_its_litres(
    page: Page, fresh_tank: str, shape: str, label: str, size: str, litres: str
) -> None:
    page.goto(f"{fresh_tank}/tank")
    page.get_by_role("button", name=re.compile("Shape")).click()
    page.get_by_role("option", name=shape).click()
    page.get_by_label(label).fill(size)
    expect(page.get_by_text("from above")).to_be_visible()
    expect(page.get_by_label("Width, cm")).to_be_hidden()
    expect(page.get_by_role("heading", level=1)).to_contain_text(re.compile(rf"It holds {litres} L"))


def test_an_animal_of_ones_own_counts_like_any_other_and_a_clash_with_the_tank_is_said(
    page: Page, fresh_tank: str
) -> None:
    page.goto(f"{fresh_tank}/stock")
    page.get_by_text("Food weighed, or an animal of your own").click()
    page.get_by_label("Name of the animal").fill("Pond skipper")
    page.get_by_label("Grown, cm").fill("30")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="Add this animal").click()
    expect(page.get_by_label("How many Pond skipper")).to_have_value("1")
    expect(page.get_by_text(re.compile("outgrows a tank"))).to_be_visible()
    page.get_by_label("Length of Pond skipper today, cm").fill("10")
    page.keyboard.press("Tab")
    expect(page.get_by_text(re.compile("at today’s size")).first).to_be_visible()
    page.get_by_role("button", name="Save the animals").click()
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()
    page.reload()
    expect(page.get_by_label("How many Pond skipper")).to_have_value("1")


def test_kind_and_size_come_first_and_follow_what_matters(demo_page: Page, running: Running) -> None:
    page = demo_page
    open_stage(page, running.url, "Kiln room", "filter")
    said = page.get_by_role("heading", level=1)
    expect(said).to_contain_text(re.compile("whose box says|sold for"))
    first = said.inner_text()
    map_ = page.get_by_role("region", name="Type and size")
    expect(map_.get_by_role("button")).to_have_count(8)
    for wish in ("young and shrimp safe", "easy to clean"):
        chip = page.get_by_role("group", name="What matters").get_by_role("button", name=wish)
        chip.click()
        expect(chip).to_have_attribute("aria-pressed", "true")
    expect(said).not_to_have_text(first)
    # Arrow keys move along the kinds; what each is asked for in a shop stands below.
    map_.get_by_role("button", pressed=True).press("ArrowDown")
    expect(map_.get_by_text("Look for")).to_be_visible()
    # Left and right move along the sizes: the usual box of that size is what is spoken of and drawn.
    size = map_.get_by_role("heading", level=2)
    before = size.inner_text()
    map_.get_by_role("button", pressed=True).press("ArrowRight")
    expect(size).not_to_have_text(before)
    page.get_by_role("button", name="Undo changes").click()
    expect(said).to_have_text(first)


def test_a_pair_can_be_chosen_and_taken_off_again(demo_page: Page, running: Running) -> None:
    page = demo_page
    open_stage(page, running.url, "Kiln room", "filter")
    page.get_by_text("Two, so that one may fail").click()
    pairs = page.get_by_role("list", name="Pairs, best first")
    pairs.get_by_role("button").first.click()
    expect(page.get_by_text(re.compile("on their boxes"))).to_be_visible()
    # One press chooses and saves, and says where to go next; taken off again, the tank is as before.
    page.get_by_role("button", name=re.compile("^(Choose|Plan with)")).click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Enough")
    expect(page.get_by_role("link", name="fit it, step by step")).to_be_visible()
    off = page.get_by_role("button", name="Take it off")
    for left in (2, 1):
        expect(off).to_have_count(left)
        off.first.click()
    expect(page.get_by_role("region", name="On this tank")).to_be_hidden()


def test_four_stand_side_by_side_and_what_is_left_out_says_why(demo_page: Page, running: Running) -> None:
    page = demo_page
    open_stage(page, running.url, "Courtyard door", "filter")
    page.get_by_text("Compare up to four side by side").click()
    table = page.get_by_role("table").filter(has_text="Three years, with power")
    expect(table.get_by_role("columnheader")).to_have_count(4)
    unticked = page.locator("label").filter(has=page.get_by_role("checkbox", checked=False))
    unticked.first.click()
    expect(table.get_by_role("columnheader")).to_have_count(5)
    page.get_by_text(re.compile("left out, and why")).click()
    expect(page.get_by_text(re.compile("clogs within days under large messy fish")).first).to_be_visible()


def test_baskets_are_ordered_by_keys_and_a_wrong_order_is_named(demo_page: Page, running: Running) -> None:
    page = demo_page
    open_stage(page, running.url, "Long bench", "filter")
    page.get_by_text(re.compile("^Media in Lockgate 1500")).click()
    for _ in range(3):
        page.get_by_role("button", name="Add a medium").click()
    expect(page.get_by_text(re.compile("In good order"))).to_be_visible()
    page.get_by_role("button", name="Move foam-20 earlier").click()
    expect(page.get_by_text(re.compile("comes before a coarser one")).first).to_be_visible()
    page.get_by_role("button", name="Move foam-20 later").click()
    expect(page.get_by_text(re.compile("In good order"))).to_be_visible()
    expect(page.get_by_text("Clean after")).to_be_visible()
    page.get_by_role("button", name="Undo changes").click()


def test_the_list_to_buy_is_printed_on_two_pages_at_most_and_saved_as_csv(
    demo_page: Page, running: Running, downloads
) -> None:
    page = demo_page
    open_stage(page, running.url, "Long bench", "buying")
    expect(page.get_by_role("checkbox", name="Hose, 18 mm bore")).to_be_attached()
    # What hangs there already is not held against others.
    expect(page.get_by_text("The best four on this tank")).to_be_hidden()
    page.locator("label").filter(has_text="Hose, 18 mm bore").click()
    page.reload()
    expect(page.get_by_role("checkbox", name="Hose, 18 mm bore")).to_be_checked()
    pdf = page.pdf(format="A4", margin={"top": "12mm", "bottom": "12mm", "left": "12mm", "right": "12mm"})
    assert 1 <= len(re.findall(rb"/Type\s*/Page[^s]", pdf)) <= 2
    with page.expect_download() as download:
        page.get_by_role("link", name="As CSV").click()
    path = downloads / "list.csv"
    download.value.save_as(path)
    assert "Hose clamps,4,piece" in path.read_text()


def test_a_file_of_boxes_with_a_fault_is_refused_by_row_and_a_good_one_stands_on_the_shelf(
    page: Page, fresh_tank: str, running: Running, downloads
) -> None:
    page.goto(f"{running.url}/shelf")
    page.get_by_text("As a file, and by link").click()
    path = downloads / "own.csv"
    path.write_text("name,kind,box_lph,watts,price,max_head_m\nShed find,canister,lots,8,20,1.2\n")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Take boxes from a CSV").click()
    chooser.value.set_files(path)
    expect(page.get_by_role("alert")).to_contain_text("line 2, box_lph")
    path.write_text(path.read_text().replace("lots", "420"))
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Take boxes from a CSV").click()
    chooser.value.set_files(path)
    expect(page.get_by_text("1 boxes taken.")).to_be_visible()
    expect(page.get_by_role("row").filter(has_text="Shed find")).to_contain_text("420 L/h")
    page.goto(f"{fresh_tank}/filter")
    expect(page.get_by_role("region", name="Boxes you have seen")).to_contain_text("Shed find")


def test_box_in_hand_on_a_phone_four_numbers_are_enough(browser: Browser, running: Running) -> None:
    context = browser.new_context(
        viewport={"width": 390, "height": 844}, has_touch=True, is_mobile=True, reduced_motion="reduce"
    )
    page = context.new_page()
    page.goto(running.url)
    page.get_by_role("button", name="Look round as the demo keeper").tap()
    expect(page).to_have_url(f"{running.url}/today")
    open_stage(page, running.url, "Kiln room", "filter")
    page.get_by_role("button", name="I have seen a box").tap()
    expect(page.get_by_label("Flow on the box, L/h")).to_be_focused()
    four = (("Flow on the box, L/h", "700"), ("Highest lift, m", "1.2"), ("Watts", "10"), ("“Tanks up to”, L", "300"))
    for label, figure in four:
        page.get_by_label(label).fill(figure)
        page.keyboard.press("Tab")
    page.get_by_role("button", name="Keep it and see").tap()
    expect(page.get_by_role("heading", level=1)).to_contain_text(re.compile("in service where"))
    assert page.evaluate("document.documentElement.scrollWidth") <= 390
    context.close()


def test_a_tap_on_a_word_opens_two_lines_on_it_and_keys_close_it(demo_page: Page, running: Running) -> None:
    page = demo_page
    open_stage(page, running.url, "Kiln room", "filter")
    asked = page.get_by_role("button", name="Filter bacteria", exact=True).first
    asked.focus()
    page.keyboard.press("Enter")
    said = page.get_by_role("dialog", name="Film of filter bacteria")
    expect(said).to_contain_text("turns ammonia into nitrite")
    page.keyboard.press("Escape")
    expect(said).to_have_count(0)
    expect(asked).to_be_focused()


def test_the_map_of_kinds_can_be_read_as_a_table(demo_page: Page, running: Running) -> None:
    from tests.browser.test_care import open_stage

    open_stage(demo_page, running.url, "Kiln room", "filter")
    map_ = demo_page.get_by_role("region", name="Type and size")
    map_.get_by_text("As a table").click()
    rows = map_.get_by_role("row")
    expect(rows).to_have_count(9)
    expect(map_.get_by_role("row", name=re.compile("^Canister"))).to_contain_text(re.compile(r"\d+ to \d+"))
    expect(map_.get_by_role("row", name=re.compile("^Sump"))).to_contain_text("Needs a drilled tank")
    # A kind named in the answer leads to its page.
    demo_page.get_by_role("link", name="Canister", exact=True).first.click()
    expect(demo_page).to_have_url(f"{running.url}/kinds/canister")
