"""Debian's Chromium over a whole Reedmace with the demo."""

import itertools
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from tests.support.running import ROOT, Running

_numbers = itertools.count(1)
PASSWORD = "reed and water"
expect.set_options(timeout=45_000)
PRESS_MS = 90_000
"""How long a press may wait for its button, ms. A busy machine may take it; only a fault waits that long."""


@pytest.fixture(scope="session")
def running(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Running]:
    """`./reedmace demo`, in a folder of its own."""
    run = Running("demo", tmp_path_factory.mktemp("demo"), REEDMACE_DATABASE_ANSWER_S="60").start()
    yield run
    assert run.stop() == 0


@pytest.fixture
def page(page: Page) -> Iterator[Page]:
    """A page on which any script error, or any request that leaves this machine, fails the test."""
    page.context.set_default_timeout(PRESS_MS)
    wrong: list[str] = []
    page.on("pageerror", lambda error: wrong.append(f"script: {error}"))
    page.on(
        "console",
        lambda message: wrong.append(f"console: {message.text}") if "Content Security Policy" in message.text else None,
    )
    page.on(
        "request",
        lambda request: (
            wrong.append(f"left the machine: {request.url}")
            if not request.url.startswith(("http://127.0.0.1", "data:", "blob:"))
            else None
        ),
    )
    yield page
    assert wrong == []


@pytest.fixture
def new_keeper(page: Page, running: Running) -> str:
    """A new account, signed in, on Today; its address."""
    email = f"walker{next(_numbers)}@yard.example"
    page.goto(f"{running.url}/sign-in")
    page.get_by_role("button", name="I have no account yet").click()
    page.get_by_label("E-mail").fill(email)
    page.get_by_label("Password").fill(PASSWORD)
    page.get_by_role("button", name="Make it").click()
    page.get_by_role("button", name="I have them: go on").click()
    expect(page).to_have_url(f"{running.url}/today")
    return email


@pytest.fixture
def demo_page(page: Page, running: Running) -> Page:
    """Signed in as the demo keeper, on Today."""
    page.goto(running.url)
    page.get_by_role("button", name="Look round as the demo keeper").click()
    # The first visit writes the demo tanks.
    expect(page).to_have_url(f"{running.url}/today", timeout=60_000)
    return page


@pytest.fixture(scope="session")
def axe_source() -> str:
    """The axe-core script."""
    return (ROOT / "frontend" / "node_modules" / "axe-core" / "axe.min.js").read_text(encoding="utf-8")


@pytest.fixture(scope="session")
def downloads(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """Where files go."""
    return tmp_path_factory.mktemp("downloads")


@pytest.fixture
def rack(page: Page, running: Running) -> str:
    """The demo's rack, open."""
    from tests.browser.test_care import look_round, settle
    from tests.support.browser_api import send

    page.goto(running.url)
    settle(page)
    look_round(page, running)
    room = send(page, running.url, "GET", "/api/rooms")["rooms"][0]
    page.goto(f"{running.url}/rooms/{room['id']}")
    settle(page)
    return f"{running.url}/api/rooms/{room['id']}"
