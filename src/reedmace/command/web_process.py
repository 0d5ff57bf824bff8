"""Launcher side of the web server: a listening socket, and the server process on it."""

import os
import socket
import subprocess
import sys
import time
from pathlib import Path
from typing import Any

from reedmace.command.free_port import free_port
from reedmace.command.mariadb import die_with_parent
from reedmace.command.paths import say

USUAL_PORT = 8420
SHORT_LIFE_S, MOST_FAST_DEATHS, STOP_S = 5.0, 6, 14.0


class WebServer:
    """The process of `command.web_server` on a listening socket: started early, released later.

    It serves once the database is ready.

    environment: with the settings; count: of workers; account: whose they are, as Popen takes it.
    """

    def __init__(
        self, listener: socket.socket, environment: dict[str, str], count: int, account: dict[str, Any] | None = None
    ) -> None:
        self._listener, self._environment, self._count, self._account = listener, environment, count, account or {}
        self._fast_deaths = 0
        self._word = ""
        self._begin()

    def _begin(self) -> None:
        handle = self._listener.fileno()
        command = [sys.executable, "-m", "reedmace.command.web_server", str(handle), str(self._count)]
        self._begun = time.monotonic()
        self._process = subprocess.Popen(
            command,
            env=self._environment,
            stdin=subprocess.PIPE,
            pass_fds=(handle,),
            preexec_fn=die_with_parent,
            start_new_session=True,
            **self._account,
        )

    def go(self, word: str = "go") -> None:
        """Release it: the database is there and its tables are migrated. word: "demo" has it write the demo first."""
        self._word = word
        line = self._process.stdin
        try:
            if line is not None:
                line.write(f"{word}\n".encode())
                line.close()
        except BrokenPipeError:
            # It has died already, and is restarted.
            pass

    def restart_if_dead(self) -> bool:
        """Restart it where it has died; False when it dies as fast as it is started."""
        if self._process.poll() is None:
            return True
        self._fast_deaths = self._fast_deaths + 1 if time.monotonic() - self._begun < SHORT_LIFE_S else 0
        if self._fast_deaths > MOST_FAST_DEATHS:
            return False
        self._begin()
        if self._word:
            # The demo is written anew once, not after every crash.
            self.go(self._word.removeprefix("fresh "))
        return True

    def stop(self) -> None:
        """Stop gracefully and wait; after a timeout kill it with its workers."""
        self._process.terminate()
        try:
            self._process.wait(STOP_S)
        except subprocess.TimeoutExpired:
            self._process.kill()
            self._process.wait(5)
        if self._process.stdin is not None:
            self._process.stdin.close()


def listen(folder: Path) -> socket.socket | None:
    """A socket on the address asked for, or the default one, or any free one; None, with a message, when it is taken.

    folder: of the data, where the last start wrote its address.
    """
    asked = os.environ.get("REEDMACE_BIND")
    host, _, port = (asked or f"127.0.0.1:{USUAL_PORT}").rpartition(":")
    # Workers of a killed launcher are ending: wait for their port rather than move.
    until = time.monotonic() + (10.0 if asked or (folder / "address").exists() else 0.0)
    while True:
        try:
            return bound(host, int(port))
        except (OSError, ValueError, OverflowError) as error:
            if time.monotonic() < until and isinstance(error, OSError):
                time.sleep(0.1)
                continue
            if asked is None:
                # The same address every time where it is free, so that bookmarks and the browser's drafts keep working.
                return bound(host, free_port())
            say(f"cannot listen on {asked}: {error}. Give another REEDMACE_BIND, or stop what listens there.")
            return None


def bound(host: str, port: int) -> socket.socket:
    """A listening socket. host, port: where; port 0: any that is free. OSError when it is taken."""
    family = socket.AF_INET6 if ":" in host else socket.AF_INET
    listener = socket.socket(family, socket.SOCK_STREAM)
    try:
        listener.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        listener.bind((host.strip("[]"), port))
        listener.listen(1024)
        listener.setblocking(False)
    except OSError:
        listener.close()
        raise
    return listener
