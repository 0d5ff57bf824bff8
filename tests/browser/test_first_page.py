"""From the first page, without an account: a verdict in few presses, kept in place; counter, kinds, shelf."""

import re

from playwright.sync_api import Browser, Page, expect

from tests.browser.conftest import PASSWORD
from tests.browser.test_presses import COUNT, FIGURE, VERDICT, add, heading, spent, stages
from tests.support.chromium import with_service_worker
from tests.support.running import Running


def test_a_guest_reaches_an_own_figure_and_a_verdict_in_few_presses(page: Page, running: Running) -> None:
    page.goto(running.url)
    expect(heading(page)).to_contain_text("filter for your aquarium")
    expect(page.get_by_text("Free, no account needed.")).to_be_visible()
    page.evaluate(COUNT)
    page.get_by_label("It holds, L").fill("60")
    page.keyboard.press("Tab")
    expect(page.get_by_text(re.compile("It holds 60 L, 15.9 US gal"))).to_be_visible()
    assert spent(page) <= FIGURE
    page.get_by_role("button", name="Next: who will live in it").click()
    add(page, "guppy", "Guppy")
    page.get_by_role("button", name="Save the animals").click()
    stages(page).get_by_role("link", name=re.compile("^Filter")).click()
    expect(heading(page)).to_contain_text(re.compile("whose box says|sold for"))
    # Its own counter went with the page: the presses since are those of one load.
    assert spent(page) <= VERDICT
    expect(page.get_by_role("complementary", name="How long this is kept")).to_contain_text(
        "kept on this browser until"
    )


def test_what_a_guest_made_becomes_an_account_in_place(page: Page, running: Running, browser: Browser) -> None:
    page.goto(running.url)
    page.get_by_role("button", name=re.compile("Fish are in")).click()
    page.get_by_role("button", name="Next: what to do now").click()
    expect(page).to_have_url(re.compile(r"/tanks/\d+/cycle$"))
    address = page.url
    page.get_by_role("complementary", name="How long this is kept").get_by_role("link", name="Keep it").click()
    page.get_by_label("E-mail").fill("grebe@yard.example")
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Keep it").click()
    page.get_by_role("button", name="I have them: go on").click()
    expect(page.get_by_role("complementary", name="How long this is kept")).to_have_count(0)
    expect(page.get_by_role("link", name="My tank", exact=True)).to_be_visible()
    # In another browser the same address and password open the same tank.
    other = browser.new_context().new_page()
    other.goto(address)
    other.get_by_label("E-mail").fill("grebe@yard.example")
    other.get_by_label("Password").fill(PASSWORD)
    other.get_by_role("button", name="Sign in").click()
    expect(other.get_by_role("navigation", name="Stages")).to_be_visible()
    other.context.close()


def test_the_counter_says_yes_or_no_and_a_link_opens_it_again(page: Page, running: Running) -> None:
    page.goto(f"{running.url}/counter")
    page.evaluate(COUNT)
    page.get_by_label("The tank holds, L").fill("100")
    page.get_by_role("combobox", name="Add an animal").fill("guppy")
    page.get_by_role("option", name=re.compile("Guppy")).first.click()
    box = page.get_by_role("region", name="Box 1")
    box.get_by_text("Paste a label").click()
    box.get_by_label("Text off the box or a page").fill(
        "Willow external filter\n600 L/h · H-max 1.4 m · 8 W · up to 150 L"
    )
    box.get_by_role("button", name="Read it").click()
    expect(box).to_contain_text("“600 L/h”: 600 L/h")
    expect(heading(page)).to_contain_text("Yes")
    assert spent(page) <= 12
    said = heading(page).inner_text()
    again = page.url
    assert "?q=" in again
    page.goto(f"{running.url}/kinds")
    page.goto(again)
    expect(heading(page)).to_have_text(said)
    page.get_by_role("button", name="One more box").click()
    second = page.get_by_role("region", name="Box 2")
    second.get_by_label("Flow on the box, L/h").fill("5000")
    page.keyboard.press("Tab")
    expect(second.get_by_role("heading")).to_contain_text("no")
    assert len(re.findall(rb"/Type\s*/Page[^s]", page.pdf(format="A4"))) <= 2


def test_each_kind_has_a_page_without_an_account(page: Page, running: Running, axe_source: str) -> None:
    page.goto(f"{running.url}/kinds")
    kinds = page.get_by_role("navigation", name="Kinds of filter")
    expect(kinds.get_by_role("link")).to_have_count(8)
    kinds.get_by_role("link", name="Sump").click()
    expect(heading(page)).to_have_text("Sump")
    expect(page.get_by_role("main")).to_contain_text("Who argues against it")
    page.evaluate(axe_source)
    found = page.evaluate("axe.run(document.body, {resultTypes: ['violations']})")
    assert [v["id"] for v in found["violations"]] == []


@with_service_worker
def test_a_newcomer_takes_the_card_to_the_shop_pastes_a_label_and_prints_a_list_with_media(
    page: Page, running: Running
) -> None:
    page.goto(running.url)
    page.get_by_label("It holds, L").fill("120")
    page.keyboard.press("Tab")
    page.get_by_role("button", name="Next: who will live in it").click()
    add(page, "zebra", "Zebra danio")
    page.get_by_role("button", name="Save the animals").click()
    stages(page).get_by_role("link", name=re.compile("^Filter")).click()
    map_ = page.get_by_role("region", name="Type and size")
    map_.get_by_role("button", name=re.compile("^Canister")).click()
    map_.get_by_role("link", name="Take it to the shop").click()
    expect(heading(page)).to_contain_text("A canister whose box says")
    # In the shop there is no connection: the card stands all the same. It is written to the phone within a second.
    page.wait_for_timeout(1500)
    page.context.set_offline(True)
    page.reload()
    expect(heading(page)).to_contain_text("A canister whose box says")
    page.context.set_offline(False)
    page.get_by_role("link", name="I have seen a box, back to Filter").click()
    for text in ("Willow canister\n700 L/h 10 W Hmax 1.3 m", "Torrent canister\n4500 L/h 60 W Hmax 4 m"):
        page.get_by_text("In the shop: a filter from its box").click()
        page.get_by_text("Paste a label").last.click()
        page.get_by_label("Text off the box or a page").last.fill(text)
        page.get_by_role("button", name="Read it").last.click()
        keep = page.get_by_role("button", name="Keep it and see")
        expect(keep).to_be_enabled()
        keep.click()
        expect(heading(page)).to_contain_text("in service where")
        page.reload()
    boxes = page.get_by_role("region", name="Boxes you have seen")
    expect(boxes).to_contain_text("Of the 2 boxes you have seen, one does: Willow canister.")
    boxes.get_by_role("button", name=re.compile("Willow")).click()
    page.get_by_role("button", name="Choose Willow canister").click()
    page.get_by_role("link", name="what to buy").click()
    expect(page.get_by_role("main")).to_contain_text("Ceramic rings")
    expect(page.get_by_role("main")).to_contain_text("As usual for its kind")
