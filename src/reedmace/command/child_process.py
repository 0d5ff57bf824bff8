"""A process the launcher keeps beside the web server: started, started again when it dies, stopped."""

import subprocess
import sys
import time
from typing import Any

from reedmace.command.mariadb import die_with_parent
from reedmace.command.paths import say

FIRST_WAIT_S, LONGEST_WAIT_S, STOP_S = 0.5, 30.0, 5.0
"""Wait before a first restart, doubled while it dies at once, its limit, and the time it has to stop, s."""
LIVED_S = 20.0
"""A process that lived so long is started again without a wait."""


class ChildProcess:
    """A Python module run as a process of its own; the keepers' pages never wait for it.

    name: in messages; module: what runs; arguments: of it; account: whose it is, as Popen takes it; lived_s:
    after which it is started again at once.
    """

    def __init__(
        self,
        name: str,
        module: str,
        arguments: list[str],
        environment: dict[str, str],
        account: dict[str, Any] | None = None,
        lived_s: float = LIVED_S,
    ) -> None:
        self._name, self._lived_s = name, lived_s
        self._command = [sys.executable, "-m", module, *arguments]
        self._environment, self._account = environment, account or {}
        self._wait_s = FIRST_WAIT_S
        self._begin()

    def _begin(self) -> None:
        self._begun = time.monotonic()
        self._process = subprocess.Popen(
            self._command, env=self._environment, preexec_fn=die_with_parent, start_new_session=True, **self._account
        )

    @property
    def pid(self) -> int:
        """Its process id."""
        return self._process.pid

    def restart_if_dead(self) -> None:
        """Start it again where it has died, later and later while it dies at once."""
        if self._process.poll() is None:
            return
        lived_s = time.monotonic() - self._begun
        if lived_s >= self._lived_s:
            self._wait_s = FIRST_WAIT_S
        elif lived_s < self._wait_s:
            return
        say(f"{self._name} stopped; starting it again")
        self._wait_s = min(2 * self._wait_s, LONGEST_WAIT_S)
        self._begin()

    def stop(self) -> None:
        """Stop it and wait; after a while kill it."""
        self._process.terminate()
        try:
            self._process.wait(STOP_S)
        except subprocess.TimeoutExpired:
            self._process.kill()
            self._process.wait(STOP_S)
