"""demo and serve: MariaDB, migrations, gunicorn, and a clean stop of all of them."""

import fcntl
import os
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path
from types import FrameType

from reedmace.api.application import new_secret
from reedmace.command.mariadb import MariaDB, die_with_parent, free_port
from reedmace.demo import write_demo
from reedmace.store import connect, migrate

ROOT = Path(os.environ.get("REEDMACE_ROOT", Path(__file__).resolve().parents[3]))
VAR = Path(os.environ.get("REEDMACE_VAR", ROOT / "var"))


def demo(*, fresh: bool) -> int:
    """Start with the demo tanks, in a data folder of their own."""
    return _run(VAR / "demo", with_demo=True, fresh=fresh)


def serve() -> int:
    """Start without demo data."""
    return _run(VAR / "serve", with_demo=False, fresh=False)


def _say(text: str) -> None:
    print(f"reedmace: {text}", file=sys.stderr, flush=True)


def _run(folder: Path, *, with_demo: bool, fresh: bool) -> int:
    folder.mkdir(parents=True, exist_ok=True)
    with (folder / "lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            address = (folder / "address").read_text() if (folder / "address").exists() else "unknown"
            _say(f"already running on this data folder, at {address}")
            return 1
        outside = os.environ.get("REEDMACE_DATABASE_URL")
        server = None
        try:
            if outside:
                _say("using the database of REEDMACE_DATABASE_URL")
                url = outside
                migrate(connect(os.environ.get("REEDMACE_MIGRATE_URL", outside)))
            else:
                _say("starting MariaDB on 127.0.0.1")
                server = MariaDB(folder)
                server.start()
                url = server.app_url
            if with_demo:
                database = connect(url)
                with database.connection_context():
                    if write_demo(database, fresh=fresh):
                        _say("wrote the demo tanks")
            return _web(folder, url, server, with_demo=with_demo)
        except (RuntimeError, ValueError) as error:
            _say(str(error))
            return 1
        finally:
            if server:
                _say("stopping MariaDB")
                server.stop()


def _secret(folder: Path) -> str:
    path = folder / "secret"
    if not path.exists():
        descriptor = os.open(path, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600)
        with os.fdopen(descriptor, "w") as file:
            file.write(new_secret())
    return path.read_text()


def _web(folder: Path, url: str, server: MariaDB | None, *, with_demo: bool) -> int:
    bind = os.environ.get("REEDMACE_BIND") or f"127.0.0.1:{_port()}"
    environment = {
        **os.environ,
        "REEDMACE_DATABASE_URL": url,
        "REEDMACE_SECRET_KEY": os.environ.get("REEDMACE_SECRET_KEY") or _secret(folder),
        "REEDMACE_DEMO": "1" if with_demo else "0",
        "REEDMACE_FRONT_END": os.environ.get("REEDMACE_FRONT_END", str(ROOT / "frontend" / "dist")),
    }
    workers = os.environ.get("REEDMACE_WORKERS") or str(min((os.cpu_count() or 1) + 1, 9))
    # Workers are processes, one request each: a long forecast in one never holds up a keeper typing in another.
    command = [
        sys.executable,
        "-m",
        "gunicorn",
        "--bind",
        bind,
        "--workers",
        workers,
        "--timeout",
        "120",
        "--graceful-timeout",
        "10",
        "--log-level",
        "warning",
        "reedmace.command.wsgi:app",
    ]
    _say("warming up the sums (the first time they are compiled, which takes a minute or so)")
    # Once, in one process: workers that all find an empty cache would compile the same thing side by side.
    warmed = subprocess.run([sys.executable, "-m", "reedmace.command.warm"], env=environment)
    if warmed.returncode:
        _say("the sums could not be warmed up; the messages above say why")
        return warmed.returncode
    process = subprocess.Popen(command, env=environment, preexec_fn=die_with_parent, start_new_session=True)

    def pass_on(_: int, __: FrameType | None) -> None:
        process.terminate()

    signal.signal(signal.SIGTERM, pass_on)
    signal.signal(signal.SIGINT, pass_on)
    address = f"http://{bind}"
    (folder / "address").write_text(address)
    _say("starting the web server")
    for _ in range(1200):
        if process.poll() is not None:
            _say("the web server stopped at once; its messages are above")
            return process.returncode or 1
        try:
            urllib.request.urlopen(f"{address}/api/session", timeout=5).close()  # noqa: S310 - our own address
            break
        except (urllib.error.URLError, OSError):
            time.sleep(0.1)
    _say(f"open {address}   (Ctrl-C stops it)")
    print(address, flush=True)
    while process.poll() is None:
        if server is not None and server.died():
            # A database killed under us is started again on its folder; InnoDB recovers what was acknowledged.
            _say("MariaDB stopped; starting it again")
            server.restart()
        time.sleep(0.2)
    (folder / "address").unlink(missing_ok=True)
    return 0 if process.returncode in (0, -signal.SIGTERM, -signal.SIGINT) else process.returncode


def _port() -> int:
    # The same address every time where it is free, so that a bookmark and the browser's drafts keep working.
    with socket.socket() as s:
        s.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            s.bind(("127.0.0.1", 8420))
        except OSError:
            return free_port()
    return 8420
