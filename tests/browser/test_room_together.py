"""What a room's tanks have in common, in a browser: a sump, quarantine, settings, a meter; the logbook on paper."""

import json

from playwright.sync_api import Page, expect

from tests.browser.test_care import look_round, settle, violations
from tests.support.browser_api import send
from tests.support.running import Running


def test_a_shared_sump_is_tried_its_taps_set_and_kept(page: Page, running: Running, rack: str) -> None:
    page.get_by_text("One sump under several tanks").click()
    page.get_by_text("Some of these tanks share a sump").click()
    expect(page.get_by_text("Nothing reaches Rack")).to_be_visible()
    expect(page.get_by_text("Rack 9 is in quarantine and must not share this water")).to_be_visible()
    page.get_by_role("button", name="Set the taps so that all turn over alike").click()
    expect(page.get_by_text("volumes an hour in each, and a power cut sends")).to_be_visible()
    page.get_by_role("button", name="Save the room").click()
    expect(page.get_by_role("button", name="Save the room")).to_have_count(0)
    sump = send(page, running.url, "GET", rack.removeprefix(running.url))["view"]["sump"]
    turns = [t["turnovers_per_hour"] for t in sump["tanks"]]
    assert len(turns) == 9
    assert max(turns) < 1.1 * min(turns)


def test_chosen_tanks_go_into_quarantine_and_the_board_counts_its_days(page: Page, rack: str) -> None:
    board = page.get_by_role("list", name="The board, what cannot wait first")
    board.get_by_text("Rack 2", exact=True).click()
    page.get_by_text("Quarantine", exact=True).click()
    page.get_by_label("Days", exact=True).fill("14")
    page.get_by_label("Days", exact=True).press("Tab")
    page.get_by_role("button", name="It begins today").click()
    row = board.get_by_role("listitem").filter(has_text="Rack 2")
    expect(row).to_contain_text("quarantine, day 1 of 14")
    expect(page.get_by_text("Rack 2 is in quarantine: last, with its own net and bucket.")).to_be_visible()
    row.get_by_role("link").first.click()
    expect(page.get_by_role("button", name="It is over")).to_be_visible()
    page.get_by_role("button", name="It is over").click()
    expect(page.get_by_text("Quarantine: its animals stay by themselves")).to_be_visible()


def test_a_day_for_changes_is_set_in_all_chosen_tanks(page: Page, running: Running, rack: str) -> None:
    page.get_by_role("button", name="all", exact=True).click()
    page.get_by_text("Settings, all alike").click()
    page.get_by_role("button", name="Water is changed on").click()
    page.get_by_role("option", name="Saturday").click()
    page.get_by_role("button", name="Set it in 9 tanks").click()
    expect(page.get_by_text("Set, and written in each logbook")).to_be_visible()
    for row in send(page, running.url, "GET", rack.removeprefix(running.url))["view"]["rows"]:
        entries = send(page, running.url, "GET", f"/api/tanks/{row['tank_id']}/entries?kind=tank-plan")["entries"]
        assert entries[0]["body"]["surroundings"]["change_weekday"] == 5


def test_a_room_goes_out_as_a_file_and_comes_back_on_the_rooms_page(
    page: Page,
    running: Running,
    rack: str,
    axe_source: str,
) -> None:
    page.get_by_text("A meter on the air pump").click()
    page.get_by_label("Name of the meter").fill("Main pump")
    page.get_by_role("button", name="Let it write here").click()
    expect(page.get_by_text("Its token, shown this once")).to_be_visible()
    page.get_by_text("Files of this room").click()
    page.get_by_text("One sump under several tanks").click()
    page.get_by_role("button", name="all", exact=True).click()
    page.get_by_text("Settings, all alike").click()
    assert violations(page, axe_source) == []
    with page.expect_download() as download:
        page.get_by_role("link", name="The room and all its logbooks as JSON").click()
    text = download.value.path().read_text()
    assert len(json.loads(text)["tanks"]) == 9
    page.goto(f"{running.url}/rooms")
    settle(page)
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Take in a room with its logbooks (JSON)").click()
    chooser.value.set_files({"name": "room.json", "mimeType": "application/json", "buffer": text.encode()})
    expect(page.get_by_role("list", name="The board, what cannot wait first").get_by_role("listitem")).to_have_count(9)


def test_the_logbook_is_printed_month_by_month_without_what_was_taken_back(
    page: Page, running: Running, axe_source: str
) -> None:
    page.goto(running.url)
    settle(page)
    tank = look_round(page, running)["Courtyard door"]
    page.goto(f"{running.url}/tanks/{tank}/keep")
    settle(page)
    page.get_by_role("button", name="Take back: ").first.click()
    expect(page.get_by_text("(taken back)").first).to_be_visible()
    gone = page.locator("s").first.inner_text()
    page.get_by_role("link", name="The logbook, to print").click()
    expect(page.get_by_role("heading", level=1)).to_have_text("Courtyard door: the logbook")
    page.get_by_role("button", name="How far back").click()
    page.get_by_role("option", name="all of it").click()
    expect(page.get_by_role("heading", level=2).nth(2)).to_be_visible()
    page.emulate_media(media="print")
    assert page.get_by_text(gone, exact=True).count() < page.get_by_role("listitem").count()
    stands = send(page, running.url, "GET", f"/api/tanks/{tank}/entries?limit=200")
    replaced = {e["supersedes"] for e in stands["replacing"]} | {e["supersedes"] for e in stands["entries"]}
    lines = [e for e in stands["entries"] if e["id"] not in replaced and e["body"]["kind"] != "withdrawal"]
    assert page.locator("main section li").count() == len(lines)
    page.emulate_media(media="screen")
    assert violations(page, axe_source) == []


def test_what_hangs_on_the_wall_is_moved_by_keys_added_and_taken_away(page: Page, running: Running, rack: str) -> None:
    before = send(page, running.url, "GET", rack.removeprefix(running.url))["room"]["plan"]
    page.get_by_role("button", name="The rack's pump").focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowLeft")
    page.keyboard.press("ArrowUp")
    page.get_by_role("button", name="Socket 1").focus()
    page.keyboard.press("Delete")
    page.get_by_role("button", name="One more shelf").click()
    expect(page.get_by_role("button", name="Shelf 4")).to_be_visible()
    sink = page.get_by_role("button", name="Sink")
    box = sink.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 - 40, box["y"] + box["height"] / 2, steps=4)
    page.mouse.up()
    page.get_by_role("button", name="Save the room").click()
    expect(page.get_by_role("button", name="Save the room")).to_have_count(0)
    plan = send(page, running.url, "GET", rack.removeprefix(running.url))["room"]["plan"]
    assert plan["pumps"][0]["x_cm"] == before["pumps"][0]["x_cm"] - 30
    assert plan["pumps"][0]["y_cm"] == before["pumps"][0]["y_cm"] + 1
    assert len(plan["sockets"]) == len(before["sockets"]) - 1
    assert len(plan["shelves"]) == 4
    assert plan["sink"]["x_cm"] < before["sink"]["x_cm"] - 10
    assert plan["spots"] == before["spots"]
