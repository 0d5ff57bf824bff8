"""A worker over a real database, with a mail server in the test itself."""

from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from datetime import UTC, datetime
from email.message import EmailMessage

import pytest

from reedmace.command.mariadb import MariaDB
from reedmace.database import connect
from reedmace.notices import Links, MailServer, MailServerError, Worker
from reedmace.store import Accounts, Tanks
from reedmace.store.models import Account
from reedmace.store.notice_models import NoticeChoiceRow, NoticeRow


@dataclass(frozen=True)
class Recorder(MailServer):
    """Keeps what is sent, and fails while `fails` holds reasons."""

    sent: list[EmailMessage] = field(default_factory=list)
    fails: list[MailServerError] = field(default_factory=list)

    def send(self, message: EmailMessage) -> None:
        """Keep a mail, or fail."""
        if self.fails:
            raise self.fails.pop(0)
        self.sent.append(message)


@pytest.fixture
def worker(mariadb: MariaDB) -> Iterator[Worker]:
    database = connect(mariadb.app_url)
    with database.connection_context():
        NoticeRow.delete().bind(database).execute()
        NoticeChoiceRow.delete().bind(database).execute()
        mail = Recorder("mail.example", 25, "notices@reedmace.example")
        yield Worker(database, Links("secret", "https://reedmace.example"), mail)
    database.close_all()


@pytest.fixture
def account(worker: Worker) -> Callable[..., int]:
    """A new account each time, its address confirmed."""
    made = iter(range(1, 1000))

    def make(*, confirmed: bool = True) -> int:
        now = datetime.now(UTC).replace(tzinfo=None)
        keeper = Accounts(worker.database).sign_up(
            f"n{next(made)}-{now.timestamp()}@yard.example", "reed and water", now
        )
        if confirmed:
            Account.update(confirmed_at=now).where(Account.id == keeper.id).bind(worker.database).execute()
        return keeper.id

    return make


@pytest.fixture
def tanks(worker: Worker) -> Callable[[int], Tanks]:
    return lambda account_id: Tanks(worker.database, account_id)
