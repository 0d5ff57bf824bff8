"""The front end's modules, built once and opened on a bare page."""

import subprocess
import threading
from collections.abc import Iterator
from functools import partial
from http.server import SimpleHTTPRequestHandler, ThreadingHTTPServer
from typing import Any

import pytest
from playwright.sync_api import Browser, Page

from reedmace.command.paths import FRONT


class _Quiet(SimpleHTTPRequestHandler):
    def log_message(self, *_: Any) -> None: ...


@pytest.fixture(scope="session")
def bare_page_url(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    """Address of a page that holds the built modules and nothing else."""
    out = tmp_path_factory.mktemp("modules")
    build = ["npx", "--no-install", "vite", "build", "--config", "unit/vite.config.ts", "--outDir", str(out)]
    subprocess.run(build, cwd=FRONT, check=True, capture_output=True, timeout=200)
    server = ThreadingHTTPServer(("127.0.0.1", 0), partial(_Quiet, directory=str(out)))
    threading.Thread(target=server.serve_forever, daemon=True).start()
    yield f"http://127.0.0.1:{server.server_address[1]}/"
    server.shutdown()
    server.server_close()


@pytest.fixture
def in_language(browser: Browser, bare_page_url: str, browser_context_args: dict) -> Iterator[Any]:
    """A maker of pages with the modules, in a browser of a language."""
    contexts = []

    def go(language: str = "en-GB", zone: str = "Europe/London") -> Page:
        context = browser.new_context(**{**browser_context_args, "locale": language, "timezone_id": zone})
        contexts.append(context)
        page = context.new_page()
        page.goto(bare_page_url)
        page.wait_for_function("() => window.modules")
        return page

    yield go
    for context in contexts:
        context.close()


@pytest.fixture
def bare(in_language: Any) -> Page:
    """A page with the modules on `window.modules`."""
    page: Page = in_language()
    return page
