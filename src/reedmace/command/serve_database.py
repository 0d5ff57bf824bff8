"""The database of `./reedmace serve` for maintenance.

An outside one, the running one, or one started for the moment.
"""

import fcntl
import os
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass

from reedmace.command.mariadb import MariaDB
from reedmace.command.paths import VAR


@dataclass(frozen=True)
class Served:
    """URLs for the application and for the owner of the tables; running: whether the server is in use."""

    app_url: str
    owner_url: str
    running: bool


@contextmanager
def database_of_serve() -> Iterator[Served]:
    """Yields the database while it can be used. Raises RuntimeError where it cannot be started or found."""
    outside = os.environ.get("REEDMACE_DATABASE_URL")
    if outside:
        yield Served(outside, os.environ.get("REEDMACE_MIGRATE_URL", outside), running=True)
        return
    folder = VAR / "serve"
    folder.mkdir(parents=True, exist_ok=True)
    server = MariaDB(folder)
    with (folder / "lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            yield Served(server.running_url(), server.owner_url, running=True)
            return
        server.start()
        try:
            yield Served(server.app_url, server.owner_url, running=False)
        finally:
            server.stop()
