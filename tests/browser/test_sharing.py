"""A second pair of hands, in two browsers; a link that only looks, without an account."""

import re

from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import PASSWORD
from tests.browser.test_care import settle, violations
from tests.support.browser_api import send
from tests.support.running import Running


def signed_up(browser: Browser, url: str, email: str) -> Page:
    """Another browser with an account of its own, on the address it was opened at."""
    page = browser.new_context(locale="en-GB", reduced_motion="reduce").new_page()
    page.goto(url)
    page.get_by_role("button", name="I have no account yet").click()
    page.get_by_label("E-mail").fill(email)
    page.get_by_label("Password", exact=True).fill(PASSWORD)
    page.get_by_role("button", name="Make it").click()
    page.get_by_role("button", name="I have them: go on").click()
    return page


def test_a_second_keeper_comes_in_by_the_link_logs_and_the_line_says_who(
    page: Page, running: Running, browser: Browser, new_keeper: str
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Landing"})["id"]
    page.goto(f"{running.url}/account")
    settle(page)
    hands = page.get_by_role("region", name="Who else keeps these tanks")
    hands.get_by_role("button", name="Make an invitation").click()
    link = hands.locator("code").inner_text()
    other = signed_up(browser, link, f"second-{new_keeper}")
    expect(other.get_by_role("heading", level=1)).to_contain_text(f"{new_keeper} asks you to help")
    other.get_by_role("button", name="Come in").click()
    expect(other).to_have_url(f"{running.url}/today")
    other.get_by_role("link", name="Landing").first.click()
    expect(other).to_have_url(re.compile(rf"/tanks/{tank}/"))
    other.goto(f"{running.url}/tanks/{tank}/keep")
    settle(other)
    other.get_by_label("What happened?").fill("Fed, all well")
    other.get_by_role("button", name="Write it", exact=True).click()
    expect(other.get_by_text(f"Fed, all well, by second-{new_keeper}")).to_be_visible()
    expect(other.get_by_text("This tank: its name, a copy, out of sight")).to_have_count(0)
    page.goto(f"{running.url}/tanks/{tank}/keep")
    expect(page.get_by_text(f"Fed, all well, by second-{new_keeper}")).to_be_visible()
    page.goto(f"{running.url}/account")
    hands.get_by_role("button", name=f"End: second-{new_keeper}").click()
    expect(hands.get_by_text(f"second-{new_keeper}")).to_have_count(0)
    other.goto(f"{running.url}/today")
    expect(other.get_by_role("heading", level=1)).to_contain_text("Begin with a tank")
    other.context.close()


def test_a_link_shows_how_a_tank_stands_without_an_account_and_can_be_revoked(
    page: Page, running: Running, browser: Browser, new_keeper: str, axe_source: str
) -> None:
    tank = send(page, running.url, "POST", "/api/tanks", {"name": "Shop window"})["id"]
    page.goto(f"{running.url}/tanks/{tank}/keep")
    settle(page)
    page.get_by_text("This tank: its name, a copy, out of sight").click()
    look = page.get_by_role("region", name="A link to look")
    look.get_by_role("button", name="Make the link").click()
    link = look.locator("code").inner_text()
    stranger = browser.new_context(locale="en-GB", reduced_motion="reduce").new_page()
    stranger.goto(link)
    expect(stranger.get_by_role("heading", level=1)).to_contain_text("Shop window")
    assert violations(stranger, axe_source) == []
    assert new_keeper not in stranger.content()
    look.get_by_role("button", name="Revoke it").click()
    expect(look.get_by_role("button", name="Revoke it")).to_have_count(0)
    stranger.goto(link)
    expect(stranger.get_by_text("This link opens nothing")).to_be_visible()
    stranger.context.close()
