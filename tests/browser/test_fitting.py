"""Fitting on the screen: parts dragged, steps locked, ticks without a connection, the sheet on paper."""

import re

import pytest
from playwright.sync_api import Browser, Page, expect

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.browser.test_choosing import open_stage
from tests.support.browser_api import send
from tests.support.chromium import with_service_worker
from tests.support.running import Running


@pytest.fixture
def chosen(page: Page, new_keeper: str, running: Running) -> str:
    """Address of a tank with a canister chosen."""
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Fitting"})["id"]
    bodies = (
        {"kind": "tank-plan", "tank": {"length_cm": 90, "width_cm": 40, "height_cm": 45, "substrate_depth_cm": 4}},
        {
            "kind": "filter-plan",
            "filters": [
                {
                    "key": "f1",
                    "filter": next(f for f in SAMPLE_BOXES if f.id == "sweetflag-800").model_dump(mode="json"),
                }
            ],
        },
    )
    for number, body in enumerate(bodies):
        entry = {"key": f"fitting-{number:04d}", "at": "2026-01-01T08:00:00Z", "body": body}
        send(page, running.url, "POST", f"/api/tanks/{tank}/entries", entry)
    return f"{running.url}/tanks/{tank}"


def test_moving_a_part_moves_the_cut_lengths_and_the_flow_and_says_a_fault(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/fit")
    cuts = page.get_by_role("list", name="Cut list")
    expect(cuts).to_contain_text("intake hose")
    before = cuts.inner_text()
    handle = page.get_by_role("slider", name=re.compile("Intake, centimetres"))
    handle.focus()
    for _ in range(6):
        handle.press("Shift+ArrowLeft")
    expect(cuts).not_to_have_text(before)
    outlet = page.get_by_role("slider", name=re.compile("Outlet, centimetres"))
    outlet.focus()
    for _ in range(9):
        outlet.press("Shift+ArrowRight")
    faults = page.get_by_role("list", name="Faults in the plan")
    expect(faults).to_contain_text("Put them at opposite ends.")
    page.get_by_text("Where the parts go").click()
    page.get_by_role("button", name="Save where things go").click()
    expect(page.get_by_text("Saved in the logbook.")).to_be_visible()
    page.reload()
    expect(faults).to_contain_text("Put them at opposite ends.")


def test_the_engineer_reads_heads_along_the_hoses_as_they_are_drawn(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/fit")
    cuts = page.get_by_role("list", name="Cut list")
    expect(cuts).to_contain_text("intake hose")
    page.get_by_text("For the engineer").click()
    chart = page.get_by_role("figure").filter(has_text="Head along the way")
    chart.get_by_text("As a table").click()
    rows = chart.get_by_role("row")
    expect(rows.nth(1)).to_contain_text("tank")
    intake = rows.filter(has_text="after-intake-hose")
    drawn = re.search(r"drawn (\d+) cm", cuts.get_by_text("drawn").first.inner_text())
    assert drawn
    expect(intake).to_contain_text(f"{int(drawn.group(1)) / 100:.2f} m")
    expect(page.get_by_text(re.compile(r"Nine in ten such filters move \d+ to"))).to_be_visible()
    with page.expect_download() as kept:
        page.get_by_role("link", name="EPANET .inp, after a service").click()
    names = [cell.split()[-1] for cell in rows.all_inner_texts()[1:]]
    text = kept.value.path().read_text()
    assert names[0] == "tank"
    assert all(f" {name} " in text for name in names)


def test_hoses_run_behind_the_tank_and_never_through_its_glass(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/fit")
    hidden = page.locator("path[data-hidden]")
    expect(hidden).to_have_count(2)
    for one in hidden.all():
        expect(one).to_have_attribute("stroke-dasharray", re.compile("."))
    # What is drawn solid of a hose is cut off where the tank hides it.
    solid = page.locator("path[stroke-width='5.4']")
    assert solid.count() == 2
    clipped = solid.evaluate_all("all => all.map((one) => one.parentElement.getAttribute('clip-path') ?? '')")
    assert all("seen" in clip for clip in clipped)


def test_a_mishap_shows_its_litres_and_where_the_level_stops(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/fit")
    page.get_by_role("button", name=re.compile("Intake hose off at the body")).click()
    expect(page.get_by_text("the level stops here")).to_be_visible()
    page.get_by_text("When the power fails").click()
    expect(page.get_by_text(re.compile("turns airless within hours"))).to_be_visible()


def test_power_is_locked_until_the_filter_is_primed(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/fit")
    power = page.get_by_role("checkbox", name="Dry the plug and switch on")
    expect(power).to_be_disabled()
    expect(page.get_by_text(re.compile("^First: prime with tank water, look: in to in"))).to_be_visible()
    for title in (
        "Feet or pads on first",
        "Rinse and load the media",
        "Put the body where it will stand",
        "Intake and outlet on the tank",
        "Now measure and cut the hose",
        "Clamp on the hose before the hose on the nozzle",
        "Both valves shut while half fitted",
        "Prime with tank water",
        "Look: in to in, out to out",
        "Look: every clamp on and tight",
        "Look: valves open, tap above the water",
        "Look: drip loop",
    ):
        step = page.get_by_role("checkbox", name=title)
        expect(step).to_be_enabled()
        # The list is drawn anew as the last tick comes back; a press in that very frame would miss.
        page.wait_for_load_state("networkidle")
        page.get_by_text(title, exact=True).click()
        expect(step).to_be_checked()
    expect(power).to_be_enabled()
    page.get_by_text("Dry the plug and switch on", exact=True).click()
    expect(page.get_by_role("timer").first).to_contain_text("It comes back on Today.")
    page.goto(re.sub(r"/tanks/.*", "/today", page.url))
    expect(page.get_by_role("link", name="Leak check after five minutes")).to_be_visible()


@with_service_worker
def test_a_job_done_without_a_connection_is_sent_later_and_never_twice(
    page: Page, chosen: str, running: Running
) -> None:
    page.goto(f"{chosen}/fit")
    expect(page.get_by_role("checkbox", name="Feet or pads on first")).to_be_enabled()
    page.context.set_offline(True)
    for title in ("Feet or pads on first", "Rinse and load the media"):
        page.get_by_text(title, exact=True).click()
        expect(page.get_by_role("checkbox", name=title)).to_be_checked()
    expect(page.get_by_text("2 entries are kept on this device")).to_be_visible()
    page.context.set_offline(False)
    expect(page.get_by_text(re.compile("kept on this device and will be sent"))).to_be_hidden(timeout=40_000)
    # What is kept on the device for the next visit is written half a second later.
    page.wait_for_timeout(1500)
    page.reload()
    # The sheet opened again begins at the next step.
    page.get_by_text("The first 2 steps were done before").click()
    expect(page.get_by_role("checkbox", name="Rinse and load the media")).to_be_checked()
    tank = int(re.search(r"/tanks/(\d+)", chosen).group(1))
    kinds = [e["body"]["kind"] for e in send(page, running.url, "GET", f"/api/tanks/{tank}/entries")["entries"]]
    assert kinds.count("step-done") == 2
    # Undo: ticked off again, the history keeps both.
    page.get_by_text("Rinse and load the media", exact=True).click()
    expect(page.get_by_role("checkbox", name="Rinse and load the media")).not_to_be_checked()


def test_a_float_or_a_box_level_proves_the_flow_where_nothing_can_be_caught(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/fit")
    page.get_by_text("Prove the flow, once it runs").click()
    page.get_by_text("carries a float").click()
    for label in ("Fill 1, s", "Fill 2, s", "Fill 3, s"):
        page.get_by_label(label).fill("0.5")
        page.keyboard.press("Tab")
    expect(page.get_by_text(re.compile("By a float it moves 579 L/h, give or take"))).to_be_visible()
    page.get_by_role("button", name="Log the flow test").click()
    expect(page.get_by_text(re.compile(r"Your last test stands at \d+ % of the sums"))).to_be_visible()


def test_the_fitting_sheet_is_two_pages_at_most_and_its_section_a_drawing_of_its_own(
    page: Page, chosen: str, downloads
) -> None:
    page.goto(f"{chosen}/sheet")
    expect(page.get_by_text("Look before you switch on")).to_be_visible()
    expect(page.get_by_text(re.compile("intake hose: cut"))).to_be_visible()
    pdf = page.pdf(format="A4", margin={"top": "12mm", "bottom": "12mm", "left": "12mm", "right": "12mm"})
    assert 1 <= len(re.findall(rb"/Type\s*/Page[^s]", pdf)) <= 2
    with page.expect_download() as download:
        page.get_by_role("button", name="Section as SVG").click()
    path = downloads / "section.svg"
    download.value.save_as(path)
    text = path.read_text()
    assert text.startswith("<svg")
    assert "cut" in text
    assert "var(--" not in re.sub(r'(fill|stroke)="var[^"]*"', "", text.replace("style=", "\nstyle="))


@pytest.mark.parametrize(
    ("size", "filter_id", "stand"),
    [((30, 30, 30), "starwort-nano", 70), ((180, 60, 60), "millpond-120", 80), ((90, 40, 45), "millrace-60", 66)],
    ids=["cube with a sponge", "long tank with a sump", "hang-on"],
)
def test_the_section_draws_without_overlapping_names(
    page: Page, new_keeper: str, running: Running, size, filter_id: str, stand: int
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Drawn"})["id"]
    length, width, height = size
    for number, body in enumerate(
        (
            {
                "kind": "tank-plan",
                "tank": {"length_cm": length, "width_cm": width, "height_cm": height, "substrate_depth_cm": 3},
                "surroundings": {"stand_height_cm": stand, "drilled": True, "behind_cm": 15},
            },
            {
                "kind": "filter-plan",
                "filters": [
                    {"key": "f1", "filter": next(f for f in SAMPLE_BOXES if f.id == filter_id).model_dump(mode="json")}
                ],
            },
        )
    ):
        entry = {"key": f"drawn-{number:04d}", "at": "2026-01-01T08:00:00Z", "body": body}
        send(page, running.url, "POST", f"/api/tanks/{tank}/entries", entry)
    page.goto(f"{running.url}/tanks/{tank}/fit")
    expect(page.get_by_role("heading", level=1)).to_contain_text("Next")
    page.wait_for_load_state("networkidle")
    clashes = page.evaluate(
        """() => {
          const texts = [...document.querySelectorAll('figure svg text')].filter(t => t.textContent.trim());
          const boxes = texts.map(t => [t.textContent, t.getBoundingClientRect()]);
          const found = [];
          for (let i = 0; i < boxes.length; i++) for (let j = i + 1; j < boxes.length; j++) {
            const [a, b] = [boxes[i][1], boxes[j][1]];
            const x = Math.min(a.right, b.right) - Math.max(a.left, b.left);
            const y = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
            if (x > 4 && y > 6) found.push(boxes[i][0] + ' / ' + boxes[j][0]);
          }
          return found;
        }"""
    )
    assert clashes == []


def test_the_steps_are_ticked_one_handed_on_a_phone(browser: Browser, chosen: str, page: Page) -> None:
    context = browser.new_context(
        viewport={"width": 390, "height": 844},
        has_touch=True,
        is_mobile=True,
        reduced_motion="reduce",
        storage_state=page.context.storage_state(),
    )
    phone = context.new_page()
    phone.goto(f"{chosen}/fit")
    tick = phone.get_by_text("Feet or pads on first", exact=True)
    tick.tap()
    expect(phone.get_by_role("checkbox", name="Feet or pads on first")).to_be_checked()
    row = phone.locator("label").filter(has_text="Rinse and load the media").first
    assert row.bounding_box()["height"] >= 44
    assert phone.evaluate("document.documentElement.scrollWidth") <= 390
    context.close()


@with_service_worker
def test_a_whole_job_with_the_connection_off_from_before_the_page_until_it_is_opened_again(
    page: Page, chosen: str, running: Running
) -> None:
    # One earlier visit, with the shell on its way into the device.
    for stage in ("cycle", "fit"):
        page.goto(f"{chosen}/{stage}")
        expect(page.get_by_role("heading", level=1)).to_be_visible()
        page.wait_for_load_state("networkidle")
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    page.wait_for_timeout(800)
    context = page.context
    context.set_offline(True)
    page.goto("about:blank")
    page.goto(f"{chosen}/fit")
    boxes = page.get_by_role("checkbox")
    rows = page.get_by_role("listitem").filter(has=page.get_by_role("checkbox"))
    expect(boxes.first).to_be_visible()
    steps = boxes.count()
    for i in range(steps):
        # What this device has done unlocks the next.
        expect(boxes.nth(i)).to_be_enabled()
        rows.nth(i).locator("b").first.click()
        expect(boxes.nth(i)).to_be_checked()
        # The first note at the head of the page moves what stands below it: a press that is on its way would miss.
        expect(page.get_by_text(re.compile(rf"^{i + 1} entr(y is|ies are) kept on this device"))).to_be_visible()
    page.get_by_label("Container, L").fill("2")
    page.get_by_role("button", name="Time fill 1").click()
    page.wait_for_timeout(700)
    page.get_by_role("button", name=re.compile("Full: stop at")).click()
    for fill in ("2", "3"):
        page.get_by_label(f"Fill {fill}, s").fill("11")
    page.get_by_role("button", name="Log the flow test").click()
    expect(page.get_by_text("Kept on this device; it will be sent later.").last).to_be_visible()
    page.goto("about:blank")
    page.goto(f"{chosen}/cycle")
    page.get_by_role("button", name="Tap the steps").click()
    for ppm in ("0", "0.25", "0.5"):
        page.get_by_role("button", name=f"Ammonia {ppm} ppm", exact=True).click()
        page.get_by_role("button", name="Log the test").click()
        expect(page.get_by_text("Kept on this device").first).to_be_visible()
    # Kept is what is said to be kept: the last press is waited for before the page is turned.
    expect(page.get_by_text(f"{steps + 4} entries are kept on this device")).to_be_visible()
    page.reload()
    expect(page.get_by_text(f"{steps + 4} entries are kept on this device")).to_be_visible()
    context.set_offline(False)

    expect(page.get_by_text("kept on this device and will be sent")).to_have_count(0, timeout=60_000)
    tank = chosen.rsplit("/", 1)[1]
    entries = send(page, running.url, "GET", f"/api/tanks/{tank}/entries?limit=200")["entries"]
    kinds = [e["body"]["kind"] for e in entries]
    assert (kinds.count("step-done"), kinds.count("flow-test"), kinds.count("reading")) == (steps, 1, 3)


def test_an_entry_survives_a_page_that_is_closed_before_the_server_answers(
    page: Page, chosen: str, running: Running
) -> None:
    page.goto(f"{chosen}/cycle")
    page.get_by_role("button", name="Tap the steps").click()
    page.get_by_role("button", name="Nitrite 1 ppm", exact=True).click()
    # The server never hears of it: no answer, no failure either.
    page.route(re.compile(r"/entries$"), lambda route: None)
    page.get_by_role("button", name="Log the test").click()
    # The next test is tapped while this one is on its way.
    page.get_by_role("button", name="Nitrite 2 ppm", exact=True).click()
    page.goto("about:blank")
    page.unroute_all()
    page.goto(f"{chosen}/cycle")
    address = f"/api/tanks/{chosen.rsplit('/', 1)[1]}/entries?limit=200"
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    for _ in range(40):
        entries = send(page, running.url, "GET", address)["entries"]
        written = [e["body"]["nitrite_ppm"] for e in entries if e["body"]["kind"] == "reading"]
        if written:
            break
        page.wait_for_timeout(500)
    assert written == [1]
    expect(page.get_by_role("button", name="Nitrite 2 ppm", exact=True)).to_have_attribute("aria-pressed", "true")


def test_a_test_tapped_while_another_is_logged_stays_tapped(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/cycle")
    page.get_by_role("button", name="Tap the steps").click()
    page.get_by_role("button", name="Nitrite 1 ppm", exact=True).click()
    waiting = []
    page.route(re.compile(r"/entries$"), lambda route: waiting.append(route))
    page.get_by_role("button", name="Log the test").click()
    page.get_by_role("button", name="Ammonia 0.5 ppm", exact=True).click()
    for route in waiting:
        route.continue_()
    expect(page.get_by_text("Logged.")).to_be_visible()
    expect(page.get_by_role("button", name="Ammonia 0.5 ppm", exact=True)).to_have_attribute("aria-pressed", "true")
    expect(page.get_by_role("button", name="Nitrite 1 ppm", exact=True)).to_have_attribute("aria-pressed", "false")


@with_service_worker
def test_what_one_keeper_holds_is_neither_sent_nor_dropped_by_another(
    page: Page, chosen: str, running: Running
) -> None:
    tank = int(chosen.rsplit("/", 1)[1])
    page.goto(f"{chosen}/cycle")
    page.get_by_role("button", name="Tap the steps").click()
    page.get_by_role("button", name="Nitrite 1 ppm", exact=True).click()
    page.context.set_offline(True)
    page.get_by_role("button", name="Log the test").click()
    expect(page.get_by_text("1 entry is kept on this device")).to_be_visible()
    # The connection returns to a page that cannot send: signing out is asked about.
    page.route("**/entries", lambda route: route.abort())
    page.context.set_offline(False)
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Sign out").click()
    asked = page.get_by_role("alertdialog", name="Sign out")
    expect(asked).to_contain_text("One entry is not sent yet.")
    asked.get_by_role("button", name="Sign out all the same").click()
    page.unroute("**/entries")
    page.get_by_role("button", name="Look round as the demo keeper").click()
    expect(page).to_have_url(f"{running.url}/today")
    expect(page.get_by_text("kept on this device and will be sent")).to_have_count(0)
    held = "JSON.parse(localStorage.getItem('reedmace.outbox')).map((h) => h.tankId)"
    page.wait_for_timeout(500)
    assert page.evaluate(held) == [tank]


def test_a_refused_entry_stays_with_its_reason_until_its_keeper_decides(page: Page, chosen: str) -> None:
    page.goto(f"{chosen}/cycle")
    expect(page.get_by_role("heading", level=1)).to_be_visible()
    page.evaluate(
        """() => {
          const entry = { key: 'refused-0001', at: '2026-01-01T08:00:00Z', body: { kind: 'note', text: 'Left over' } };
          localStorage.setItem('reedmace.outbox', JSON.stringify([{ tankId: 999999999, entry }]));
        }"""
    )
    page.reload()
    refused = page.get_by_role("region", name="Entries that were refused")
    expect(refused).to_contain_text("Left over")
    expect(refused).to_contain_text("was not taken")
    page.reload()
    expect(refused).to_contain_text("Left over")
    # A page that is still loading is drawn anew, and a press on what goes with it is lost.
    expect(page.locator("main h1:not([data-waiting])")).to_be_visible()
    refused.get_by_role("button", name="take it out").click()
    expect(refused).to_have_count(0)


def test_an_address_that_leads_nowhere_gets_a_page_that_helps(page: Page, new_keeper: str, running: Running) -> None:
    page.goto(f"{running.url}/tonks/4")
    expect(page.get_by_role("heading", level=1)).to_have_text("There is no page here")
    page.get_by_role("link", name="Today", exact=True).click()
    expect(page).to_have_url(f"{running.url}/today")


def test_three_jugs_tell_where_the_tap_is_to_stand(demo_page: Page, running: Running) -> None:
    page = demo_page
    open_stage(page, running.url, "Long bench", "fit")
    page.get_by_text("Set its tap to a flow you want").click()
    page.get_by_label("Flow wanted, L/h").fill("600")
    for number, (mark, seconds) in enumerate((("0", "7.2"), ("4", "9"), ("8", "18")), start=1):
        page.get_by_label(f"Mark {number}", exact=True).fill(mark)
        page.get_by_label(f"Jug at mark {number}, s").fill(seconds)
    expect(page.get_by_role("button", name=re.compile("Set the tap to mark 6.3 for 600"))).to_be_visible()
    page.get_by_label("Flow wanted, L/h").fill("90")
    expect(page.get_by_text(re.compile("lies beyond these fills"))).to_be_visible()
