"""What is due reaches the keeper by mail, its link leads to the work, and what is done is not told again."""

import re
import time
from typing import Any

from playwright.sync_api import Page, expect

from reedmace.standins.mail_server import KeptMail, Mailbox
from tests.support.browser_api import send, write
from tests.support.running import Running

ROUND_S = 25
"""Longest time between two looks of the demo's worker, s."""


def mailbox(running: Running) -> Mailbox:
    return Mailbox(running.folder / "demo" / "mail")


def faults(page: Page, axe_source: str) -> list[str]:
    """What axe finds."""
    page.evaluate(axe_source)
    found: list[str] = page.evaluate("async () => (await axe.run()).violations.map((v) => v.id)")
    return found


def wait_for_mail(running: Running, to: str, subject: str, seconds: float = 120) -> KeptMail:
    until = time.monotonic() + seconds
    while time.monotonic() < until:
        for mail in mailbox(running).of(to):
            if re.search(subject, mail.subject):
                return mail
        time.sleep(0.3)
    raise AssertionError([m.subject for m in mailbox(running).of(to)])


def test_a_keeper_confirms_is_told_follows_the_link_logs_the_test_and_is_told_no_more(
    page: Page, running: Running, new_keeper: str, axe_source: str
) -> None:
    wait_for_mail(running, new_keeper, "Confirm")
    page.goto(f"{running.url}/demo/mail")
    page.frame_locator("iframe").get_by_role("link", name="Confirm this address").click()
    expect(page.get_by_role("heading", name=f"{new_keeper} is confirmed.")).to_be_visible()

    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    bodies: tuple[dict[str, Any], ...] = (
        {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}},
        {"kind": "stocking", "species_id": "zebra-danio", "count": 10},
        {"kind": "reading", "ammonia_ppm": 4.0, "nitrite_ppm": 0.0, "ph": 8.2, "temperature_c": 26},
    )
    for number, body in enumerate(bodies):
        write(page, running.url, tank, 0.01, body, number)
    page.goto(f"{running.url}/reminders")
    expect(page.get_by_role("heading", name="Nothing is mailed to you.")).to_be_visible()
    expect(page.get_by_role("heading", name="The day’s list, if it came now")).to_be_visible()
    page.get_by_text("Mail reminders to").click()
    expect(page.get_by_role("heading", name=re.compile("Mailed to you: what cannot wait"))).to_be_visible()
    expect(page.get_by_text("Times are those of Europe/London.")).to_be_visible()
    assert faults(page, axe_source) == []

    told = wait_for_mail(running, new_keeper, "^Landing: ")
    page.goto(f"{running.url}/demo/mail")
    page.get_by_role("button", name=told.subject).click()
    assert faults(page, axe_source) == []
    page.frame_locator("iframe").get_by_role("link", name="Open Landing").click()
    expect(page).to_have_url(re.compile(rf"/tanks/{tank}/(cycle|keep)"))

    for number, body in enumerate(
        (
            {"kind": "water-change", "share": 0.9},
            {"kind": "reading", "ammonia_ppm": 0.0, "nitrite_ppm": 0.0, "ph": 7.2, "temperature_c": 25},
        ),
        start=10,
    ):
        write(page, running.url, tank, 0.005, body, number)
    before = len(mailbox(running).of(new_keeper))
    time.sleep(ROUND_S)
    assert len(mailbox(running).of(new_keeper)) == before
    page.goto(f"{running.url}/reminders")
    expect(page.get_by_text("what could not wait, sent")).to_be_visible()

    end = re.search(r"http\S+/no-mail/\S+", told.text)
    assert end is not None
    page.goto(end[0])
    page.get_by_role("button", name="No more mail").click()
    expect(page.get_by_role("heading", name="No more mail is sent.")).to_be_visible()
    page.goto(f"{running.url}/reminders")
    expect(page.get_by_role("heading", name="Nothing is mailed to you.")).to_be_visible()


def test_a_lost_password_is_set_anew_by_a_mailed_link(page: Page, running: Running, new_keeper: str) -> None:
    page.goto(f"{running.url}/account")
    # The menu closes when the page it stands in arrives.
    expect(page.get_by_role("region", name="Lost password")).to_be_visible()
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Sign out").click()
    page.get_by_role("link", name="Sign in").click()
    page.get_by_role("button", name="I lost the password").click()
    expect(page.get_by_role("button", name="I have a recovery code")).to_be_visible()
    page.get_by_label("E-mail").fill(new_keeper)
    page.get_by_role("button", name="Mail me a link").click()
    expect(page.get_by_text("a link is on its way")).to_be_visible()
    mail = wait_for_mail(running, new_keeper, "A new password")
    link = re.search(r"http\S+/new-password/\S+", mail.text)
    assert link is not None
    page.goto(link[0])
    page.get_by_label("New password").fill("a quieter pool")
    page.get_by_role("button", name="Set the new password").click()
    expect(page).to_have_url(f"{running.url}/today")


def test_a_link_cut_off_by_the_mail_program_says_so(page: Page, running: Running) -> None:
    page.goto(f"{running.url}/no-mail/nothing-of-ours")
    page.get_by_role("button", name="No more mail").click()
    expect(page.get_by_text("The link was used, is too old")).to_be_visible()
