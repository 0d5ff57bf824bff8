"""The worker: sends notices and deletes what has had its time, beside the web server. Any number may run."""

import logging
import os
import signal
import sys
import time
from datetime import UTC, datetime, timedelta
from types import FrameType

import peewee

from reedmace.database import MIGRATE_S, connect
from reedmace.notices import Links, Worker
from reedmace.notices.rounds import CHECK_EVERY
from reedmace.notices.smtp import server_of

IDLE_S, LONGEST_S = 1.0, 15.0
"""Pause between rounds, and the longest one while the database is away, s."""
log = logging.getLogger("reedmace.worker")


def from_environment() -> Worker:
    """A worker by REEDMACE_* variables. KeyError names one that is missing, ValueError says what is wrong."""
    mail = server_of(
        os.environ.get("REEDMACE_SMTP", ""),
        os.environ.get("REEDMACE_MAIL_FROM", ""),
        standin=bool(os.environ.get("REEDMACE_MAIL_FOLDER")),
    )
    every = timedelta(seconds=float(os.environ.get("REEDMACE_NOTICE_S") or CHECK_EVERY.total_seconds()))
    links = Links(os.environ["REEDMACE_SECRET_KEY"], os.environ.get("REEDMACE_PUBLIC_URL", ""))
    worker = Worker(connect(os.environ["REEDMACE_DATABASE_URL"], MIGRATE_S), links, mail, every)
    if seconds := os.environ.get("REEDMACE_NOTICE_PATIENCE_S"):
        worker.lease = worker.first_wait = timedelta(seconds=float(seconds))
    return worker


def run(worker: Worker, stopping: list[int]) -> None:
    """Rounds until `stopping` holds a signal; a database that is away is asked again later and later."""
    wait_s = IDLE_S
    while not stopping:
        try:
            with worker.database.connection_context():
                busy = worker.round(datetime.now(UTC))
            wait_s = 0.0 if busy else IDLE_S
        except peewee.PeeweeException as error:
            wait_s = min(max(2 * wait_s, IDLE_S), LONGEST_S)
            log.warning("the database is away, next try in %.0f s: %s", wait_s, error)
        until = time.monotonic() + wait_s
        while not stopping and time.monotonic() < until:
            time.sleep(0.1)


def main() -> int:
    """Work until stopped."""
    logging.basicConfig(level=logging.WARNING, format="%(name)s: %(message)s")
    stopping: list[int] = []

    def stop(number: int, _: FrameType | None) -> None:
        stopping.append(number)

    signal.signal(signal.SIGTERM, stop)
    signal.signal(signal.SIGINT, stop)
    run(from_environment(), stopping)
    return 0


if __name__ == "__main__":
    sys.exit(main())
