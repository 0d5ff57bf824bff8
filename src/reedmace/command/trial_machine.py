"""One serving machine that a trial starts, queries, kills and stops."""

import os
import signal
import subprocess
import sys
import time
import urllib.request
from collections.abc import Iterator
from pathlib import Path

from reedmace.command.free_port import free_port
from reedmace.command.mariadb import die_with_parent
from reedmace.command.paths import VAR

START_S = 120.0
"""Seconds to wait for its first answer."""


def processes_of(folder: Path) -> Iterator[tuple[int, str]]:
    """Pid and command line of every process of one Reedmace, found by its folder in environment or command.

    folder: its REEDMACE_VAR.
    """
    for entry in Path("/proc").iterdir():
        if not entry.name.isdigit():
            continue
        try:
            command = (entry / "cmdline").read_bytes().decode(errors="replace")
            environment = (entry / "environ").read_bytes().decode(errors="replace")
        except OSError:
            # Another's, or ended since.
            continue
        if f"REEDMACE_VAR={folder}\0" in environment or str(folder) in command:
            yield int(entry.name), command


class Machine:
    """`./reedmace serve` in a folder of its own. workers: of its web server; settings: of its environment besides."""

    def __init__(self, folder: Path, workers: int, settings: dict[str, str] | None = None) -> None:
        folder.mkdir(parents=True, exist_ok=True)
        self.port = free_port()
        self._log = folder / "run.log"
        self._environment = {
            **os.environ,
            "REEDMACE_VAR": str(folder),
            # The kernel cache is shared with the rest of this checkout.
            "NUMBA_CACHE_DIR": os.environ.get("NUMBA_CACHE_DIR", str(VAR / "numba")),
            "REEDMACE_BIND": f"127.0.0.1:{self.port}",
            "REEDMACE_WORKERS": str(workers),
            "REEDMACE_SIGN_UPS": "100000",
            **(settings or {}),
        }
        self.process: subprocess.Popen[bytes] | None = None

    def start(self) -> None:
        """Start, and wait until it answers from its database. Raises RuntimeError."""
        with self._log.open("ab") as log:
            self.process = subprocess.Popen(
                [sys.executable, "-m", "reedmace.command", "serve"],
                env=self._environment,
                stdout=log,
                stderr=log,
                start_new_session=True,
                preexec_fn=die_with_parent,
            )
        end = time.monotonic() + START_S
        while time.monotonic() < end and self.process.poll() is None:
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{self.port}/readyz", timeout=5).close()
                return
            except OSError:
                time.sleep(0.1)
        raise RuntimeError(f"an application machine did not start:\n{self._log.read_text()[-2000:]}")

    def stop(self, how: signal.Signals = signal.SIGTERM) -> None:
        """Stop it and wait. how: SIGKILL kills its workers' launcher, and they with it."""
        if self.process is not None and self.process.poll() is None:
            self.process.send_signal(how)
            self.process.wait(60)

    def memory_mb(self) -> float:
        """Memory of its web processes, what they share counted once, MB (proportional set size)."""
        total = 0
        for pid, command in processes_of(Path(self._environment["REEDMACE_VAR"])):
            if "reedmace.command.web_server" not in command:
                continue
            try:
                rows = Path(f"/proc/{pid}/smaps_rollup").read_text().splitlines()
            except OSError:
                # It has ended since.
                continue
            total += sum(int(row.split()[1]) for row in rows if row.startswith("Pss:"))
        return total / 1024
