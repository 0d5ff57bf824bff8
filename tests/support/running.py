"""A whole Reedmace, started as ./reedmace starts it, for tests that drive or break it from outside."""

import os
import signal
import subprocess
import sys
import time
import urllib.request
from pathlib import Path

from reedmace.command.free_port import free_port
from reedmace.command.mariadb import die_with_parent
from reedmace.command.trial_machine import processes_of

ROOT = Path(__file__).resolve().parents[2]


class Running:
    """`./reedmace demo` or `serve` in a folder of its own."""

    def __init__(self, verb: str, folder: Path, **environment: str) -> None:
        self.verb, self.folder = verb, folder
        self.port = free_port()
        self.url = f"http://127.0.0.1:{self.port}"
        self.environment = {
            **os.environ,
            "PYTHONPATH": str(ROOT / "src"),
            "PATH": os.environ["PATH"] + ":/usr/sbin",
            "REEDMACE_ROOT": str(ROOT),
            "REEDMACE_VAR": str(folder),
            "REEDMACE_BIND": f"127.0.0.1:{self.port}",
            "REEDMACE_WORKERS": "2",
            "REEDMACE_SIGN_UPS": "100000",
            **environment,
        }
        self.process: subprocess.Popen[str] | None = None

    def start(self) -> "Running":
        command = [sys.executable, "-m", "reedmace.command", self.verb]
        with (self.folder / "run.log").open("a") as log:
            self.process = subprocess.Popen(
                command, env=self.environment, stdout=log, stderr=log, text=True, start_new_session=True, cwd=ROOT,
                # Whatever ends the tests, nothing of them goes on running.
                preexec_fn=die_with_parent,
            )  # fmt: skip
        self.wait()
        return self

    def wait(self, seconds: float = 120) -> None:
        """Until the web server answers from a working database; as long as it says how far it has come, longer."""
        end, said = time.monotonic() + seconds, 0
        while time.monotonic() < end:
            size = (self.folder / "run.log").stat().st_size
            if size > said:
                end, said = time.monotonic() + seconds, size
            if self.process is not None and self.process.poll() is not None:
                raise RuntimeError((self.folder / "run.log").read_text()[-3000:])
            try:
                with urllib.request.urlopen(f"{self.url}/api/session", timeout=5) as answer:
                    if answer.status == 200:
                        return
            except OSError:
                time.sleep(0.1)
        raise TimeoutError((self.folder / "run.log").read_text()[-3000:])

    def stop(self) -> int:
        """As Ctrl-C does; the exit code."""
        assert self.process is not None
        if self.process.poll() is None:
            self.process.send_signal(signal.SIGTERM)
        return self.process.wait(60)

    def pids(self, name: str) -> list[int]:
        """Processes of that name that belong to this run, by its folder or its port in their command line or
        environment.
        """
        return [pid for pid, command in processes_of(self.folder) if name in command]
