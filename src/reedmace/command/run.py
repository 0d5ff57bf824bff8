"""The verbs demo and serve: MariaDB, migrations, the web server, and a clean stop."""

import fcntl
import os
import secrets
import shutil
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path
from types import FrameType
from typing import Any

from reedmace.command.child_process import ChildProcess
from reedmace.command.free_port import free_port
from reedmace.command.kernel_cache import is_current
from reedmace.command.mariadb import MariaDB, write_whole
from reedmace.command.paths import ROOT, VAR, say
from reedmace.command.run_as import WEB_ACCOUNT, RunAs, run_as
from reedmace.command.web_process import WebServer, listen


def demo(*, fresh: bool) -> int:
    """Start with the demo tanks, in a data folder of their own."""
    return _run(VAR / "demo", with_demo=True, fresh=fresh)


def serve() -> int:
    """Start without demo data."""
    return _run(VAR / "serve", with_demo=False, fresh=False)


def _run(folder: Path, *, with_demo: bool, fresh: bool) -> int:
    try:
        folder.mkdir(parents=True, exist_ok=True)
        (folder / "lock").touch()
    except OSError as error:
        say(f"cannot write in {folder}: {error.strerror}. Make it writable, or name another folder in REEDMACE_VAR.")
        return 1
    with (folder / "lock").open("w") as lock:
        try:
            fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            address = (folder / "address").read_text() if (folder / "address").exists() else "unknown"
            say(f"already running on this data folder, at {address}")
            return 1
        server = None
        try:
            if os.environ.get("REEDMACE_DATABASE_URL"):
                say("using the database of REEDMACE_DATABASE_URL")
            else:
                say("starting MariaDB on 127.0.0.1")
                server = MariaDB(folder)
                server.begin()
            return _web(folder, server, with_demo=with_demo, fresh=fresh)
        except (RuntimeError, ValueError) as error:
            say(str(error))
            return 1
        except OSError as error:
            # A full disk or a read-only folder: what was acknowledged is safe in MariaDB.
            say(f"cannot go on: {error}. Nothing acknowledged is lost; free or mend it, and start again.")
            return 1
        finally:
            if server:
                say("stopping MariaDB")
                server.stop()


def _secret(folder: Path) -> str:
    path = folder / "secret"
    kept = path.read_text().strip() if path.exists() else ""
    if len(kept) < SHORTEST_SECRET:
        if path.exists():
            say("the secret that signs cookies was empty or cut short: a new one is made, and everyone signs in again")
        kept = secrets.token_hex(32)
        write_whole(path, kept)
    return kept


SHORTEST_SECRET = 16


def _web(folder: Path, server: MariaDB | None, *, with_demo: bool, fresh: bool) -> int:
    listener = listen(folder)
    if listener is None:
        return 1
    host, port = listener.getsockname()[:2]
    address = f"http://{host}:{port}"
    url = server.app_url if server else os.environ["REEDMACE_DATABASE_URL"]
    environment = {
        **os.environ,
        "REEDMACE_DATABASE_URL": url,
        "REEDMACE_SECRET_KEY": os.environ.get("REEDMACE_SECRET_KEY") or _secret(folder),
        "REEDMACE_DEMO": "1" if with_demo else "0",
        "REEDMACE_FRONT_END": os.environ.get("REEDMACE_FRONT_END", str(ROOT / "frontend" / "dist")),
    }
    environment.setdefault("NUMBA_CACHE_DIR", str(VAR / "numba"))
    environment.setdefault("REEDMACE_PUBLIC_URL", address)
    account = _account(folder, environment)
    children: list[ChildProcess] = []
    if with_demo and not environment.get("REEDMACE_SMTP"):
        children.append(_mail_standin(folder, environment, account))
    if environment.get("REEDMACE_METRICS") == "1":
        environment["PROMETHEUS_MULTIPROC_DIR"] = _counts(folder, account)
    stopping: list[int] = []

    def pass_on(number: int, _: FrameType | None) -> None:
        stopping.append(number)

    web = None
    try:
        if not is_current(Path(environment["NUMBA_CACHE_DIR"])):
            say("compiling the sums, which takes a minute or so the first time")
            # Once, in one process: workers with an empty cache would each compile the same kernels.
            warmed = subprocess.run([sys.executable, "-m", "reedmace.command.warm_kernels"], env=environment, **account)
            if warmed.returncode:
                say("the sums could not be compiled; the messages above say why")
                return warmed.returncode
        say("starting the web server")
        count = int(os.environ.get("REEDMACE_WORKERS") or min((os.cpu_count() or 1) + 1, 9))
        # It imports the program while the database starts and its tables are migrated.
        web = WebServer(listener, environment, count, account)
        _tables(server, url)
        web.go(("fresh demo" if fresh else "demo") if with_demo else "go")
        signal.signal(signal.SIGTERM, pass_on)
        signal.signal(signal.SIGINT, pass_on)
        (folder / "address").write_text(address)
        return _watch(web, children, server, address, stopping)
    finally:
        for child in children:
            child.stop()
        if web:
            web.stop()
        listener.close()
        (folder / "address").unlink(missing_ok=True)


def _mail_standin(folder: Path, environment: dict[str, str], account: dict[str, Any]) -> ChildProcess:
    """The demo's simulated mail server, which `environment` then names; everything it takes stays in `folder`."""
    mails = folder / "mail"
    mails.mkdir(exist_ok=True)
    if account:
        os.chown(mails, account["user"], account["group"])
    port = free_port()
    environment |= {
        "REEDMACE_SMTP": f"smtp+plain://127.0.0.1:{port}",
        "REEDMACE_MAIL_FROM": "notices@reedmace.example",
        "REEDMACE_MAIL_FOLDER": str(mails),
    }
    # The demo is looked at for minutes: what is due arrives while somebody watches.
    environment.setdefault("REEDMACE_NOTICE_S", "20")
    arguments = [str(port), str(mails)]
    return ChildProcess("the simulated mail server", "reedmace.standins.mail_server", arguments, environment, account)


def _watch(
    web: WebServer, children: list[ChildProcess], server: MariaDB | None, address: str, stopping: list[int]
) -> int:
    """Report when it answers, and restart what dies, until `stopping` holds a signal; the exit code."""
    said = False
    while not stopping:
        if not web.restart_if_dead():
            say("the web server stopped again and again; its messages are above")
            return 1
        for child in children:
            child.restart_if_dead()
        if server is not None and server.died():
            # A killed database is restarted on its folder; InnoDB recovers what was acknowledged.
            say("MariaDB stopped; starting it again")
            server.restart()
        if not said and _answers(address):
            said = True
            say(f"open {address}   (Ctrl-C stops it)")
            print(address, flush=True)
        time.sleep(0.1)
    return 0


def _tables(server: MariaDB | None, url: str) -> None:
    """Wait for the database and migrate its tables. url: for the application."""
    from reedmace.database import MIGRATE_S, connect, migrate

    if server:
        server.make_ready()
    else:
        migrate(connect(os.environ.get("REEDMACE_MIGRATE_URL", url), MIGRATE_S))


def _account(folder: Path, environment: dict[str, str]) -> dict[str, Any]:
    """The unprivileged account of the web workers, where root starts them.

    Points `environment` at its own kernel cache.

    Compiled sums are code: root must not load any that another may write. Root's are handed down, never taken back.
    """
    python = Path(sys.executable)
    needs = [folder, python.parent, python, ROOT / "src" / "reedmace", Path(environment["REEDMACE_FRONT_END"])]
    account = run_as(WEB_ACCOUNT, needs)
    if account is None:
        if os.geteuid() == 0:
            say(
                f"the web server runs as root: the account {WEB_ACCOUNT} cannot enter {folder}, the program's folder or"
                " Python's"
            )
        return {}
    _hand_down(Path(environment["NUMBA_CACHE_DIR"]), folder / "sums", account)
    environment |= {"NUMBA_CACHE_DIR": str(folder / "sums"), "HOME": str(folder / "sums")}
    return {"user": account.uid, "group": account.gid, "extra_groups": []}


def _hand_down(mine: Path, theirs: Path, account: RunAs) -> None:
    """Copy compiled kernels that are newer, or all where theirs are of another source.

    mine, theirs: cache folders; account: owner of the second.

    It copies them itself: what it may write, root must not write into.
    """
    theirs.mkdir(exist_ok=True)
    os.chown(theirs, account.uid, account.gid)
    if mine.is_dir():
        newer = ["--update"] if is_current(theirs) else []
        copy = ["cp", "--recursive", *newer, "--preserve=timestamps", f"{mine.resolve()}/.", str(theirs.resolve())]
        # What cannot be copied is compiled again.
        subprocess.run(copy, user=account.uid, group=account.gid, extra_groups=[], cwd="/", stderr=subprocess.DEVNULL)


def _counts(folder: Path, account: dict[str, Any]) -> str:
    """A folder for the workers' shared counters, empty at every start; owned by their account."""
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
