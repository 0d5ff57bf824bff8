"""kill -9 in mid-write: every acknowledged entry is there after the restart, and nothing twice."""

import os
import pwd
import signal
import sys
import tempfile
import threading
import time
from contextlib import suppress
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import pytest
import requests

from reedmace.command.run_as import run_as
from tests.support.running import Running


class Writer(threading.Thread):
    """Writes notes as fast as it can and remembers each that was acknowledged."""

    def __init__(self, url: str, session: requests.Session, token: str, tank: int) -> None:
        super().__init__(daemon=True)
        self.url, self.session, self.token, self.tank = url, session, token, tank
        self.acknowledged: list[str] = []
        self.sent: list[str] = []
        self.halt = threading.Event()

    def run(self) -> None:
        number = 0
        while not self.halt.is_set():
            key = f"note-{number:06d}"
            number += 1
            self.sent.append(key)
            if self.write(key) == 201:
                self.acknowledged.append(key)

    def await_acknowledged(self, more: int) -> None:
        """Until so many more entries have been acknowledged."""
        wanted, end = len(self.acknowledged) + more, time.monotonic() + 60
        while len(self.acknowledged) < wanted:
            assert time.monotonic() < end, f"only {len(self.acknowledged)} of {wanted} writes were acknowledged"
            time.sleep(0.02)

    def write(self, key: str) -> int:
        entry: dict[str, Any] = {"key": key, "at": datetime.now(UTC).isoformat(), "body": {"kind": "note", "text": key}}
        try:
            return self.session.post(
                f"{self.url}/api/tanks/{self.tank}/entries",
                json=entry,
                headers={"X-CSRF-Token": self.token},
                timeout=10,
            ).status_code
        except requests.RequestException:
            time.sleep(0.05)
            return 0


def enter(running: Running, email: str) -> tuple[requests.Session, str, int]:
    session = requests.Session()
    token = session.get(f"{running.url}/api/session", timeout=10).json()["csrf_token"]
    answer = session.post(
        f"{running.url}/api/account",
        json={"email": email, "password": "reed and water"},
        headers={"X-CSRF-Token": token},
        timeout=10,
    )
    token = answer.json()["csrf_token"]
    tank = session.post(
        f"{running.url}/api/tanks", json={"name": "Crash"}, headers={"X-CSRF-Token": token}, timeout=10
    ).json()["id"]
    return session, token, tank


def kept(running: Running, session: requests.Session, tank: int) -> list[str]:
    keys, before = [], ""
    while before is not None:
        page = session.get(f"{running.url}/api/tanks/{tank}/entries?limit=200{before}", timeout=10).json()
        keys += [e["key"] for e in page["entries"]]
        before = f"&before={page['next_before']}" if page["next_before"] else None
    return keys


@pytest.fixture
def running(tmp_path: Path):
    run = Running("serve", tmp_path).start()
    yield run
    run.stop()


def check(running: Running, session: requests.Session, writer: Writer) -> None:
    assert len(writer.acknowledged) >= 20
    found = kept(running, session, writer.tank)
    assert len(found) == len(set(found))
    assert set(writer.acknowledged) <= set(found)
    # What was sent and never answered can be sent again: it lands once, whether or not it had been written.
    for key in writer.sent:
        assert writer.write(key) == 201
    assert sorted(kept(running, session, writer.tank)) == sorted(writer.sent)


def test_mariadb_killed_in_mid_write_loses_no_acknowledged_entry(running: Running) -> None:
    session, token, tank = enter(running, "a@crash.example")
    writer = Writer(running.url, session, token, tank)
    writer.start()
    writer.await_acknowledged(15)
    for pid in running.pids("mariadbd"):
        os.kill(pid, signal.SIGKILL)
    time.sleep(0.5)
    assert session.get(f"{running.url}/api/session", timeout=20).status_code in (200, 503)
    running.wait(60)
    writer.await_acknowledged(5)
    writer.halt.set()
    writer.join(20)
    check(running, session, writer)


def test_a_database_that_hangs_holds_nobody_up_and_is_asked_again(running: Running) -> None:
    session, token, tank = enter(running, "h@crash.example")
    writer = Writer(running.url, session, token, tank)
    answers: list[tuple[int, str | None, float]] = []

    def ask() -> None:
        begun = time.monotonic()
        answer = requests.get(f"{running.url}/api/session", cookies=session.cookies, timeout=60)
        answers.append((answer.status_code, answer.headers.get("Retry-After"), time.monotonic() - begun))

    assert writer.write("note-before-1") == 201
    (pid,) = running.pids("mariadbd")
    os.kill(pid, signal.SIGSTOP)
    try:
        asking = [threading.Thread(target=ask) for _ in range(24)]
        for one in asking:
            one.start()
        for one in asking:
            one.join(60)
    finally:
        os.kill(pid, signal.SIGCONT)
    assert [(status, again) for status, again, _ in answers] == [(503, "2")] * 24
    # Three seconds of silence are enough, for all together: none waits for the others' turn to be silent at.
    assert max(took for *_, took in answers) < 12
    end = time.monotonic() + 30
    while (status := writer.write("note-after-01")) != 201:
        assert (status, time.monotonic() < end) == (503, True)
        time.sleep(0.2)


def test_the_application_killed_in_mid_write_loses_no_acknowledged_entry(running: Running) -> None:
    session, token, tank = enter(running, "b@crash.example")
    writer = Writer(running.url, session, token, tank)
    writer.start()
    writer.await_acknowledged(15)
    workers = running.pids("reedmace.command.web_server")
    assert len(workers) >= 2
    for pid in workers:
        os.kill(pid, signal.SIGKILL)
    time.sleep(1)
    running.wait(60)
    writer.await_acknowledged(5)
    writer.halt.set()
    writer.join(20)
    check(running, session, writer)


def test_everything_killed_at_once_comes_back_on_the_same_folder(running: Running) -> None:
    session, token, tank = enter(running, "c@crash.example")
    writer = Writer(running.url, session, token, tank)
    writer.start()
    writer.await_acknowledged(15)
    assert running.process is not None
    os.killpg(running.process.pid, signal.SIGKILL)
    for name in ("reedmace.command.web_server", "mariadbd"):
        for pid in running.pids(name):
            # One may have died with its parent between the list and the kill.
            with suppress(ProcessLookupError):
                os.kill(pid, signal.SIGKILL)
    running.process.wait(10)
    running.start()
    writer.await_acknowledged(5)
    writer.halt.set()
    writer.join(20)
    # The cookie was signed with a key kept in the folder, so the keeper is still signed in.
    assert session.get(f"{running.url}/api/session", timeout=10).json()["signed_in"] is True
    check(running, session, writer)


def test_a_job_interrupted_between_two_ticks_goes_on_where_it_was(running: Running) -> None:
    session, token, tank = enter(running, "g@crash.example")

    def tick(step: str) -> int:
        entry: dict[str, Any] = {
            "key": f"tick-{step}",
            "at": datetime.now(UTC).isoformat(),
            "body": {"kind": "step-done", "step_id": step},
        }
        address = f"{running.url}/api/tanks/{tank}/entries"
        return session.post(address, json=entry, headers={"X-CSRF-Token": token}, timeout=10).status_code

    assert tick("canister-feet") == 201
    for pid in running.pids("reedmace.command.web_server"):
        os.kill(pid, signal.SIGKILL)
    running.wait(60)
    assert tick("canister-feet") == 201
    assert tick("canister-media") == 201
    state = session.get(f"{running.url}/api/tanks/{tank}", timeout=10).json()["state"]
    assert sorted(step for ticked in state["steps_done"].values() for step in ticked) == [
        "canister-feet",
        "canister-media",
    ]
    assert len(kept(running, session, tank)) == 2


def test_a_killed_launcher_leaves_nothing_running_and_starts_again(running: Running) -> None:
    session, _, tank = enter(running, "d@crash.example")
    assert running.process is not None
    running.process.kill()
    running.process.wait(10)
    end = time.monotonic() + 40
    while time.monotonic() < end and (running.pids("reedmace.command.web_server") or running.pids("mariadbd")):
        time.sleep(0.2)
    assert running.pids("mariadbd") == []
    assert running.pids("reedmace.command.web_server") == []
    running.start()
    assert session.get(f"{running.url}/api/tanks/{tank}", timeout=10).status_code == 200


def test_a_stop_is_clean_and_everything_is_there_after(tmp_path: Path) -> None:
    running = Running("serve", tmp_path).start()
    session, _, tank = enter(running, "e@crash.example")
    assert running.stop() == 0
    assert running.pids("mariadbd") == []
    assert "Shutdown complete" in (tmp_path / "serve" / "mariadb.log").read_text()
    running.start()
    assert session.get(f"{running.url}/api/tanks", timeout=10).json()["tanks"][0]["id"] == tank
    running.stop()


@pytest.mark.parametrize("left", [None, "", "{"], ids=["lost", "empty", "cut short"])
def test_a_start_recovers_from_its_secrets_gone(tmp_path: Path, left: str | None) -> None:
    from reedmace.command.mariadb import MariaDB
    from reedmace.command.run import _secret
    from reedmace.database import connect
    from reedmace.store import Accounts

    first = MariaDB(tmp_path)
    first.start()
    kept = Accounts(connect(first.app_url)).sign_up("a@yard.example", "reed and water", datetime(2026, 1, 1))
    before = _secret(tmp_path)
    first.stop()
    for name in ("accounts.json", "secret"):
        (tmp_path / name).unlink() if left is None else (tmp_path / name).write_text(left)
    again = MariaDB(tmp_path)
    again.start()
    found = Accounts(connect(again.app_url)).by_email(kept.email)
    assert found is not None
    assert found.id == kept.id
    assert len(_secret(tmp_path)) >= 16
    assert _secret(tmp_path) != before
    assert (tmp_path / "accounts.json").stat().st_mode & 0o077 == 0
    again.stop()


def test_a_second_start_on_one_folder_is_told(running: Running) -> None:
    second = Running("serve", running.folder)
    with pytest.raises(RuntimeError, match="already running on this data folder"):
        second.start()


def test_an_outside_database_is_used_when_named(mariadb, tmp_path: Path) -> None:
    running = Running("serve", tmp_path, REEDMACE_DATABASE_URL=mariadb.owner_url)
    running.start()
    session, _, tank = enter(running, "f@crash.example")
    assert running.pids("mariadbd") == []
    assert not (tmp_path / "serve" / "data").exists()
    assert session.get(f"{running.url}/api/tanks/{tank}", timeout=10).status_code == 200
    assert running.stop() == 0


def _owner(pid: int) -> int:
    status = dict(
        line.split(":\t", 1) for line in Path(f"/proc/{pid}/status").read_text().splitlines() if ":\t" in line
    )
    return int(status["Uid"].split("\t")[0])


@pytest.mark.skipif(os.geteuid() != 0, reason="only root starts servers under other accounts")
def test_what_root_starts_runs_with_little_power_and_dies_with_it() -> None:
    with tempfile.TemporaryDirectory(prefix="reedmace-little-") as name:
        folder = Path(name)
        # A folder others may enter, as a checkout under /srv or /opt is.
        folder.chmod(0o755)
        run = Running("serve", folder).start()
        assert run.process is not None
        assert {_owner(pid) for pid in run.pids("mariadbd")} == {pwd.getpwnam("mysql").pw_uid}
        workers = {_owner(pid) for pid in run.pids("reedmace.command.web_server")}
        if "the web server runs as root" in (folder / "run.log").read_text():
            # Python itself stands where no other account may enter it, in root's home say.
            assert run_as("www-data", [Path(sys.executable)]) is None
            assert workers == {0}
        else:
            assert workers == {pwd.getpwnam("www-data").pw_uid}
        assert (folder / "serve" / "accounts.json").stat().st_uid == 0
        session, token, tank = enter(run, "little@crash.example")
        writer = Writer(run.url, session, token, tank)
        assert writer.write("note-000001") == 201
        run.process.kill()
        run.process.wait()
        end = time.monotonic() + 30
        while run.pids("mariadbd") + run.pids("reedmace.command.web_server") and time.monotonic() < end:
            time.sleep(0.1)
        assert run.pids("mariadbd") + run.pids("reedmace.command.web_server") == []
        run.start()
        assert writer.write("note-000002") == 201
        assert run.stop() == 0
