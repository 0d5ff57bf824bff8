"""A room's round on a phone: laid out, taken on, walked without a connection, nothing lost."""

from playwright.sync_api import Page, expect

from tests.browser.test_care import violations
from tests.support.browser_api import send
from tests.support.chromium import with_service_worker
from tests.support.running import Running


@with_service_worker
def test_a_round_is_taken_on_and_walked_without_a_connection_in_under_twenty_presses(
    page: Page, running: Running, rack: str, axe_source: str
) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    api = rack.removeprefix(running.url)
    page.goto(f"{running.url}{api.removeprefix('/api')}/round")
    # Walked today, whatever weekday the test runs on.
    for day in ("Sunday", "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday"):
        box = page.get_by_role("checkbox", name=day)
        if not box.is_checked():
            page.get_by_text(day, exact=True).click()
            expect(box).to_be_checked()
    expect(page.get_by_role("heading", level=1)).to_contain_text("squeeze 3 of 8 sponges (Rack 1, Rack 4 and Rack 7)")
    assert violations(page, axe_source) == []
    page.get_by_role("button", name="Take it on").click()
    done = page.get_by_role("button", name="Done: ")
    expect(done.first).to_be_visible()
    assert violations(page, axe_source) == []
    page.wait_for_load_state("networkidle")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.wait_for_timeout(800)
    presses, todo = 1, done.count()
    page.context.set_offline(True)
    page.reload()
    for _ in range(todo):
        done.first.click()
        presses += 1
    expect(done).to_have_count(0)
    page.get_by_role("button", name="All seen running: Shelf 1 from below").click()
    page.get_by_role("button", name="Something is wrong with Rack 1").click()
    page.get_by_role("button", name="Weak bubbles").click()
    presses += 3
    assert presses < 20
    # Three tanks stand on that shelf.
    waiting = page.get_by_text(f"{todo + 4} entries are kept on this device")
    expect(waiting).to_be_visible()
    page.reload()
    expect(waiting).to_be_visible()
    # What waits here is not asked for again.
    expect(done).to_have_count(0)
    page.context.set_offline(False)
    expect(page.get_by_text("kept on this device and will be sent")).to_have_count(0, timeout=60_000)
    expect(page.get_by_text("✓ done")).to_have_count(todo)
    view = send(page, running.url, "GET", f"{api}/round?today={today(page)}")
    assert view["days"][0]["done_count"] == todo
    rows = send(page, running.url, "GET", api)["view"]["rows"]
    first = next(r["tank_id"] for r in rows if r["name"] == "Rack 1")
    bodies = [e["body"] for e in send(page, running.url, "GET", f"/api/tanks/{first}/entries")["entries"]]
    assert [b["bubbles"] for b in bodies if b["kind"] == "air-seen"][:2] == ["weak", "steady"]


@with_service_worker
def test_a_brood_is_counted_and_moved_on_a_phone_in_a_few_presses(
    page: Page, running: Running, rack: str, axe_source: str
) -> None:
    page.set_viewport_size({"width": 390, "height": 844})
    page.goto(f"{running.url}/broods")
    expect(page.get_by_role("heading", level=1)).to_contain_text("2 broods.")
    assert violations(page, axe_source) == []
    page.wait_for_load_state("networkidle")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.context.set_offline(True)
    card = page.get_by_role("article", name="Swordtail in Rack 3")
    card.get_by_role("button", name="Count them", exact=True).click()
    card.get_by_label("How many").fill("31")
    card.get_by_role("button", name="are there now").click()
    expect(card.get_by_text("Kept on this device; it will be sent later.")).to_be_visible()
    page.context.set_offline(False)
    expect(card).to_contain_text("31 young, about 0.9 cm", timeout=60_000)
    expect(card.get_by_text("Kept on this device")).to_have_count(0)
    card.get_by_label("How many").fill("40")
    move = card.get_by_role("button", name="Move them")
    move.click()
    expect(card.get_by_role("alert")).to_contain_text("there are 31")
    card.get_by_label("How many").fill("31")
    card.get_by_role("button", name="Into").click()
    page.get_by_role("option", name="Rack 8").click()
    move.click()
    there = page.get_by_role("article", name="Swordtail in Rack 8")
    expect(there).to_contain_text("31 young")
    expect(card).to_have_count(0)
    # Nobody lived there: its water is watched from now on.
    there.get_by_role("link", name="Rack 8").click()
    expect(page.get_by_role("main")).to_contain_text("31 young came: Swordtail")


def test_labels_of_a_room_stand_on_a_sheet_to_print(page: Page, running: Running, rack: str, axe_source: str) -> None:
    page.get_by_text("Files of this room").click()
    page.get_by_role("link", name="Labels for the tanks, with a code for the phone").click()
    label = page.get_by_role("article", name="Rack 4")
    expect(label).to_contain_text("31 L, Burreed 8 sponge. 40 Cherry shrimp")
    expect(label.get_by_role("img")).to_be_visible()
    expect(page.get_by_role("article")).to_have_count(9)
    # The tests' own address is a machine's own.
    expect(page.get_by_text("which no phone can open")).to_be_visible()
    assert violations(page, axe_source) == []
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print", exact=True)).to_be_hidden()
    expect(label).to_be_visible()


def today(page: Page) -> str:
    day = page.evaluate("new Date().toLocaleDateString('sv')")
    assert isinstance(day, str)
    return day
