"""The outbox on its own: what waits, whose it is, who sends it, and that one loop sends."""

from typing import Any

from playwright.sync_api import Page, Route

ENTRY = "({ key, at: '2026-01-01T00:00:00Z', body: { kind: 'note', text: key } })"
WAITING = "modules.outbox.held().map((h) => h.entry.key)"


def hold(page: Page, *keys: str, tank: int = 7) -> None:
    for key in keys:
        page.evaluate(f"(key) => modules.outbox.hold({tank}, {ENTRY})", key)


def test_entries_wait_in_order_for_their_account_and_survive_a_reload(bare: Page) -> None:
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    hold(bare, "one", "two")
    bare.evaluate("modules.outbox.ownOutbox('b@yard.example')")
    assert bare.evaluate(WAITING) == []
    hold(bare, "hers")
    bare.reload()
    assert bare.evaluate(WAITING) == []
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    assert bare.evaluate(WAITING) == ["one", "two"]
    bare.evaluate("modules.outbox.release('one')")
    assert bare.evaluate(WAITING) == ["two"]
    bare.evaluate("modules.outbox.ownOutbox('b@yard.example')")
    assert bare.evaluate(WAITING) == ["hers"]


def test_an_entry_being_sent_does_not_wait_until_its_page_is_taken_for_closed(bare: Page) -> None:
    bare.clock.install()
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    bare.evaluate(f"(key) => modules.outbox.holdWhileSending(7, {ENTRY})", "on-its-way")
    assert bare.evaluate(WAITING) == []
    # Another page finds it stored with the mark of the one that was closed.
    bare.reload()
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    assert bare.evaluate(WAITING) == []
    bare.clock.fast_forward(10_100)
    assert bare.evaluate(WAITING) == ["on-its-way"]


def test_what_another_tab_stored_is_seen_and_bad_storage_is_no_end(bare: Page) -> None:
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    hold(bare, "one")
    tab = bare.context.new_page()
    tab.goto(bare.url)
    tab.wait_for_function("() => window.modules")
    tab.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    hold(tab, "two")
    bare.wait_for_function(f"() => {WAITING}.length === 2")
    bare.evaluate("localStorage.setItem('reedmace.outbox', '{broken')")
    assert bare.evaluate(WAITING) == []
    hold(bare, "three")
    assert bare.evaluate(WAITING) == ["three"]


def test_settled_waits_for_the_tanks_own_entries_and_not_for_refused_ones(bare: Page) -> None:
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    hold(bare, "one")
    hold(bare, "elsewhere", tank=8)
    bare.evaluate("window.done = null; void modules.outbox.settled(7, 60000).then((well) => { window.done = well; })")
    bare.wait_for_timeout(50)
    assert bare.evaluate("window.done") is None
    bare.evaluate("modules.outbox.mark('one', 'is no note')")
    bare.wait_for_function("() => window.done === true")
    assert bare.evaluate("modules.outbox.settled(8, 20)") is False


def test_one_loop_sends_in_order_whatever_is_stored_meanwhile(bare: Page) -> None:
    sent: list[str] = []
    at_once: list[int] = [0, 0]

    def answer(route: Route) -> None:
        body: dict[str, Any] = route.request.post_data_json
        at_once[0] += 1
        at_once[1] = max(at_once)
        sent.append(body["key"])
        if len(sent) == 1:
            # While the first is on its way more are stored, and everything asks for a loop of its own.
            hold(bare, "four", "five")
            bare.evaluate("for (let n = 0; n < 5; n++) window.dispatchEvent(new Event('online'))")
        at_once[0] -= 1
        if body["key"] == "two":
            route.fulfill(status=422, json={"detail": "is no note", "errors": []})
        else:
            route.fulfill(status=201, json={"id": len(sent), **body, "written_at": body["at"], "supersedes": None})

    bare.route("**/api/tanks/7/entries", answer)
    bare.route("**/api/tanks/7", lambda route: route.fulfill(status=404, json={"detail": "none", "errors": []}))
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    hold(bare, "one", "two", "three")
    bare.evaluate("void modules.mount('outbox', () => modules.useOutbox(true))")
    bare.wait_for_function(f"() => {WAITING}.length === 1")
    assert sent == ["one", "two", "three", "four", "five"]
    assert at_once[1] == 1
    # The one the server will never take stays, with its reason.
    assert bare.evaluate("modules.outbox.held()[0].refused") == "is no note"


def test_without_a_connection_everything_stays_and_goes_when_it_is_back(bare: Page) -> None:
    up = False
    sent: list[str] = []

    def answer(route: Route) -> None:
        if not up:
            route.abort("internetdisconnected")
            return
        body: dict[str, Any] = route.request.post_data_json
        sent.append(body["key"])
        route.fulfill(status=201, json={"id": 1, **body, "written_at": body["at"], "supersedes": None})

    bare.route("**/api/tanks/7/entries", answer)
    bare.evaluate("modules.outbox.ownOutbox('a@yard.example')")
    hold(bare, "one", "two")
    bare.evaluate("void modules.mount('outbox', () => modules.useOutbox(true))")
    bare.wait_for_timeout(300)
    assert bare.evaluate(WAITING) == ["one", "two"]
    up = True
    bare.evaluate("window.dispatchEvent(new Event('online'))")
    bare.wait_for_function(f"() => {WAITING}.length === 0")
    assert sent == ["one", "two"]
