"""The web server: the program is imported once, then forked into workers, each with a loop of its own, and a notifier.

The loop reads a whole request before a thread is given to it.

So a client that sends half a request, or nothing at all, costs a little memory and no keeper's time, and a worker that
dies is there again before the next request.
"""

import gc
import logging
import os
import select
import signal
import socket
import sys
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass
from types import FrameType
from typing import NoReturn

import waitress
from flask import Flask
from waitress.channel import HTTPChannel
from waitress.parser import HTTPRequestParser

from reedmace.api import Settings, create_app
from reedmace.command import worker
from reedmace.command.mariadb import die_with_parent
from reedmace.command.paths import say
from reedmace.command.warm_kernels import warm, warm_without_threads
from reedmace.core.computations import COMPUTATIONS
from reedmace.database import MIGRATE_S, connect

THREADS = 8
SILENT_S = 30
"""Seconds after which an idle connection is closed."""
MOST_CONNECTIONS = 2000
LARGEST_BODY = 48_000_000
"""Bytes.

Above 2 MB, or above this for an imported logbook, the application explains the rejection; the server cuts off the rest.
"""
SHORT_LIFE_S, MOST_FAST_DEATHS, LONGEST_WAIT_S = 5.0, 6, 30.0
FINISH_S = 10.0
"""Seconds workers may finish their responses on shutdown."""


class ClosingParser(HTTPRequestParser):  # type: ignore[misc]
    """Closes the connection after a request with both Transfer-Encoding and Content-Length (RFC 9112 section 6.1).

    Two lengths are how a second request is hidden in the first; the first is answered by its chunks.
    """

    def parse_header(self, header_plus: bytes) -> None:
        """Parse the head of a request. header_plus: its bytes."""
        super().parse_header(header_plus)
        if self.chunked and "CONTENT_LENGTH" in self.headers:
            self.headers["CONNECTION"] = "close"


def _stop(_: int, __: FrameType | None) -> None:
    raise SystemExit(0)


def serve(listener: socket.socket, application: Flask, settings: Settings) -> None:
    """Serve until stopped. listener: bound, shared with the other workers; application, settings: made before."""
    # Kernels are loaded beside the first responses, so that a crash delays nobody.
    threading.Thread(target=warm, daemon=True).start()
    HTTPChannel.parser_class = ClosingParser
    # A request that waits a moment for a thread is no news.
    logging.getLogger("waitress.queue").setLevel(logging.ERROR)
    waitress.serve(
        application,
        sockets=[listener],
        threads=THREADS,
        connection_limit=MOST_CONNECTIONS,
        channel_timeout=SILENT_S,
        cleanup_interval=5,
        max_request_body_size=LARGEST_BODY,
        max_request_header_size=32_768,
        asyncore_use_poll=True,
        # Look-ahead tells whether the client is still connected: an abandoned computation is not started.
        channel_request_lookahead=1,
        # Behind a proxy the application itself trusts one hop; without one no forwarding header is used.
        clear_untrusted_proxy_headers=not settings.behind_tls,
        ident="",
        _quiet=True,
    )


@dataclass
class Job:
    """What a forked process does. needed: the server ends where it dies again and again; else it waits longer."""

    work: Callable[[], object]
    needed: bool = True
    fast_deaths: int = 0

    @property
    def wait_s(self) -> float:
        """Seconds a process started now waits before its work."""
        return 0.0 if self.needed or not self.fast_deaths else min(0.5 * 2**self.fast_deaths, LONGEST_WAIT_S)


class Workers:
    """Processes forked from this one, with nothing open yet."""

    def __init__(self) -> None:
        self._all: dict[int, tuple[float, Job]] = {}

    def start(self, job: Job) -> None:
        """Fork one more. job: what it does."""
        child = os.fork()
        if child == 0:
            self._work(job)
        self._all[child] = (time.monotonic(), job)

    def _work(self, job: Job) -> NoReturn:
        signal.signal(signal.SIGTERM, _stop)
        die_with_parent()
        status = 1
        try:
            time.sleep(job.wait_s)
            job.work()
            status = 0
        except SystemExit:
            status = 0
        except Exception:
            logging.getLogger("reedmace").exception("a process of the web server ended")
        finally:
            sys.stderr.flush()
            # Skips the parent's exit handlers, which are the parent's to run.
            os._exit(status)

    def wait(self) -> int:
        """Wait until one has ended; its exit code."""
        pid, status = os.wait()
        self._all.pop(pid, None)
        return os.waitstatus_to_exitcode(status)

    def watch(self) -> None:
        """Restart processes that die, until stopped.

        Raises SystemExit: 0 when stopped, 1 when those needed die as fast as they are started.
        """
        while True:
            pid, _ = os.wait()
            if pid not in self._all:
                continue
            begun, job = self._all.pop(pid)
            lived_s = time.monotonic() - begun - job.wait_s
            job.fast_deaths = job.fast_deaths + 1 if lived_s < SHORT_LIFE_S else 0
            if job.needed and job.fast_deaths > MOST_FAST_DEATHS:
                raise SystemExit(1)
            self.start(job)

    def stop(self) -> None:
        """Let each finish its response; kill the rest."""
        for pid in self._all:
            os.kill(pid, signal.SIGTERM)
        end = time.monotonic() + FINISH_S
        while self._all and time.monotonic() < end:
            pid, _ = os.waitpid(-1, os.WNOHANG)
            self._all.pop(pid, None)
            if not pid:
                time.sleep(0.02)
        for pid in self._all:
            os.kill(pid, signal.SIGKILL)
            os.waitpid(pid, 0)


def _write_demo(*, fresh: bool) -> None:
    """Write the demo's tanks in a process of their own, whose threads and connections end with it. fresh: anew."""

    def write() -> None:
        from reedmace.demo import write_demo

        database = connect(os.environ["REEDMACE_DATABASE_URL"], MIGRATE_S)
        with database.connection_context():
            if write_demo(database, fresh=fresh):
                say("wrote the demo tanks")

    workers = Workers()
    workers.start(Job(write))
    if status := workers.wait():
        raise SystemExit(status)


def _notify(listener: socket.socket) -> None:
    """Send notices until stopped. listener: closed here, so that nothing listens once the workers are gone."""
    listener.close()
    worker.main()


def main(listener: socket.socket, count: int) -> None:
    """Import the program, wait for a line on standard input that the database is ready, then serve.

    count: of workers.
    """
    settings = Settings.from_environment()
    application = create_app(settings)
    # Lazily built elsewhere; built here once, for all workers.
    for one in COMPUTATIONS.values():
        one.question.model_rebuild()
        one.answer.model_rebuild()
    signal.signal(signal.SIGTERM, _stop)
    # While the database starts there is time for what every process would otherwise do by itself.
    warm_without_threads(lambda: not select.select([sys.stdin], [], [], 0)[0])
    line = sys.stdin.buffer.readline()
    if not line:
        # The parent has exited.
        return
    # Objects present from the start are exempt from garbage collection: scanning them cost a tenth of a second, and
    # pages nobody writes to are shared by all workers.
    gc.collect()
    gc.freeze()
    if "demo" in line.decode():
        _write_demo(fresh="fresh" in line.decode())
    workers, pages = Workers(), Job(lambda: serve(listener, application, settings))
    try:
        for _ in range(count):
            workers.start(pages)
        workers.start(Job(lambda: _notify(listener), needed=False))
        workers.watch()
    finally:
        workers.stop()


if __name__ == "__main__":
    main(socket.socket(fileno=int(sys.argv[1])), int(sys.argv[2]))
