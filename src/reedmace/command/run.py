"""demo and serve: MariaDB, migrations, web workers, and a clean stop of all of them."""

import fcntl
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path
from types import FrameType
from typing import Any

from reedmace.api.application import new_secret
from reedmace.command.accounts import WEB_ACCOUNT, RunAs, run_as
from reedmace.command.compiled import stands
from reedmace.command.mariadb import MariaDB, die_with_parent, free_port, write_whole
from reedmace.demo import write_demo
from reedmace.store import MIGRATE_S, connect, migrate

USUAL_PORT = 8420
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
    try:
        folder.mkdir(parents=True, exist_ok=True)
        (folder / "lock").touch()
    except OSError as error:
        _say(f"cannot write in {folder}: {error.strerror}. Make it writable, or name another folder in REEDMACE_VAR.")
        return 1
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
                migrate(connect(os.environ.get("REEDMACE_MIGRATE_URL", outside), MIGRATE_S))
            else:
                _say("starting MariaDB on 127.0.0.1")
                server = MariaDB(folder)
                server.start()
                url = server.app_url
            if with_demo:
                database = connect(url, MIGRATE_S)
                with database.connection_context():
                    if write_demo(database, fresh=fresh):
                        _say("wrote the demo tanks")
            return _web(folder, url, server, with_demo=with_demo)
        except (RuntimeError, ValueError) as error:
            _say(str(error))
            return 1
        except OSError as error:
            # A disk that filled, a folder that turned read-only: what was acknowledged is safe in MariaDB.
            _say(f"cannot go on: {error}. Nothing acknowledged is lost; free or mend it, and start again.")
            return 1
        finally:
            if server:
                _say("stopping MariaDB")
                server.stop()


def _secret(folder: Path) -> str:
    path = folder / "secret"
    kept = path.read_text().strip() if path.exists() else ""
    if len(kept) < SHORTEST_SECRET:
        if path.exists():
            _say("the secret that signs cookies was empty or cut short: a new one is made, and everyone signs in again")
        kept = new_secret()
        write_whole(path, kept)
    return kept


SHORTEST_SECRET = 16


class Workers:
    """The web workers on one listening socket: started, started anew when one dies, stopped."""

    def __init__(
        self, listener: socket.socket, environment: dict[str, str], count: int, account: dict[str, Any] | None = None
    ) -> None:
        self._listener, self._environment, self._account = listener, environment, account or {}
        self._all = [self._start() for _ in range(count)]
        self._fast_deaths = 0

    def _start(self) -> tuple[subprocess.Popen[bytes], float]:
        handle = self._listener.fileno()
        command = [sys.executable, "-m", "reedmace.command.web", str(handle)]
        process = subprocess.Popen(
            command,
            env=self._environment,
            pass_fds=(handle,),
            preexec_fn=die_with_parent,
            start_new_session=True,
            **self._account,
        )
        return process, time.monotonic()

    def mend(self) -> bool:
        """Start those anew that have died; False when they die as fast as they are started."""
        for i, (process, begun) in enumerate(self._all):
            if process.poll() is None:
                continue
            self._fast_deaths = self._fast_deaths + 1 if time.monotonic() - begun < SHORT_LIFE_S else 0
            if self._fast_deaths > MOST_FAST_DEATHS:
                return False
            self._all[i] = self._start()
        return True

    def stop(self) -> None:
        """Let each finish what it answers, and wait; one that does not is killed."""
        for process, _ in self._all:
            process.terminate()
        end = time.monotonic() + STOP_S
        for process, _ in self._all:
            try:
                process.wait(max(end - time.monotonic(), 0.1))
            except subprocess.TimeoutExpired:
                process.kill()
                process.wait(5)


SHORT_LIFE_S, MOST_FAST_DEATHS, STOP_S = 5.0, 6, 12.0


def _web(folder: Path, url: str, server: MariaDB | None, *, with_demo: bool) -> int:
    listener = _listener(folder)
    if listener is None:
        return 1
    host, port = listener.getsockname()[:2]
    address = f"http://{host}:{port}"
    environment = {
        **os.environ,
        "REEDMACE_DATABASE_URL": url,
        "REEDMACE_SECRET_KEY": os.environ.get("REEDMACE_SECRET_KEY") or _secret(folder),
        "REEDMACE_DEMO": "1" if with_demo else "0",
        "REEDMACE_FRONT_END": os.environ.get("REEDMACE_FRONT_END", str(ROOT / "frontend" / "dist")),
    }
    account = _account(folder, environment)
    if environment.get("REEDMACE_METRICS") == "1":
        environment["PROMETHEUS_MULTIPROC_DIR"] = _counts(folder, account)
    environment.setdefault("NUMBA_CACHE_DIR", str(VAR / "numba"))
    if not stands(Path(environment["NUMBA_CACHE_DIR"])):
        _say("compiling the sums, which takes a minute or so the first time")
        # Once, in one process: workers that all find an empty cache would compile the same thing side by side.
        warmed = subprocess.run([sys.executable, "-m", "reedmace.command.warm"], env=environment, **account)
        if warmed.returncode:
            _say("the sums could not be compiled; the messages above say why")
            return warmed.returncode
    stopping: list[int] = []

    def pass_on(number: int, _: FrameType | None) -> None:
        stopping.append(number)

    signal.signal(signal.SIGTERM, pass_on)
    signal.signal(signal.SIGINT, pass_on)
    _say("starting the web server")
    workers = Workers(
        listener, environment, int(os.environ.get("REEDMACE_WORKERS") or min((os.cpu_count() or 1) + 1, 9)), account
    )
    (folder / "address").write_text(address)
    said = False
    try:
        while not stopping:
            if not workers.mend():
                _say("the web server stopped again and again; its messages are above")
                return 1
            if server is not None and server.died():
                # A database killed under us is started again on its folder; InnoDB recovers what was acknowledged.
                _say("MariaDB stopped; starting it again")
                server.restart()
            if not said and _answers(address):
                said = True
                _say(f"open {address}   (Ctrl-C stops it)")
                print(address, flush=True)
            time.sleep(0.1)
    finally:
        workers.stop()
        listener.close()
        (folder / "address").unlink(missing_ok=True)
    return 0


def _account(folder: Path, environment: dict[str, str]) -> dict[str, Any]:
    """What runs the web workers under an account of little power, where root starts them. Points `environment` at sums of its own.

    Compiled sums are code: root must not load any that another may write. Root's are handed down, never taken back.
    """
    python = Path(sys.executable)
    needs = [folder, python.parent, python, ROOT / "src" / "reedmace", Path(environment["REEDMACE_FRONT_END"])]
    account = run_as(WEB_ACCOUNT, needs)
    if account is None:
        if os.geteuid() == 0:
            _say(
                f"the web server runs as root: the account {WEB_ACCOUNT} cannot enter {folder}, the program's folder or Python's"
            )
        return {}
    _hand_down(Path(environment.get("NUMBA_CACHE_DIR", VAR / "numba")), folder / "sums", account)
    environment |= {"NUMBA_CACHE_DIR": str(folder / "sums"), "HOME": str(folder / "sums")}
    return {"user": account.uid, "group": account.gid, "extra_groups": []}


def _hand_down(mine: Path, theirs: Path, account: RunAs) -> None:
    """Copy compiled sums that are newer than theirs. mine, theirs: folders of sums; account: whose the second is.

    It copies them itself: what it may write, root must not write into.
    """
    theirs.mkdir(exist_ok=True)
    os.chown(theirs, account.uid, account.gid)
    if mine.is_dir():
        copy = ["cp", "--recursive", "--update", "--preserve=timestamps", f"{mine.resolve()}/.", str(theirs.resolve())]
        # What cannot be copied is compiled anew.
        subprocess.run(copy, user=account.uid, group=account.gid, extra_groups=[], cwd="/", stderr=subprocess.DEVNULL)


def _counts(folder: Path, account: dict[str, Any]) -> str:
    """A folder in which the workers lay their counts together, empty at every start; theirs where they run as another."""
    counts = folder / "metrics"
    shutil.rmtree(counts, ignore_errors=True)
    counts.mkdir()
    if account:
        os.chown(counts, account["user"], account["group"])
    return str(counts)


def _answers(address: str) -> bool:
    try:
        urllib.request.urlopen(f"{address}/api/session", timeout=5).close()  # noqa: S310 - our own address
    except (urllib.error.URLError, OSError):
        return False
    return True


def _listener(folder: Path) -> socket.socket | None:
    """A socket on the address asked for, or the usual one, or any that is free; None, and a line said, when it is taken."""
    asked = os.environ.get("REEDMACE_BIND")
    host, _, port = (asked or f"127.0.0.1:{USUAL_PORT}").rpartition(":")
    # Workers of a launcher that was killed are on their way out: wait for their port rather than move.
    until = time.monotonic() + (10.0 if asked or (folder / "address").exists() else 0.0)
    while True:
        try:
            return bound(host, int(port))
        except (OSError, ValueError, OverflowError) as error:
            if time.monotonic() < until and isinstance(error, OSError):
                time.sleep(0.1)
                continue
            if asked is None:
                # The same address every time where it is free, so that a bookmark and the browser's drafts keep working.
                return bound(host, free_port())
            _say(f"cannot listen on {asked}: {error}. Give another REEDMACE_BIND, or stop what listens there.")
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
