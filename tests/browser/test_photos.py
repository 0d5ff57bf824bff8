"""Photographs: added from a file, taken without a connection, sent once when it is back, taken away again."""

import io
import re
from pathlib import Path

import numpy as np
from PIL import Image
from playwright.sync_api import FilePayload, Page, Route, expect

from tests.browser.test_reminders import faults
from tests.support.browser_api import send, write
from tests.support.chromium import with_service_worker
from tests.support.running import Running

ORIENTATION = 0x0112


def picture(colour: str, *, turned: bool = False) -> FilePayload:
    out, exif = io.BytesIO(), Image.Exif()
    if turned:
        exif[ORIENTATION] = 6
    Image.new("RGB", (1200, 800), colour).save(out, "JPEG", exif=exif)
    return {"name": f"{colour}.jpg", "mimeType": "image/jpeg", "buffer": out.getvalue()}


def kept(page: Page, running: Running, tank: int) -> list[dict]:
    return send(page, running.url, "GET", f"/api/tanks/{tank}/photos")["photos"]


@with_service_worker
def test_one_taken_without_a_connection_is_sent_once_when_the_page_is_opened_again(
    page: Page, running: Running, new_keeper: str, axe_source: str
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    page.goto(f"{running.url}/tanks/{tank}/keep/photos")
    expect(page.get_by_text("One from the same spot every week")).to_be_visible()
    page.get_by_label("What it shows").fill("The left corner")
    page.locator("input[type=file]").set_input_files([picture("teal", turned=True)])
    expect(page.get_by_role("img", name="The left corner")).to_be_visible()
    (first,) = kept(page, running, tank)
    # Turned upright: the wide picture of a phone held upright is a high one.
    assert (first["width"], first["height"]) == (800, 1200)
    assert faults(page, axe_source) == []

    page.context.set_offline(True)
    page.locator("input[type=file]").set_input_files([picture("navy")])
    expect(page.get_by_text("Kept on this device")).to_be_visible()
    page.close()
    page.context.set_offline(False)
    again = page.context.new_page()
    again.goto(f"{running.url}/tanks/{tank}/keep/photos")
    expect(again.get_by_role("list", name="By day").get_by_role("img")).to_have_count(2)
    expect(again.get_by_text("Kept on this device")).to_have_count(0)
    again.reload()
    expect(again.get_by_role("list", name="By day").get_by_role("img")).to_have_count(2)
    assert len(kept(again, running, tank)) == 2
    again.close()


def test_what_is_no_picture_says_so_and_can_be_taken_out(page: Page, running: Running, new_keeper: str) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    page.goto(f"{running.url}/tanks/{tank}/keep/photos")
    page.locator("input[type=file]").set_input_files(
        [FilePayload(name="note.jpg", mimeType="image/jpeg", buffer=b"Dear neighbour")]
    )
    expect(page.get_by_text("Not taken: The photograph is no picture.")).to_be_visible()
    page.get_by_role("button", name="Take it out").click()
    expect(page.get_by_text("Not taken")).to_have_count(0)


def test_one_is_shown_to_neighbours_and_taken_away(page: Page, running: Running, new_keeper: str) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    page.goto(f"{running.url}/tanks/{tank}/keep/photos")
    page.locator("input[type=file]").set_input_files([picture("teal")])
    page.get_by_text("On the page shown to neighbours").click()
    expect(page.get_by_role("checkbox", name="On the page shown to neighbours")).to_be_checked()
    link = send(page, running.url, "POST", f"/api/tanks/{tank}/link")["url"]
    page.goto(link)
    expect(page.get_by_role("img", name="The tank", exact=True)).to_have_js_property("naturalWidth", 1200)
    page.goto(f"{running.url}/tanks/{tank}/keep/photos")
    page.get_by_role("button", name="Take it away").click()
    page.get_by_role("button", name="Delete it for good").click()
    expect(page.get_by_text("One from the same spot every week")).to_be_visible()
    assert re.search(r"/look/", link)
    assert kept(page, running, tank) == []


def test_one_is_added_to_a_line_and_goes_with_the_logbook_into_another_tank(
    page: Page, running: Running, new_keeper: str, tmp_path: Path
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    write(page, running.url, tank, 0.01, {"kind": "note", "text": "A fin heals"}, 1)
    page.goto(f"{running.url}/tanks/{tank}/keep/logbook")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Photograph for: A fin heals").click()
    chooser.value.set_files([picture("teal")])
    line = page.get_by_role("listitem").filter(has_text="A fin heals")
    expect(line.get_by_role("img", name="A photograph of it")).to_be_visible()
    page.goto(f"{running.url}/tanks/{tank}/book")
    expect(page.get_by_role("img", name="A photograph of it")).to_be_visible()

    page.goto(f"{running.url}/tanks/{tank}/keep/settings")
    with page.expect_download() as download:
        page.get_by_role("link", name="the same with its photographs").click()
    packed = tmp_path / "landing.zip"
    download.value.save_as(packed)
    page.goto(f"{running.url}/today")
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Take in a logbook from a file").click()
    chooser.value.set_files(packed)
    expect(page).to_have_url(re.compile(rf"/tanks/(?!{tank}/)\d+/tank"))
    brought = int(page.url.split("/")[-2])
    (photo,) = kept(page, running, brought)
    assert photo["entry_key"] == kept(page, running, tank)[0]["entry_key"]


def test_a_box_on_the_shelf_gets_its_photograph(page: Page, running: Running, new_keeper: str) -> None:
    box = {"label": {"name": "Reed 200", "box_lph": 200}}
    send(page, running.url, "POST", "/api/shelf", {"boxes": [{"key": "box-0000001", "box": box}]})
    page.goto(f"{running.url}/shelf")
    page.get_by_role("button", name="Change Reed 200").click()
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Add a photograph of the box").click()
    chooser.value.set_files([picture("maroon")])
    expect(page.get_by_role("table").get_by_role("img", name="The box of Reed 200")).to_be_visible()
    page.get_by_role("button", name="Take the photograph away").click()
    expect(page.get_by_role("img", name="The box of Reed 200")).to_have_count(0)


@with_service_worker
def test_a_boxs_photograph_taken_without_a_connection_is_sent_when_it_is_back(
    page: Page, running: Running, new_keeper: str
) -> None:
    box = {"label": {"name": "Reed 300", "box_lph": 300}}
    (made,) = send(page, running.url, "POST", "/api/shelf", {"boxes": [{"key": "box-0000002", "box": box}]})["items"]
    page.goto(f"{running.url}/shelf")
    page.get_by_role("button", name="Change Reed 300").click()
    page.context.set_offline(True)
    for colour in ("maroon", "olive"):
        with page.expect_file_chooser() as chooser:
            page.get_by_role("button", name=re.compile("Add a photograph|Another photograph")).click()
        chooser.value.set_files([picture(colour)])
        expect(page.get_by_role("group", name="Photograph").get_by_text("Kept on this device")).to_have_count(1)
    page.close()
    page.context.set_offline(False)
    again = page.context.new_page()
    # The shelf is asked for before the photograph is sent, and its answer comes after.
    older = again.request.get(f"{running.url}/api/shelf").body()
    asked: list[Route] = []
    sending: list[Route] = []
    again.route("**/api/shelf", lambda route: asked.append(route))
    again.route(f"**/api/shelf/{made['id']}/photo", lambda route: sending.append(route))
    with again.expect_request("**/api/shelf"), again.expect_request(f"**/api/shelf/{made['id']}/photo"):
        again.goto(f"{running.url}/shelf")
    with again.expect_response(f"**/api/shelf/{made['id']}/photo"):
        sending[0].continue_()
    asked[0].fulfill(body=older, content_type="application/json")
    again.unroute_all()
    expect(again.get_by_role("table").get_by_role("img", name="The box of Reed 300")).to_be_visible()
    # The second took the place of the first, which was never sent.
    sent = Image.open(io.BytesIO(again.request.get(f"{running.url}/api/shelf/{made['id']}/photo.jpg").body()))
    red, green, _ = np.asarray(sent.convert("RGB"), dtype=int)[10, 10]
    assert abs(red - green) < 12
    again.close()
