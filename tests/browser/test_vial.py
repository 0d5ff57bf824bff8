"""A vial from a picture to a logged value: touched beside the card, read, put into the test, logged."""

import io
import re

import pytest
from PIL import Image, ImageDraw
from playwright.sync_api import FilePayload, Page, expect

from tests.browser.test_reminders import faults
from tests.support.browser_api import send
from tests.support.running import Running

STEPS = [(232, 214, 90), (205, 205, 88), (172, 190, 90), (140, 178, 95), (110, 160, 95), (85, 145, 90), (60, 125, 85)]
WIDTH, HEIGHT = 900, 600


def picture(vial: tuple[int, int, int]) -> FilePayload:
    """White paper, a vial on the left, the card's steps on the right."""
    sheet = Image.new("RGB", (WIDTH, HEIGHT), (240, 240, 236))
    draw = ImageDraw.Draw(sheet)
    draw.rectangle((100, 200, 250, 560), fill=vial)
    for n, colour in enumerate(STEPS):
        draw.rectangle((500, 20 + 80 * n, 800, 90 + 80 * n), fill=colour)
    out = io.BytesIO()
    sheet.save(out, "PNG")
    return {"name": "vial.png", "mimeType": "image/png", "buffer": out.getvalue()}


@pytest.fixture
def tank(page: Page, running: Running, new_keeper: str) -> int:
    made: int = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    page.goto(f"{running.url}/tanks/{made}/cycle/vial")
    return made


def touch_all(page: Page, steps: tuple[int, ...] = tuple(range(len(STEPS)))) -> None:
    """The white, the vial, and some steps of the card."""
    sheet = page.get_by_role("button", name=re.compile("^The picture"))
    box = sheet.bounding_box()
    assert box is not None
    places = [(300, 100), (175, 380), *((650, 55 + 80 * n) for n in steps)]
    for x, y in places:
        sheet.click(position={"x": x / WIDTH * box["width"], "y": y / HEIGHT * box["height"]})


def test_a_vial_is_touched_read_put_into_the_test_and_logged(
    page: Page, running: Running, tank: int, axe_source: str
) -> None:
    page.locator("input[type=file]").set_input_files([picture((172, 190, 90))])
    expect(page.get_by_text("Touch the white of the card")).to_be_visible()
    assert faults(page, axe_source) == []
    touch_all(page)
    said = page.get_by_role("region", name="What it reads")
    expect(said).to_contain_text(re.compile(r"About 0\.(4|5)"))
    said.get_by_role("button", name=re.compile("Put 0.* into the test")).click()
    expect(page).to_have_url(f"{running.url}/tanks/{tank}/cycle")
    line = page.get_by_label("Log a test in one line")
    expect(line).to_have_value(re.compile(r"^a 0\.4\d*-0\.[56]\d*$"))
    expect(page.get_by_text(re.compile("Reads as: ammonia 0.4.* to 0.[56].* ppm"))).to_be_visible()
    page.get_by_role("button", name="Log the test").click()
    expect(page.get_by_text("Logged.")).to_be_visible()
    entries = send(page, running.url, "GET", f"/api/tanks/{tank}/entries")["entries"]
    body = entries[0]["body"]
    assert body["ammonia_ppm"] == pytest.approx(0.5, abs=0.06)
    assert body["between"][0]["low_ppm"] < 0.5 < body["between"][0]["high_ppm"]

    # The card is known now: its first and last step are enough.
    page.goto(f"{running.url}/tanks/{tank}/cycle/vial")
    page.locator("input[type=file]").set_input_files([picture((110, 160, 95))])
    touch_all(page, (0, len(STEPS) - 1))
    expect(page.get_by_text("The steps between were found where they lay last time.")).to_be_visible()
    expect(said).to_contain_text("About 2, between")
    page.get_by_role("button", name="Another card: touch every step").click()
    expect(page.get_by_text("Touch the card’s 0, in its middle.")).to_be_visible()


def test_a_colour_of_no_step_is_not_called_sure(page: Page, tank: int) -> None:
    page.locator("input[type=file]").set_input_files([picture((40, 40, 200))])
    touch_all(page)
    said = page.get_by_role("region", name="What it reads")
    expect(said).to_contain_text("Not sure: The vial is like no step of the card")
    expect(said.get_by_role("button")).to_contain_text("all the same")


def test_it_is_read_by_the_keyboard_and_a_touch_is_taken_back(page: Page, tank: int) -> None:
    page.locator("input[type=file]").set_input_files([picture((172, 190, 90))])
    sheet = page.get_by_role("button", name=re.compile("^The picture"))
    sheet.focus()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Touch the vial")).to_be_visible()
    page.get_by_role("button", name="Take the last touch back").click()
    expect(page.get_by_text("Touch the white of the card")).to_be_visible()
