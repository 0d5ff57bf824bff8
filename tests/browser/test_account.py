"""An account's own affairs on screen: a tank renamed, copied, removed and brought back; the account closed."""

import re

from playwright.sync_api import Page, expect

from tests.browser.conftest import PASSWORD
from tests.support.browser_api import send
from tests.support.running import Running


def test_a_tank_is_renamed_copied_removed_and_brought_back(page: Page, new_keeper: str, running: Running) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Hall"})["id"]
    page.goto(f"{running.url}/tanks/{tank}/keep")
    page.get_by_text("This tank: its name, a copy, out of sight").click()
    page.get_by_label("Its name").fill("Landing")
    page.get_by_role("button", name="Rename").click()
    expect(page.get_by_role("button", name=re.compile("Tank: Landing"))).to_be_visible()
    page.get_by_text("This tank: its name, a copy, out of sight").click()
    page.get_by_label("A tank planned the same").fill("Upper landing")
    page.get_by_role("button", name="Copy it").click()
    expect(page.get_by_role("button", name=re.compile("Tank: Upper landing"))).to_be_visible()
    page.goto(f"{running.url}/tanks/{tank}/keep")
    page.get_by_text("This tank: its name, a copy, out of sight").click()
    page.get_by_role("button", name="Remove it with its logbook").click()
    expect(page).to_have_url(f"{running.url}/today")
    aside = page.get_by_role("region", name="Out of sight")
    expect(aside).to_contain_text("Landing was removed; it can be brought back until")
    expect(page.get_by_role("link", name="Landing", exact=True)).to_have_count(0)
    aside.get_by_role("button", name="Bring Landing back").click()
    expect(page.get_by_role("link", name="Landing", exact=True)).to_be_visible()
    expect(aside).to_have_count(0)


def test_an_account_is_closed_with_its_password_and_the_door_is_shut(
    page: Page, new_keeper: str, running: Running
) -> None:
    page.goto(f"{running.url}/account")
    closing = page.get_by_role("region", name="Close the account")
    closing.get_by_label("Password, to close the account").fill("something else")
    closing.get_by_role("button", name="Close it for good").click()
    expect(closing.get_by_role("alert")).to_contain_text("The password is not right.")
    closing.get_by_label("Password, to close the account").fill(PASSWORD)
    closing.get_by_role("button", name="Close it for good").click()
    expect(page.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()
    page.get_by_label("E-mail").fill(new_keeper)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Sign in").click()
    expect(page.get_by_role("alert")).to_contain_text("not right")


def test_a_lost_password_is_set_anew_with_a_code_shown_at_the_start(page: Page, running: Running) -> None:
    page.goto(f"{running.url}/sign-in")
    page.get_by_role("button", name="I have no account yet").click()
    page.get_by_label("E-mail").fill("moorhen@yard.example")
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Make it").click()
    codes = page.get_by_role("region", name="Recovery codes").get_by_role("listitem")
    expect(codes).to_have_count(8)
    code = codes.first.inner_text()
    page.get_by_role("button", name="I have them: go on").click()
    expect(page).to_have_url(re.compile("/today$"))
    page.goto(f"{running.url}/account")
    expect(page.get_by_role("region", name="Lost password")).to_contain_text("8 recovery codes are left")
    page.get_by_role("button", name="Menu").click()
    page.get_by_role("menuitem", name="Sign out").click()
    page.get_by_role("link", name="Sign in").click()
    page.get_by_role("button", name="I lost the password").click()
    page.get_by_role("button", name="I have a recovery code").click()
    page.get_by_label("E-mail").fill("moorhen@yard.example")
    page.get_by_label("Recovery code").fill(code.replace("-", ""))
    page.get_by_label("New password").fill("quite another one")
    page.get_by_role("button", name="Set the new password").click()
    expect(page.get_by_role("button", name="Set the new password")).to_have_count(0)
    page.goto(f"{running.url}/account")
    expect(page.get_by_role("region", name="Lost password")).to_contain_text("7 recovery codes are left")


def test_the_typefaces_come_with_their_licences(demo_page: Page, running: Running) -> None:
    demo_page.goto(f"{running.url}/account")
    for face in ("Vollkorn", "Source Sans 3"):
        href = demo_page.get_by_role("link", name=face).get_attribute("href")
        answer = demo_page.request.get(f"{running.url}{href}")
        assert answer.status == 200
        assert "SIL OPEN FONT LICENSE" in answer.text().upper()
