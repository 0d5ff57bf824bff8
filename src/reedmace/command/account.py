"""What the one who runs a server can do for a keeper who is locked out."""

import fcntl
import os
import secrets
import sys
from collections.abc import Iterator
from contextlib import contextmanager

from reedmace.command.mariadb import MariaDB
from reedmace.command.run import VAR
from reedmace.store import Accounts, connect


@contextmanager
def _database() -> Iterator[str]:
    """Address of the database of `./reedmace serve`: an outside one, the one that runs, or one started for the moment."""
    outside = os.environ.get("REEDMACE_DATABASE_URL")
    if outside:
        yield outside
        return
    folder = VAR / "serve"
    folder.mkdir(parents=True, exist_ok=True)
    server = MariaDB(folder)
    with (folder / "lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            yield server.running_url()
            return
        server.start()
        try:
            yield server.app_url
        finally:
            server.stop()


def reset(email: str) -> int:
    """Give an account a new password, printed once; every sign-in of it ends. email: of the account."""
    password = "-".join(secrets.token_hex(3) for _ in range(3))
    try:
        with _database() as url:
            database = connect(url)
            with database.connection_context():
                found = Accounts(database).reset(email, password)
    except RuntimeError as error:
        sys.stderr.write(f"reedmace: {error}\n")
        return 1
    if not found:
        sys.stderr.write(f"reedmace: nobody here signs in as {email}\n")
        return 1
    sys.stdout.write(f"New password of {email}: {password}\nHand it over, and have it changed under Account.\n")
    return 0
