"""The sample for nginx, started as it stands but for ports and certificate, before a Reedmace that serves."""

import os
import shutil
import signal
import socket
import subprocess
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
import requests
from playwright.sync_api import Browser, expect

from reedmace.command.free_port import free_port
from tests.support.running import ROOT, Running

NGINX = shutil.which("nginx", path=f"{os.environ['PATH']}:/usr/sbin") or "nginx"


class Proxy:
    """nginx with the sample's site, in a folder of its own."""

    def __init__(self, folder: Path, behind: int) -> None:
        self.plain, self.tls = free_port(), free_port()
        self.folder, self.pem, key = folder, folder / "site.pem", folder / "site.key"
        name = ["-subj", "/CN=tanks.example", "-addext", "subjectAltName=DNS:tanks.example,IP:127.0.0.1"]
        made = ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", *name]
        subprocess.run([*made, "-keyout", str(key), "-out", str(self.pem)], check=True, capture_output=True)
        site = (ROOT / "deploy" / "nginx.conf").read_text()
        for theirs, ours in (
            ("listen 80;", f"listen 127.0.0.1:{self.plain};"),
            ("listen 443 ssl http2;", f"listen 127.0.0.1:{self.tls} ssl http2;"),
            ("127.0.0.1:8420", f"127.0.0.1:{behind}"),
            ("/etc/ssl/certs/tanks.example.pem", str(self.pem)),
            ("/etc/ssl/private/tanks.example.key", str(key)),
        ):
            assert site.count(theirs) >= 1, theirs
            site = site.replace(theirs, ours)
        (folder / "site.conf").write_text(site)
        kept = "".join(
            f"{what}_temp_path {folder}/{what};" for what in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
        )
        user = "user root;" if os.geteuid() == 0 else ""
        (folder / "nginx.conf").write_text(
            f"{user} daemon off; pid {folder}/pid; error_log {folder}/error.log; events {{}} "
            f"http {{ access_log off; {kept} include {folder}/site.conf; }}"
        )
        asked = [NGINX, "-p", str(folder), "-e", str(folder / "error.log"), "-c", str(folder / "nginx.conf")]
        self.process = subprocess.Popen(asked, start_new_session=True)
        end = time.monotonic() + 30
        while True:
            try:
                socket.create_connection(("127.0.0.1", self.tls), 1).close()
                break
            except OSError:
                assert self.process.poll() is None, (folder / "error.log").read_text()
                assert time.monotonic() < end, "nginx does not listen"
                time.sleep(0.05)

    @property
    def url(self) -> str:
        return f"https://127.0.0.1:{self.tls}"

    def stop(self) -> None:
        self.process.send_signal(signal.SIGTERM)
        self.process.wait(20)


@pytest.fixture(scope="module")
def proxy(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Proxy]:
    run = Running(
        "serve", tmp_path_factory.mktemp("behind"), REEDMACE_BEHIND_TLS="1", REEDMACE_METRICS="1", REEDMACE_SIGN_UPS="3"
    ).start()
    made = Proxy(tmp_path_factory.mktemp("proxy"), run.port)
    yield made
    made.stop()
    run.stop()


@pytest.fixture
def asked(proxy: Proxy) -> Iterator[requests.Session]:
    with visitor(proxy) as session:
        yield session


def visitor(proxy: Proxy) -> requests.Session:
    session = requests.Session()
    # A machine may name certificates of its own, which would come before this one.
    session.trust_env = False
    session.verify = str(proxy.pem)
    return session


def sign_up(proxy: Proxy, asked: requests.Session, email: str, said: dict[str, str] | None = None) -> requests.Response:
    token = asked.get(f"{proxy.url}/api/session", timeout=20).json()["csrf_token"]
    account = {"email": email, "password": "reed and water"}
    headers = {"X-CSRF-Token": token, **(said or {})}
    return asked.post(f"{proxy.url}/api/account", json=account, headers=headers, timeout=20)


def test_plain_http_is_sent_on_and_cookies_stay_under_tls(proxy: Proxy, asked: requests.Session) -> None:
    plain = asked.get(f"http://127.0.0.1:{proxy.plain}/today", allow_redirects=False, timeout=20)
    assert plain.status_code == 301
    assert plain.headers["Location"].startswith("https://")
    answer = sign_up(proxy, asked, "a@proxy.example")
    assert answer.status_code == 201
    assert "Secure" in answer.headers["Set-Cookie"]
    assert "max-age" in answer.headers["Strict-Transport-Security"]
    assert len(answer.headers["X-Request-ID"]) == 32


def test_an_address_a_client_makes_up_counts_for_nothing(proxy: Proxy, asked: requests.Session) -> None:
    told = []
    for n in range(5):
        with visitor(proxy) as one:
            made_up = {"X-Forwarded-For": f"198.51.100.{n}"}
            told.append(sign_up(proxy, one, f"n{n}@proxy.example", made_up).status_code)
    # Three an hour from one address, whatever it calls itself.
    assert told.count(429) >= 2
    assert asked.get(f"{proxy.url}/metrics", timeout=20).status_code == 404


def test_what_is_too_large_is_refused_in_our_words_and_not_the_proxys(proxy: Proxy, asked: requests.Session) -> None:
    large = asked.post(f"{proxy.url}/api/compute/tank-volume", data=b" " * 3_000_000, timeout=60)
    assert large.status_code == 413
    assert large.json()["title"]


def test_a_browser_speaks_http_2_and_the_page_opens(proxy: Proxy, browser: Browser) -> None:
    context = browser.new_context(ignore_https_errors=True)
    page = context.new_page()
    page.goto(proxy.url)
    expect(page.get_by_role("link", name="Sign in")).to_be_visible()
    spoken = page.evaluate(
        "() => [...performance.getEntriesByType('navigation'), ...performance.getEntriesByType('resource')]"
        ".filter(e => e.name.startsWith('https')).map(e => e.nextHopProtocol)"
    )
    assert len(spoken) > 3
    assert set(spoken) == {"h2"}
    context.close()
