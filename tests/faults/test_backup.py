"""Dump, wipe, restore: everything is there again, up to the moment asked for."""

import gzip
import subprocess
import sys
import time
from datetime import UTC, datetime
from pathlib import Path

import pytest
import requests

from tests.faults.test_crashes import Writer, enter
from tests.support.running import ROOT, Running


def command(running: Running, *arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "reedmace.command", *arguments],
        env=running.environment,
        capture_output=True,
        text=True,
        timeout=200,
        cwd=ROOT,
    )


def everything(running: Running, session: requests.Session) -> object:
    tanks = session.get(f"{running.url}/api/tanks", timeout=10).json()
    ids = [t["id"] for t in tanks["tanks"]]
    logs = [session.get(f"{running.url}/api/tanks/{i}/entries?limit=200", timeout=10).json() for i in ids]
    return tanks, logs


@pytest.mark.timeout(600)
def test_what_was_dumped_wiped_and_restored_is_equal_up_to_the_moment_before_a_mistake(tmp_path: Path) -> None:
    running = Running("serve", tmp_path, REEDMACE_BINLOG="1").start()
    session, token, tank = enter(running, "kept@backup.example")
    writer = Writer(running.url, session, token, tank)
    assert [writer.write(f"before-{n:04d}") for n in range(20)] == [201] * 20
    at_backup = everything(running, session)
    dump = tmp_path / "week.sql.gz"
    done = command(running, "backup", str(dump))
    assert done.returncode == 0, done.stderr
    assert dump.stat().st_mode & 0o077 == 0
    again = command(running, "backup", str(dump))
    assert (again.returncode, "is there already" in again.stderr) == (1, True)

    assert [writer.write(f"after-{n:04d}") for n in range(20)] == [201] * 20
    before_mistake = everything(running, session)
    # The log of changes counts in whole seconds.
    time.sleep(1.2)
    moment = datetime.now(UTC).strftime("%Y-%m-%dT%H:%M:%S")
    time.sleep(1.2)
    removed = session.delete(f"{running.url}/api/tanks/{tank}", headers={"X-CSRF-Token": token}, timeout=10)
    assert removed.status_code in (200, 204)
    assert everything(running, session) != before_mistake

    held = command(running, "restore", str(dump))
    assert (held.returncode, "stop ./reedmace serve first" in held.stderr) == (1, True)
    running.stop()
    refused = command(running, "restore", str(dump), "--until", moment)
    assert (refused.returncode, "there are keepers in this database" in refused.stderr) == (1, True)

    (tmp_path / "serve" / "data").rename(tmp_path / "lost")
    restored = command(running, "restore", str(dump), "--until", moment)
    assert restored.returncode == 0, restored.stderr
    running.start()
    assert everything(running, session) == before_mistake
    running.stop()

    # The dump alone brings back what stood when it was taken.
    (tmp_path / "serve" / "data").rename(tmp_path / "lost-again")
    assert command(running, "restore", str(dump)).returncode == 0
    running.start()
    assert everything(running, session) == at_backup
    assert writer.write("after-all-0001") == 201
    running.stop()


@pytest.mark.parametrize(
    "content",
    [b"not pressed at all", gzip.compress(b"CREATE TABLE nonsense (")],
    ids=["no gzip", "no SQL"],
)
def test_a_file_that_is_no_backup_is_refused_in_a_line(tmp_path: Path, content: bytes) -> None:
    (tmp_path / "broken.sql.gz").write_bytes(content)
    done = command(Running("serve", tmp_path), "restore", str(tmp_path / "broken.sql.gz"))
    assert done.returncode == 1
    assert "Traceback" not in done.stderr
    assert done.stderr.strip().splitlines()[-1].startswith("reedmace: ")
