"""Backup of the database of `./reedmace serve` while it runs, and restore to any moment since.

The dump is SQL that any MariaDB reads, taken in one transaction. With REEDMACE_BINLOG=1 the server also keeps every
change since; `restore --until` replays them up to a moment, as after a mistake.
"""

import gzip
import os
import re
import shutil
import subprocess
import sys
import tempfile
from collections.abc import Sequence
from datetime import UTC, datetime
from pathlib import Path
from typing import IO
from urllib.parse import unquote, urlsplit

from reedmace.command.paths import VAR
from reedmace.command.serve_database import database_of_serve
from reedmace.database import MIGRATE_S, connect, migrate
from reedmace.store.models import Account

_PLACE = re.compile(rb"MASTER_LOG_FILE='([^']+)', MASTER_LOG_POS=(\d+)")
_HEAD = 20_000
"""A dump's first lines contain its binary log position."""


class _Client:
    """Debian's MariaDB clients with their connection options; the password goes by file, not by command line."""

    def __init__(self, url: str, folder: Path) -> None:
        parts = urlsplit(url)
        host, _, port = parts.netloc.rpartition("@")[2].split(",")[0].partition(":")
        user, _, password = parts.netloc.rpartition("@")[0].partition(":")
        self.name = parts.path[1:]
        self._options = folder / "client.cnf"
        self._options.touch(mode=0o600)
        quoted = unquote(password).replace("\\", "\\\\").replace('"', '\\"')
        self._options.write_text(
            f'[client]\nhost={host}\nport={port or 3306}\nprotocol=tcp\nuser={unquote(user)}\npassword="{quoted}"\n'
        )

    def command(self, program: str, *arguments: str) -> list[str]:
        return [program, f"--defaults-file={self._options}", *arguments]


def backup(target: Path) -> int:
    """Write a dump, compressed with gzip, completely or not at all. target: a file that does not exist yet."""
    if target.exists():
        return _fail(f"{target} is there already; name another file")
    partial = target.with_name(f"{target.name}.part")
    try:
        with tempfile.TemporaryDirectory() as folder, database_of_serve() as served:
            client = _Client(served.owner_url, Path(folder))
            place = ["--master-data=2", "--flush-logs"] if _keeps_changes(served.owner_url) else []
            dump = client.command("mariadb-dump", "--single-transaction", "--hex-blob", *place, client.name)
            with subprocess.Popen(dump, stdout=subprocess.PIPE, stderr=subprocess.PIPE) as running:
                assert running.stdout is not None and running.stderr is not None  # noqa: S101, PT018 - both are pipes
                descriptor = os.open(partial, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
                with os.fdopen(descriptor, "wb") as file:
                    with gzip.GzipFile(fileobj=file, mode="wb", mtime=0) as pressed:
                        shutil.copyfileobj(running.stdout, pressed)
                    file.flush()
                    os.fsync(file.fileno())
                said = running.stderr.read().decode(errors="replace")
            if running.returncode:
                return _fail(f"mariadb-dump failed: {said.strip()}")
            partial.rename(target)
    except (RuntimeError, OSError) as error:
        return _fail(f"no backup was written: {error}")
    finally:
        partial.unlink(missing_ok=True)
    print(f"{target}: {target.stat().st_size:,} bytes. Keep it on another machine; it holds everything keepers wrote.")
    return 0


def _keeps_changes(url: str) -> bool:
    """Whether the server keeps a binary log to follow a dump.

    An outside server is asked for its position only where the operator enables it.
    """
    if "REEDMACE_DATABASE_URL" in os.environ:
        return os.environ.get("REEDMACE_BINLOG") == "1"
    database = connect(url, MIGRATE_S)
    with database.connection_context():
        kept = bool(database.execute_sql("SELECT @@log_bin").fetchone()[0])
    database.close_all()
    return kept


def restore(source: Path, until: str | None) -> int:
    """Restore a dump into an empty database, and later changes.

    source: of `backup`; until: a moment in UTC, or None for the dump alone.
    """
    try:
        moment = None if until is None else datetime.fromisoformat(until).replace(tzinfo=UTC)
        with gzip.open(source) as pressed:
            place = _PLACE.search(pressed.read(_HEAD))
    except (OSError, ValueError, EOFError) as error:
        return _fail(f"{error}. Give a file that ./reedmace backup wrote, and a moment like 2026-11-27T08:00 in UTC.")
    changes = _changes(place[1].decode()) if place is not None else []
    if moment is not None and not changes:
        return _fail("no changes since this backup are kept: it was made, or the server run, without REEDMACE_BINLOG=1")
    try:
        with tempfile.TemporaryDirectory() as folder, database_of_serve() as served:
            if served.running and "REEDMACE_DATABASE_URL" not in os.environ:
                return _fail("keepers are at it: stop ./reedmace serve first")
            database = connect(served.owner_url, MIGRATE_S)
            with database.connection_context():
                if database.table_exists("account") and Account.select().bind(database).exists():
                    return _fail(
                        "there are keepers in this database, and a restore would take their tanks away. "
                        f"Move {VAR / 'serve' / 'data'} aside (not binlog), then run this again."
                    )
            client = _Client(served.owner_url, Path(folder))
            _load(client, source)
            if moment is not None and place is not None:
                _replay(client, changes, int(place[2]), moment)
            migrate(database)
            with database.connection_context():
                count = Account.select().bind(database).count()
            database.close_all()
    except (RuntimeError, OSError) as error:
        return _fail(f"not restored: {error}")
    print(f"Restored: {count} accounts. Take a new backup before keepers come back.")
    return 0


def _changes(first: str) -> list[Path]:
    """Binary log files from the one a dump names. first: its name."""
    kept = sorted((VAR / "serve" / "binlog").glob("binlog.[0-9]*"))
    return [path for path in kept if path.name >= first] if any(path.name == first for path in kept) else []


def _load(client: _Client, source: Path) -> None:
    with gzip.open(source) as pressed:
        _feed(client, pressed)


def _replay(client: _Client, changes: Sequence[Path], position: int, moment: datetime) -> None:
    asked = [
        "mariadb-binlog",
        "--no-defaults",
        f"--database={client.name}",
        f"--start-position={position}",
        f"--stop-datetime={moment.strftime('%Y-%m-%d %H:%M:%S')}",
        *map(str, changes),
    ]
    # Without this the moment is read in the machine's time zone.
    with subprocess.Popen(asked, stdout=subprocess.PIPE, env={**os.environ, "TZ": "UTC"}) as reading:
        assert reading.stdout is not None  # noqa: S101 - a pipe
        _feed(client, reading.stdout)
    if reading.returncode:
        raise RuntimeError("the changes since the backup could not be read; the lines above say why")


def _feed(client: _Client, text: IO[bytes] | gzip.GzipFile) -> None:
    """Run SQL. text: open for reading. Raises RuntimeError."""
    with subprocess.Popen(
        client.command("mariadb", client.name), stdin=subprocess.PIPE, stderr=subprocess.PIPE
    ) as running:
        assert running.stdin is not None and running.stderr is not None  # noqa: S101, PT018 - both are pipes
        try:
            shutil.copyfileobj(text, running.stdin)
            running.stdin.close()
        except BrokenPipeError:
            # The client has stopped reading, and reports why below.
            pass
        said = running.stderr.read().decode(errors="replace")
        running.wait()
    if running.returncode:
        raise RuntimeError(f"MariaDB refused: {said.strip().splitlines()[-1]}")


def _fail(why: str) -> int:
    print(f"reedmace: {why}", file=sys.stderr)
    return 1
