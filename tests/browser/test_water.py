"""The water species by species: from the tests' table, at another pH, and out as a file."""

import re

from playwright.sync_api import Page, expect

from tests.browser.test_reminders import faults
from tests.support.browser_api import send, write
from tests.support.running import Running


def test_the_newest_tests_are_told_by_species_at_any_ph_and_go_out_as_a_file(
    page: Page, running: Running, new_keeper: str, axe_source: str
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    plan = {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}}
    write(page, running.url, tank, 0.02, plan, 1)
    page.goto(f"{running.url}/tanks/{tank}/cycle/water")
    expect(page.get_by_text("Test pH first")).to_be_visible()
    started = send(page, running.url, "GET", f"/api/tanks/{tank}")["tank"]["made_at"]
    write(page, running.url, tank, 0.01, {"kind": "cycle-plan", "started_at": started}, 2)
    tested = {"kind": "reading", "ammonia_ppm": 1, "nitrite_ppm": 0.5, "ph": 7.8, "kh_dkh": 5}
    write(page, running.url, tank, 0.005, tested, 3)
    page.reload()
    expect(page.get_by_text(re.compile("are NH3, the poison"))).to_be_visible()
    expect(page.get_by_role("row", name=re.compile("NH3 free ammonia"))).to_contain_text("%")
    assert faults(page, axe_source) == []
    before = page.get_by_role("row", name=re.compile("NH3 free ammonia")).inner_text()
    page.get_by_label("At a pH of").fill("8.4")
    page.get_by_label("At a pH of").blur()
    row = page.get_by_role("row", name=re.compile("NH3 free ammonia"))
    expect(row).not_to_have_text(before)
    expect(row).to_contain_text(re.compile(r"1[0-9]\.\d %"))
    with page.expect_download() as download:
        page.get_by_role("button", name="The water as a file for PHREEQC").click()
    assert download.value.suggested_filename == f"water-{tank}.pqi"
    assert "pH          8.4" in download.value.path().read_text()
    page.get_by_role("button", name="As tested").click()
    expect(row).to_have_text(re.compile(re.escape(before.split("\t")[0])))
    tap = page.get_by_role("region", name="The tap from three tests")
    for label, value in (("KH", "6"), ("pH from the tap", "7.2")):
        tap.get_by_label(label, exact=label != "KH").fill(value)
        tap.get_by_label(label, exact=label != "KH").blur()
    expect(tap).to_contain_text(re.compile(r"its pH rises from 7\.\d to 8\.\d"))
    tap.get_by_label("pH after standing").fill("5.8")
    tap.get_by_label("pH after standing").blur()
    expect(tap).to_contain_text("does not fit the others")
    assert faults(page, axe_source) == []
