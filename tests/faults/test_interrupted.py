"""Tests that are interrupted, however it is done, leave no process behind."""

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from reedmace.command.paths import ROOT
from reedmace.command.trial_machine import processes_of
from tests.support.bounds import WHOLE

TEST = """
import time
from pathlib import Path
from tests.support.running import Running

def test_that_takes_for_ever():
    Running("serve", Path({folder!r})).start()
    Path({up!r}).write_text("up")
    time.sleep(600)
"""


OTHERS = [(signal.SIGKILL, ()), (signal.SIGINT, ("-n", "1"))] if WHOLE else []
"""Each signal and each way to run is met once in the suite, every pair under `./reedmace trials`."""


def left(folder: Path, seconds: float) -> list[str]:
    """What still runs in a folder when the time is up, or nothing as soon as nothing does."""
    end = time.monotonic() + seconds
    while (found := [command for _, command in processes_of(folder)]) and time.monotonic() < end:
        time.sleep(0.2)
    return found


@pytest.mark.parametrize(
    ("how", "spread"),
    [(signal.SIGKILL, ("-n", "1")), (signal.SIGINT, ()), *OTHERS],
    ids=lambda value: " ".join(value) if isinstance(value, tuple) else value.name,
)
def test_nothing_of_an_interrupted_run_stays(tmp_path: Path, how: signal.Signals, spread: tuple[str, ...]) -> None:
    folder, up = tmp_path / "var", tmp_path / "up"
    folder.mkdir()
    file = tmp_path / "test_long.py"
    file.write_text(TEST.format(folder=str(folder), up=str(up)))
    where = ["-c", str(ROOT / "pyproject.toml"), "--rootdir", str(tmp_path), "-p", "no:cacheprovider"]
    run = subprocess.Popen(
        [sys.executable, "-m", "reedmace.command", "test", str(file), *where, *spread],
        env={**os.environ, "PYTHONPATH": f"{ROOT / 'src'}:{ROOT}"},
        start_new_session=True,
        stdout=subprocess.DEVNULL,
        stderr=subprocess.DEVNULL,
        # A shell that puts the tests in the background has them ignore Ctrl-C, and their children with them.
        preexec_fn=lambda: signal.signal(signal.SIGINT, signal.SIG_DFL),
    )
    try:
        end = time.monotonic() + 240
        while not up.exists():
            assert run.poll() is None
            assert time.monotonic() < end
            time.sleep(0.1)
        assert len(list(processes_of(folder))) >= 2
        if how == signal.SIGINT:
            # As Ctrl-C does: to everything that stands in the foreground.
            os.killpg(run.pid, how)
        else:
            run.send_signal(how)
        # On a busy machine a server takes its time to stop.
        run.wait(120)
        assert left(folder, 60) == []
    finally:
        for pid, _ in processes_of(folder):
            os.kill(pid, signal.SIGKILL)
