"""The worker's rounds: look at what each account is owed, send what is due, delete what has had its time."""

import logging
from dataclasses import dataclass, field
from datetime import datetime, timedelta
from email.message import EmailMessage

import peewee

from reedmace.core.quantity import formatting
from reedmace.core.quantity.keeper_units import units_of_keeper
from reedmace.logbook.care.ahead import calendar_rows
from reedmace.logbook.replay.state import replay
from reedmace.notices.account_mail import account_mail
from reedmace.notices.choice import NoticeChoice
from reedmace.notices.due import PRESSING, Pressing, owed
from reedmace.notices.letter import Letter, at_once_letter, day_letter, week_letter
from reedmace.notices.links import Links
from reedmace.notices.message import account_message, address, letter_message
from reedmace.notices.smtp import MailServer, MailServerError
from reedmace.store import Households, Notice, Notices, SnapshotCache, Tanks, is_due, sweep
from reedmace.store.mail_addresses import MailAddress, mail_address
from reedmace.store.notices import FIRST_WAIT, LEASE

log = logging.getLogger("reedmace.worker")

CHECK_EVERY = timedelta(minutes=5)
"""How often each account's tanks are looked at."""
SWEEP_EVERY = timedelta(minutes=2)
TOO_LATE = timedelta(hours=20)
"""A day's list that could not be sent so long is dropped: the next is about to come."""


@dataclass
class Worker:
    """Everything a round needs. database: patient, as deletions take as long as there are rows."""

    database: peewee.Database
    links: Links
    mail: MailServer | None = None
    check_every: timedelta = CHECK_EVERY
    lease: timedelta = LEASE
    first_wait: timedelta = FIRST_WAIT
    cache: SnapshotCache = field(default_factory=SnapshotCache)
    handed_over: list[tuple[Notice, datetime]] = field(default_factory=list)
    """Sent, while the database was away to be told so."""

    def round(self, now: datetime) -> bool:
        """One round of everything; whether there was something to do. now: aware time."""
        busy = self.record_sent()
        if self.mail is not None:
            busy |= self.look(now)
            busy |= self.send(now)
        if is_due(self.database, "sweep", now, SWEEP_EVERY):
            busy |= bool(sweep(self.database, now))
        return busy

    def look(self, now: datetime) -> bool:
        """Queue what accounts are owed now; whether one was looked at. now: aware time."""
        notices = Notices(self.database)
        claimed = notices.claim_choices(now, self.check_every)
        for account_id in claimed:
            choice = self._choice(account_id)
            of = mail_address(self.database, account_id)
            if of is None or not choice.mail or not self._reaches(of):
                continue
            pressing = self._pressing(account_id, of, now)
            keys = {one.key for one in pressing}
            for key in notices.open_keys(account_id, PRESSING) - keys:
                notices.release(account_id, key)
            for one in owed(choice, pressing, now):
                notices.add(account_id, one.once_key, one.kind, now, due_at=one.due_at, tank_id=one.tank_id)
        return bool(claimed)

    def _pressing(self, account_id: int, of: MailAddress, now: datetime) -> list[Pressing]:
        mine = self._tanks(account_id)
        with formatting.in_units(units_of_keeper(of.units).chosen()):
            seen = self.cache.of(mine, mine.all(), now)
        return [Pressing(tank_id, one.view.harm) for tank_id, one in seen.items() if one.view.urgent]

    def send(self, now: datetime) -> bool:
        """Send what is due; whether there was something. now: aware time."""
        notices = Notices(self.database, self.lease, self.first_wait)
        claimed = notices.claim(now)
        for notice in claimed:
            of = mail_address(self.database, notice.account_id)
            message = None if of is None else self._message(notice, of, now)
            if of is None or message is None or self.mail is None:
                notices.end(notice, "dropped", now)
                continue
            to = str(notice.body.get("to") or of.email)
            try:
                self.mail.send(address(message, self.mail.sender, to, notice.id, now))
            except MailServerError as error:
                log.warning("notice %s was not sent: %s", notice.id, error)
                if error.for_good:
                    notices.end(notice, "dead", now, str(error))
                else:
                    notices.again(notice, now, str(error))
                continue
            # Told to the database at once, and again until it hears: a mail that went out must not go out twice.
            self.handed_over.append((notice, now))
            self.record_sent()
        return bool(claimed)

    def record_sent(self) -> bool:
        """Tell the database what was sent; whether there was something. Raises PeeweeException while it is away."""
        told = bool(self.handed_over)
        while self.handed_over:
            notice, at = self.handed_over[0]
            Notices(self.database).end(notice, "sent", at)
            self.handed_over.pop(0)
        return told

    def _message(self, notice: Notice, of: MailAddress, now: datetime) -> EmailMessage | None:
        """The mail of a notice as things stand now; None where there is nothing left to say."""
        if notice.kind not in ("at-once", "day", "week"):
            return account_message(account_mail(notice.kind, notice.body, of, self.links))
        choice = self._choice(notice.account_id)
        if not choice.mail or not self._reaches(of) or now - notice.due_at > TOO_LATE:
            return None
        units = units_of_keeper(of.units)
        with formatting.in_units(units.chosen()):
            letter = self._letter(notice, choice, now)
        if letter is None:
            return None
        return letter_message(letter, notice.account_id, self.links, comma=units.decimal == ",")

    def _letter(self, notice: Notice, choice: NoticeChoice, now: datetime) -> Letter | None:
        mine = self._tanks(notice.account_id)
        some = [t for t in mine.all() if notice.tank_id in (None, t.id)]
        seen = self.cache.of(mine, some, now)
        if notice.kind == "at-once":
            return at_once_letter(seen[some[0].id]) if some else None
        if notice.kind == "day":
            return day_letter(list(seen.values()), choice, now)
        entries = mine.recent_of([t.id for t in some])
        ahead = [(seen[t.id], calendar_rows(replay(entries.get(t.id, [])), now, again=True)) for t in some]
        return week_letter(ahead, choice, now)

    def _tanks(self, account_id: int) -> Tanks:
        helps = Households(self.database, account_id).helps()
        return Tanks(self.database, account_id, {one.account_id: one.role for one in helps})

    def _choice(self, account_id: int) -> NoticeChoice:
        return NoticeChoice.model_validate(Notices(self.database).choice(account_id) or {})

    def _reaches(self, of: MailAddress) -> bool:
        """Whether reminders may go to an address: it was confirmed, or all mail stays in the demo's own box."""
        return of.confirmed or (self.mail is not None and self.mail.standin)
