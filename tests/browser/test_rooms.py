"""Rooms, the month, and what comes back to the keeper, in a browser: presses counted, keys alone, nothing for axe to
find.
"""

import re
from datetime import UTC, datetime, timedelta

from playwright.sync_api import Page, Route, expect

from tests.browser.test_care import look_round, settle, violations
from tests.support.browser_api import send, write
from tests.support.running import Running


def test_three_tanks_are_squeezed_and_tested_on_a_phone_in_under_twenty_presses(
    page: Page, running: Running, rack: str
) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    presses = 0
    for name in ("Rack 1", "Rack 4", "Rack 7"):
        page.get_by_role("list", name="The board, what cannot wait first").get_by_text(name, exact=True).click()
        presses += 1
    page.get_by_role("button", name="Squeezed").click()
    expect(page.get_by_text("Squeezed: written in 3 tanks.")).to_be_visible()
    page.get_by_label("A test that all showed").fill("a 0 n 0")
    page.get_by_label("A test that all showed").press("Enter")
    expect(page.get_by_text("The test: written in 3 tanks.")).to_be_visible()
    presses += 1 + len("a 0 n 0") + 1
    assert presses < 20
    rows = {r["name"]: r for r in send(page, running.url, "GET", rack.removeprefix(running.url))["view"]["rows"]}
    for name in ("Rack 1", "Rack 4", "Rack 7"):
        kinds = [
            e["body"]["kind"]
            for e in send(page, running.url, "GET", f"/api/tanks/{rows[name]['tank_id']}/entries")["entries"]
        ]
        assert kinds[:2] == ["reading", "media-work"]
        squeeze = [datetime.fromisoformat(d["at"]) for d in rows[name]["next"] if d["title"].startswith("Squeeze")]
        assert all(at > datetime.now(UTC) + timedelta(days=5) for at in squeeze)


def test_a_tank_is_moved_by_keys_and_stays_where_it_was_saved(page: Page, running: Running, rack: str) -> None:
    spot = send(page, running.url, "GET", rack.removeprefix(running.url))["room"]["plan"]["spots"][2]
    tank = page.get_by_role("checkbox", name="Rack 3, 5 Swordtail")
    tank.focus()
    for _ in range(3):
        page.keyboard.press("Shift+ArrowRight")
    page.get_by_role("button", name="Save the room").click()
    expect(page.get_by_role("button", name="Save the room")).to_have_count(0)
    saved = send(page, running.url, "GET", rack.removeprefix(running.url))["room"]["plan"]["spots"][2]
    assert saved["x_cm"] == min(spot["x_cm"] + 30, 200)
    assert saved["shelf"] == spot["shelf"]


def test_a_smaller_pump_is_seen_at_once_and_dropped_again(page: Page, rack: str) -> None:
    air = page.get_by_role("region", name="Air")
    expect(air.get_by_text("outlets get their air")).to_be_visible()
    air.get_by_text("The pump and the main").click()
    air.get_by_label("L/min on its box").fill("1")
    air.get_by_label("L/min on its box").press("Enter")
    expect(air.get_by_text("Too little air for 9 outlets")).to_be_visible()
    page.get_by_role("button", name="As it was").click()
    expect(air.get_by_text("outlets get their air")).to_be_visible()


def test_axe_finds_nothing_in_the_room_the_rooms_and_the_month(
    page: Page, running: Running, rack: str, axe_source: str
) -> None:
    # A Sunday: six days of the week are past, and drawn as such.
    now = datetime.now(UTC)
    page.clock.set_fixed_time(now + timedelta(days=6 - now.weekday()))
    assert violations(page, axe_source) == []
    for path in ("rooms", "month"):
        page.goto(f"{running.url}/{path}")
        settle(page)
        assert violations(page, axe_source) == [], path


def test_a_room_comes_from_a_table_typed_in(page: Page, running: Running, new_keeper: str) -> None:
    page.goto(f"{running.url}/rooms")
    settle(page)
    page.get_by_text("A room and its tanks from a table").click()
    page.get_by_label("The room’s name").fill("Back wall")
    page.get_by_label("The table").fill(
        "name,length_cm,width_cm,height_cm,filter\nLow 1,60,30,36,Sponge\nLow 2,60,30,x,"
    )
    page.get_by_role("button", name="Make the room").last.click()
    expect(page.get_by_text("line 3: height_cm")).to_be_visible()
    page.get_by_label("The table").fill(
        "name,length_cm,width_cm,height_cm,filter\nLow 1,60,30,36,Sponge\nLow 2,60,30,36,"
    )
    page.get_by_role("button", name="Make the room").last.click()
    expect(page.get_by_role("checkbox", name="Low 1, nobody")).to_be_visible()
    page.get_by_role("button", name="There is an air pump").click()
    air = page.get_by_role("region", name="Air")
    # Nothing is guessed of a pump that nothing is known of; a jug on one line tells.
    expect(air.get_by_text("What is known of Air pump 1?")).to_be_visible()
    air.get_by_text("Nothing is printed on it: time one line").click()
    air.get_by_label("Jug, mL").fill("500")
    air.get_by_label("Seconds, first time").fill("20")
    air.get_by_label("Lines on the pump").fill("2")
    air.get_by_label("Lines on the pump").blur()
    expect(air.get_by_text(re.compile("The pump gives about 3.*L/min with nothing before it"))).to_be_visible()
    air.get_by_role("button", name=re.compile("^Use 3")).click()
    expect(air.get_by_text("The one outlet gets its air")).to_be_visible()


def test_the_month_has_what_is_due_on_its_day_and_leads_to_it(page: Page, running: Running, rack: str) -> None:
    page.goto(f"{running.url}/month")
    settle(page)
    rows = send(page, running.url, "GET", "/api/ahead")["rows"]
    assert rows
    squeeze = page.get_by_role("link", name="Squeeze the sponge").first
    expect(squeeze).to_be_visible()
    squeeze.click()
    expect(page).to_have_url(
        f"{running.url}/tanks/{next(r['tank_id'] for r in rows if r['due']['title'] == 'Squeeze the sponge')}/keep"
    )


def test_what_looks_unwell_is_ticked_and_the_first_check_comes_up_and_is_closed_again(
    page: Page, running: Running
) -> None:
    page.goto(running.url)
    settle(page)
    tank = look_round(page, running)["Courtyard door"]
    page.goto(f"{running.url}/tanks/{tank}/keep")
    settle(page)
    page.get_by_text("An animal looks unwell").click()
    page.get_by_text("gasps at the surface").click()
    page.get_by_role("button", name="Write it, and see what to look at").click()
    box = page.get_by_role("region", name="Animals unwell or lost")
    expect(box.get_by_text("Air now:").first).to_be_visible()
    expect(page.get_by_role("heading", level=1)).to_contain_text("too little oxygen first")
    box.get_by_role("button", name="All are well again").click()
    expect(box).to_have_count(0)


def test_after_a_change_it_asks_for_the_plugs_and_takes_a_yes(page: Page, running: Running) -> None:
    page.goto(running.url)
    settle(page)
    tank = look_round(page, running)["Courtyard door"]
    page.goto(f"{running.url}/tanks/{tank}/keep")
    settle(page)
    page.get_by_role("button", name="Done: Change 25% of the water and vacuum the bed").click()
    plugs = page.get_by_role("region", name="Plugs")
    expect(plugs).to_contain_text("is everything plugged in")
    plugs.get_by_role("button", name="Yes, I saw it run").click()
    expect(plugs).to_have_count(0)


def test_the_care_card_has_what_is_due_and_every_step_on_one_sheet(
    page: Page, running: Running, axe_source: str
) -> None:
    page.goto(running.url)
    settle(page)
    tank = look_round(page, running)["Courtyard door"]
    page.goto(f"{running.url}/tanks/{tank}/keep")
    settle(page)
    page.get_by_role("link", name="A care card to print").click()
    expect(page.get_by_role("heading", level=1)).to_contain_text("Courtyard door: what is done when")
    expect(page.get_by_text("Change 25% of the water and vacuum the bed").first).to_be_visible()
    expect(
        page.get_by_role("heading", level=2, name="Open and rinse the canister: Sweetflag 1200 canister")
    ).to_be_visible()
    assert violations(page, axe_source) == []


def test_a_room_whose_answer_was_lost_is_made_once_when_sent_again(
    page: Page, running: Running, new_keeper: str
) -> None:
    def lose_the_answer(route: Route) -> None:
        route.fetch()
        route.abort()

    page.goto(f"{running.url}/rooms")
    settle(page)
    page.route("**/api/rooms/import", lose_the_answer, times=1)
    page.get_by_text("A room and its tanks from a table").click()
    page.get_by_label("The room’s name").fill("Back wall")
    page.get_by_label("The table").fill("name,length_cm,width_cm,height_cm\nLow 1,60,30,36")
    make = page.get_by_role("button", name="Make the room").last
    make.click()
    expect(page.get_by_text("Reedmace cannot be reached")).to_be_visible()
    assert len(send(page, running.url, "GET", "/api/rooms")["rooms"]) == 1
    make.click()
    expect(page).to_have_url(re.compile(r"/rooms/\d+"))
    assert len(send(page, running.url, "GET", "/api/rooms")["rooms"]) == 1
    assert len(send(page, running.url, "GET", "/api/tanks")["tanks"]) == 1


def test_a_spare_sponge_is_moved_in_three_presses_and_written_in_both_tanks(
    page: Page, running: Running, rack: str
) -> None:
    api = rack.removeprefix(running.url)
    rows = {r["name"]: r["tank_id"] for r in send(page, running.url, "GET", api)["view"]["rows"]}
    seeded = {
        "key": "spare-sponge-01",
        "at": (datetime.now(UTC) - timedelta(days=40)).isoformat(),
        "body": {"kind": "seed", "name": "Spare sponge", "media_share": 0.5, "disease_note": "unknown"},
    }
    send(page, running.url, "POST", f"/api/tanks/{rows['Rack 2']}/entries", seeded)
    page.reload()
    board = page.get_by_role("list", name="The board, what cannot wait first")
    for name in ("Rack 2", "Rack 8"):
        board.get_by_text(name, exact=True).click()
    together = page.get_by_role("region", name="For the chosen tanks")
    expect(together.get_by_text("Ready: it carries a full film.")).to_be_visible(timeout=45_000)
    expect(together.get_by_text("Disease travels with a sponge")).to_be_visible()
    together.get_by_role("button", name="Move the sponge").click()
    expect(together.get_by_text("Moved, and written in both tanks.")).to_be_visible()
    bodies = {
        name: [e["body"] for e in send(page, running.url, "GET", f"/api/tanks/{rows[name]}/entries")["entries"]]
        for name in ("Rack 2", "Rack 8")
    }
    assert [(b["phase"], b["to"]) for b in bodies["Rack 2"][:2]] == [("in", "Rack 8"), ("out", "Rack 8")]
    assert bodies["Rack 8"][0]["what"] == "seed-added"
    assert 0.45 < bodies["Rack 8"][0]["share"] <= 0.5


def test_a_spare_sponge_is_dragged_into_another_tank_or_pressed_there_and_written_in_both(
    page: Page, running: Running, rack: str
) -> None:
    rows = send(page, running.url, "GET", rack.removeprefix(running.url))["view"]["rows"]
    ids = {r["name"]: r["tank_id"] for r in rows}
    for number, name in enumerate(("Spare one", "Spare two")):
        write(page, running.url, ids["Rack 1"], 35, {"kind": "seed", "name": name}, number)
    page.reload()
    sponge = page.get_by_role("button", name=re.compile("^Spare sponge Spare one in Rack 1"))
    wall = page.get_by_role("figure").filter(has=page.get_by_role("group", name=re.compile("^The wall to scale")))
    sponge.drag_to(wall.get_by_role("checkbox", name=re.compile("^Rack 4,")))
    expect(wall).to_contain_text("Ready: it carries a full film. It brings 50 % of the film")
    page.get_by_role("button", name="Move the sponge").click()
    expect(sponge).to_have_count(0)
    # By keys: picked up, let go again, picked up, and a tank pressed.
    other = page.get_by_role("button", name=re.compile("^Spare sponge Spare two in Rack 1"))
    other.press("Enter")
    expect(page.get_by_text("Spare two of Rack 1 is in your hand")).to_be_visible()
    other.press("Escape")
    expect(page.get_by_text("is in your hand")).to_have_count(0)
    other.press("Enter")
    wall.get_by_role("checkbox", name=re.compile("^Rack 5,")).press("Enter")
    page.get_by_role("button", name="Move the sponge").click()
    expect(other).to_have_count(0)
    for tank, seeds in (("Rack 4", ["Spare one"]), ("Rack 5", ["Spare two"]), ("Rack 1", [])):
        entries = send(page, running.url, "GET", f"/api/tanks/{ids[tank]}/entries")["entries"]
        assert [e["body"]["text"] for e in entries if e["body"].get("what") == "seed-added"] == seeds
