"""notice-trial: mails are sent while the database, the mail server and the worker are killed at random.

Every notice must arrive, and none be seen twice. A mail server killed between taking a mail and saying so is sent it
again under the same Message-ID, which is one mail to whoever reads it; how often that came to pass is counted.
"""

import os
import random
import signal
import tempfile
import time
from collections import Counter
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path

import peewee

from reedmace.command.child_process import ChildProcess
from reedmace.command.free_port import free_port
from reedmace.command.mariadb import MariaDB
from reedmace.command.paths import say
from reedmace.database import connect
from reedmace.notices import queue
from reedmace.standins.mail_server import Mailbox
from reedmace.store import Accounts, Notices
from reedmace.store.models import Account

TARGETS = ("database", "mail server", "worker")
MAILS_A_KILL = 20
BEGUN_S, LOAD_S = 20.0, 0.2
"""Longest wait for the first of them to arrive, and for the kill after that, s: it hits in the midst of sending."""
PATIENCE_S = 2.0
"""Lease and first wait of the trial's worker, s: as long as usual, a trial would last for days."""
DIES_S, ALL_SENT_S = 60.0, 240.0
"""Longest wait for a killed database to be gone, and at the end for the last mail, s."""
ADDRESS = "trial@yard.example"


@dataclass
class NoticeOutcome:
    """Result of the trial: notices queued, those that never arrived, those seen twice, those sent again unseen."""

    queued: int = 0
    lost: int = 0
    seen_twice: int = 0
    sent_again: int = 0


def _patiently(database: peewee.Database, work: Callable[[], None]) -> None:
    """Do some work in a connection, again while the database is away; ALL_SENT_S at most."""
    until = time.monotonic() + ALL_SENT_S
    while True:
        try:
            with database.connection_context():
                return work()
        except peewee.PeeweeException:
            if time.monotonic() > until:
                raise
            time.sleep(0.2)


def run(folder: Path, kills: int, seed: int) -> NoticeOutcome:
    """Kill again and again; what became of the notices. folder: empty; seed: of targets and times."""
    draw, outcome, mails = random.Random(seed), NoticeOutcome(), folder / "mail"  # noqa: S311, no secret
    server = MariaDB(folder)
    server.start()
    port = free_port()
    environment = {
        **os.environ,
        "REEDMACE_DATABASE_URL": server.app_url,
        "REEDMACE_SECRET_KEY": "trial",
        "REEDMACE_SMTP": f"smtp+plain://127.0.0.1:{port}",
        "REEDMACE_MAIL_FROM": "notices@reedmace.example",
        "REEDMACE_NOTICE_PATIENCE_S": str(PATIENCE_S),
    }
    database = connect(server.app_url)
    # All of them: what the server throws away could not be told from what was lost.
    arguments = [str(port), str(mails), str(kills * MAILS_A_KILL)]
    children = {
        "mail server": ChildProcess("it", "reedmace.standins.mail_server", arguments, environment, lived_s=0.0),
        "worker": ChildProcess("it", "reedmace.command.worker", [], environment, lived_s=0.0),
    }
    try:
        account_id = _account(database)
        for n in range(kills):
            # Committed one at a time: what is counted was acknowledged.
            for _ in range(MAILS_A_KILL):
                _patiently(database, lambda: _queue(database, account_id))
                outcome.queued += 1
            _wait_for_first(Mailbox(mails), children)
            time.sleep(draw.uniform(0, LOAD_S))
            _kill(server, children, TARGETS[n % len(TARGETS)])
        _wait(database, children)
        return _judged(outcome, Mailbox(mails))
    finally:
        for child in children.values():
            child.stop()
        database.close_all()
        server.stop()


def _kill(server: MariaDB, children: dict[str, ChildProcess], target: str) -> None:
    """Kill a process and start it again. target: one of TARGETS."""
    if target != "database":
        os.kill(children[target].pid, signal.SIGKILL)
        children[target].restart_if_dead()
        return
    if server.process is None:
        raise RuntimeError("the database was never started")
    server.process.kill()
    # On a busy machine a killed server takes its time to go: looked at too early, it would never be started again.
    server.process.wait(DIES_S)
    server.restart()


def _account(database: peewee.Database) -> int:
    now = datetime.now(UTC).replace(tzinfo=None)
    with database.connection_context():
        made = Accounts(database).sign_up(ADDRESS, "reed and water", now)
        Account.update(confirmed_at=now).where(Account.id == made.id).bind(database).execute()
    return made.id


def _queue(database: peewee.Database, account_id: int) -> None:
    queue(Notices(database), "told", account_id, datetime.now(UTC), text="Something changed.")


def _wait_for_first(mailbox: Mailbox, children: dict[str, ChildProcess]) -> None:
    """Wait until one more mail has arrived, or a while."""
    before, until = len(mailbox.arrivals()), time.monotonic() + BEGUN_S
    while len(mailbox.arrivals()) == before and time.monotonic() < until:
        for child in children.values():
            child.restart_if_dead()
        time.sleep(0.01)


def _wait(database: peewee.Database, children: dict[str, ChildProcess]) -> None:
    """Wait until nothing is waiting any more, or too long."""
    until = time.monotonic() + ALL_SENT_S
    waiting = [1]

    def look() -> None:
        waiting[0] = Notices(database).counts().get("waiting", 0)

    while waiting[0] and time.monotonic() < until:
        for child in children.values():
            child.restart_if_dead()
        _patiently(database, look)
        time.sleep(0.3)


def _judged(outcome: NoticeOutcome, mailbox: Mailbox) -> NoticeOutcome:
    seen = Counter(mail.headers["Message-ID"] for mail in mailbox.of(ADDRESS))
    outcome.lost = outcome.queued - len(seen)
    outcome.seen_twice = sum(times - 1 for times in seen.values())
    outcome.sent_again = len(mailbox.arrivals()) - len(set(mailbox.arrivals()))
    return outcome


def notice_trial(kills: int) -> int:
    """Run the trial and print what became of the notices. kills: in all."""
    with tempfile.TemporaryDirectory(prefix="reedmace-notices-") as folder:
        outcome = run(Path(folder), kills, seed=11)
    say(f"{kills} kills of {', '.join(TARGETS)} in turn: {outcome.queued} notices queued, {outcome.lost} lost,")
    say(f"{outcome.seen_twice} seen twice, {outcome.sent_again} sent again under the same id")
    return 1 if outcome.lost or outcome.seen_twice else 0
