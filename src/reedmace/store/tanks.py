"""Tanks and their entries. Every query names the account, so another's rows are out of reach."""

from collections.abc import Iterator, Mapping, Sequence
from datetime import UTC, datetime, timedelta
from typing import Any, cast

import peewee

from reedmace.database import written_together
from reedmace.logbook.replay.entries import PLAN_KINDS, Entry, NewEntry, Reading, StoredReading
from reedmace.practice.record import Practice
from reedmace.store.current_plan import current_plan, filter_names
from reedmace.store.models import Account, EntryRow, Tank
from reedmace.store.quotas import ENTRIES_A_DAY, MOST_TANKS, too_many_entries, too_many_tanks
from reedmace.store.recent_entries import RARE, entry_of_row, recent_entries
from reedmace.store.removal import remove_for_good
from reedmace.store.roles import LOG, MANAGE, Role
from reedmace.store.tank_queries import (
    ArchivedTank,
    Aside,
    EntryFilter,
    NoSuchEntry,
    NoSuchTank,
    NotAllowed,
    PlanMoved,
    TankName,
)
from reedmace.store.whole_insert import insert_all
from reedmace.store.whole_logbook import each_entry, each_reading, readings_at, superseded_ids

PAGE = 200
DAY = timedelta(days=1)
KEPT_FOR = DAY
"""Time for which a removed tank can be restored."""


def _naive(at: datetime) -> datetime:
    return at.astimezone(UTC).replace(tzinfo=None)


def _over(now: datetime) -> peewee.Expression:
    """Tanks removed so long ago that they cannot be restored. now: aware time."""
    return (Tank.aside == "removed") & (Tank.aside_at < _naive(now) - KEPT_FOR)


class Tanks:
    """Queries on one account's tanks."""

    def __init__(self, database: peewee.Database, account_id: int, helps: Mapping[int, Role] | None = None) -> None:
        """helps: role in the households of others, by their account; empty for one's own tanks only."""
        self._database = database
        self._account_id = account_id
        self._helps = dict(helps or {})

    @property
    def _seen(self) -> peewee.Expression:
        """Tanks that may be looked at."""
        return Tank.account.in_([self._account_id, *self._helps])

    @property
    def _real(self) -> peewee.Expression:
        """Those that are no practice."""
        return self._seen & Tank.practice.is_null()

    def role(self, tank_id: int) -> Role | None:
        """This account's role for a tank; None where the tank is its own. Raises NoSuchTank."""
        owner = self._row(tank_id).account_id
        return None if owner == self._account_id else self._helps[owner]

    def allow_owner(self, tank_id: int) -> None:
        """Raise NotAllowed where a tank is another's, NoSuchTank where it is archived."""
        self._allow(tank_id, roles=())

    def allow_keeper(self, tank_id: int) -> None:
        """Raise NotAllowed where this role may not manage another's tank, NoSuchTank where it is archived."""
        self._allow(tank_id, roles=MANAGE)

    def _allow(self, tank_id: int, *, roles: tuple[Role, ...]) -> None:
        """Raise NotAllowed unless this account's role is among `roles` or it owns the tank."""
        role = self.role(tank_id)
        if role is not None and role not in roles:
            raise NotAllowed

    def all(self) -> list[TankName]:
        """Every tank in use, oldest first."""
        rows = Tank.select().where(self._real & Tank.aside.is_null()).order_by(Tank.id).bind(self._database)
        return [TankName(r.id, r.name, r.made_at.replace(tzinfo=UTC), r.account_id) for r in rows]

    def make(self, name: str, now: datetime) -> TankName:
        """A new tank. now: aware time. Raises OverQuota."""
        return self._make(name, now)

    def get(self, tank_id: int) -> TankName:
        """One tank. Raises NoSuchTank."""
        row = self._row(tank_id)
        return TankName(row.id, row.name, row.made_at.replace(tzinfo=UTC), row.account_id)

    def rename(self, tank_id: int, name: str) -> TankName:
        """Rename a tank. Raises NoSuchTank, NotAllowed."""
        self._allow(tank_id, roles=MANAGE)
        row = self._row(tank_id)
        Tank.update(name=name).where(Tank.id == row.id).bind(self._database).execute()
        return TankName(row.id, name, row.made_at.replace(tzinfo=UTC))

    def forget(self, tank_id: int) -> None:
        """Delete a tank and its logbook for good. Raises NoSuchTank, NotAllowed."""
        self._allow(tank_id, roles=())
        remove_for_good(self._database, self._row(tank_id).id)

    def archive(self, tank_id: int, how: Aside, now: datetime) -> None:
        """Archive or remove a tank; a removed one is deleted after a day. Raises NoSuchTank, NotAllowed."""
        self._allow(tank_id, roles=())
        row = self._row(tank_id)
        Tank.update(aside=how, aside_at=_naive(now)).where(Tank.id == row.id).bind(self._database).execute()

    def restore(self, tank_id: int, now: datetime) -> TankName:
        """Restore a tank. Raises NoSuchTank, also when its day has passed."""
        mine = Tank.select().where((Tank.id == tank_id) & (Tank.account == self._account_id) & ~_over(now))
        row = mine.bind(self._database).first()
        if row is None:
            raise NoSuchTank
        Tank.update(aside=None, aside_at=None).where(Tank.id == row.id).bind(self._database).execute()
        return TankName(row.id, row.name, row.made_at.replace(tzinfo=UTC))

    def aside(self, now: datetime) -> list[ArchivedTank]:
        """Archived and removed tanks, newest first, without those removed over a day ago. now: aware time."""
        own = (Tank.account == self._account_id) & Tank.practice.is_null()
        rows = Tank.select().where(own & Tank.aside.is_null(False) & ~_over(now))
        return [
            ArchivedTank(r.id, r.name, cast(Aside, r.aside), r.aside_at.replace(tzinfo=UTC))
            for r in rows.order_by(Tank.aside_at.desc()).bind(self._database)
            if r.aside_at is not None
        ]

    def entries(self, tank_id: int) -> list[Entry]:
        """Every entry of a tank in the order written. Raises NoSuchTank."""
        self._row(tank_id)
        rows = EntryRow.select().where(EntryRow.tank == tank_id).order_by(EntryRow.id).bind(self._database)
        return [entry_of_row(r) for r in rows]

    def each_entry(self, tank_id: int) -> Iterator[Entry | StoredReading]:
        """Every entry in the order written, read a piece at a time. Raises NoSuchTank at once."""
        self._row(tank_id)
        return each_entry(self._database, tank_id)

    def superseded_ids(self, tank_id: int) -> set[int]:
        """Ids of a tank's entries that later ones corrected or withdrew. Raises NoSuchTank."""
        self._row(tank_id)
        return superseded_ids(self._database, tank_id)

    def each_reading(self, tank_id: int) -> Iterator[tuple[datetime, Reading]]:
        """Every reading that counts and when it was made, read a piece at a time. Raises NoSuchTank at once."""
        self._row(tank_id)
        return each_reading(self._database, tank_id)

    def readings_at(self, tank_id: int, times: Sequence[datetime]) -> list[Entry]:
        """The readings that count and were made at one of some aware times. Raises NoSuchTank."""
        self._row(tank_id)
        return readings_at(self._database, tank_id, times)

    def is_written(self, tank_id: int, key: str) -> bool:
        """Whether an entry of this key is in a tank's logbook. Raises NoSuchTank."""
        self._row(tank_id)
        twin = (EntryRow.tank == tank_id) & (EntryRow.client_key == key)
        return bool(EntryRow.select().where(twin).bind(self._database).exists())

    def entries_of_all(self) -> dict[int, list[Entry]]:
        """Every entry of every tank in use, by tank id and in the order written, in one query."""
        found: dict[int, list[Entry]] = {}
        mine = Tank.select(Tank.id).where(self._real & Tank.aside.is_null())
        rows = EntryRow.select().where(EntryRow.tank.in_(mine)).order_by(EntryRow.id)
        for row in rows.bind(self._database):
            found.setdefault(row.tank_id, []).append(entry_of_row(row))
        return found

    def recent(self, tank_id: int) -> list[Entry]:
        """Entries that determine a tank's state, in the order written.

        All of them, but only the newest of the series that devices write by the thousand. Raises NoSuchTank.
        """
        self._row(tank_id)
        return recent_entries(self._database, [tank_id]).get(tank_id, [])

    def recent_of_all(self) -> dict[int, list[Entry]]:
        """The same of every tank, by tank id, with the same number of queries as for one."""
        mine = Tank.select(Tank.id).where(self._real & Tank.aside.is_null()).bind(self._database)
        return recent_entries(self._database, [row.id for row in mine])

    def writes(self, tank_id: int) -> int:
        """Number of writes to one tank's logbook. Raises NoSuchTank."""
        return int(self._row(tank_id).writes)

    def writes_of(self, tank_ids: Sequence[int]) -> dict[int, int]:
        """Number of writes to each tank, the cache key of its logbook. Another's are left out."""
        if not tank_ids:
            return {}
        rows = Tank.select(Tank.id, Tank.writes).where(self._real & Tank.id.in_(list(tank_ids)))
        return {r.id: r.writes for r in rows.bind(self._database)}

    def recent_of(self, tank_ids: Sequence[int]) -> dict[int, list[Entry]]:
        """The same of some tanks; another's are left out."""
        if not tank_ids:
            return {}
        mine = Tank.select(Tank.id).where(self._real & Tank.id.in_(list(tank_ids))).bind(self._database)
        return recent_entries(self._database, [row.id for row in mine])

    def page(
        self, tank_id: int, before: int | None, limit: int = PAGE, wanted: EntryFilter | None = None
    ) -> list[Entry]:
        """Newest entries first, `limit` at a time, with ids under `before`; only those wanted. Raises NoSuchTank."""
        self._row(tank_id)
        rows = EntryRow.select().where(EntryRow.tank == tank_id)
        wanted = wanted or EntryFilter()
        if wanted.kind is not None:
            rows = rows.where(EntryRow.kind == wanted.kind)
        if wanted.words is not None:
            # Case-insensitive; no character of the search is a pattern. Devices write no words, and too much to search.
            rows = rows.where(EntryRow.series.in_((RARE, "test")))
            rows = rows.where(peewee.fn.LOCATE(wanted.words.lower(), peewee.fn.LOWER(EntryRow.body)) > 0)
        if wanted.until is not None:
            rows = rows.where(EntryRow.at < _naive(wanted.until))
        if before is not None:
            rows = rows.where(EntryRow.id < before)
        found = list(rows.order_by(EntryRow.id.desc()).limit(limit).bind(self._database))
        hands = self._names({r.by_account for r in found if r.by_account is not None})
        return [entry_of_row(r).model_copy(update={"who": hands.get(r.by_account)}) for r in found]

    def _names(self, ids: set[int]) -> dict[int | None, str]:
        """Email addresses of authors, by account; a deleted account is named so."""
        if not ids:
            return {}
        rows = Account.select().where(Account.id.in_(ids)).bind(self._database)
        return {**dict.fromkeys(ids, "someone who has left"), **{r.id: r.email for r in rows}}

    def replacing(self, tank_id: int, ids: Sequence[int]) -> list[Entry]:
        """Entries that correct or withdraw one of these. Raises NoSuchTank."""
        self._row(tank_id)
        rows = EntryRow.select().where((EntryRow.tank == tank_id) & EntryRow.supersedes_id.in_(list(ids)))
        return [entry_of_row(r) for r in rows.order_by(EntryRow.id).bind(self._database)] if ids else []

    def add(self, tank_id: int, new: NewEntry, now: datetime) -> tuple[Entry, bool]:
        """Write an entry once; (entry, whether it was new). Raises NoSuchTank, NoSuchEntry, PlanMoved."""
        written = self.add_many(tank_id, [new], now)
        return written[0]

    def add_many(self, tank_id: int, news: Sequence[NewEntry], now: datetime) -> list[tuple[Entry, bool]]:
        """Write several entries or none. Raises as `add`, and NotAllowed, OverQuota."""
        self._allow(tank_id, roles=LOG if all(self._helpful(tank_id, n) for n in news) else MANAGE)

        def write() -> list[tuple[Entry, bool]]:
            # Updating the tank's row serializes writers: two tabs saving one plan conflict here, and of two nodes of a
            # cluster one is rejected, which a row lock alone would not do.
            mine = (Tank.id == tank_id) & self._seen
            if not Tank.update(writes=Tank.writes + 1).where(mine).bind(self._database).execute():
                raise NoSuchTank
            written = [self._write(tank_id, new, now) for new in news]
            if any(fresh for _, fresh in written):
                self._allow_as_many(tank_id, now)
            return written

        return written_together(self._database, write)

    def _allow_as_many(self, tank_id: int, now: datetime) -> None:
        """Raise OverQuota for too many entries in a day; the transaction is then rolled back."""
        rows = EntryRow.select(EntryRow.written_at).where(EntryRow.tank == tank_id).order_by(EntryRow.id.desc())
        # The newest of those that must have been written before today.
        first = rows.offset(ENTRIES_A_DAY).bind(self._database).first()
        if first is not None and first.written_at > _naive(now) - DAY:
            raise too_many_entries(int((first.written_at + DAY - _naive(now)).total_seconds()) + 1)

    def _helpful(self, tank_id: int, new: NewEntry) -> bool:
        """Whether a helper may write it: events, but no plan, and no correction of another's entry."""
        if new.body.kind in (*PLAN_KINDS, "situation"):
            return False
        if new.supersedes is None:
            return True
        own = (EntryRow.id == new.supersedes) & (EntryRow.tank == tank_id) & (EntryRow.by_account == self._account_id)
        return bool(EntryRow.select().where(own).bind(self._database).exists())

    def bring(self, name: str, entries: Sequence[Entry], now: datetime) -> TankName:
        """A new tank with a logbook from elsewhere, in its order.

        Superseding entries follow. All or nothing. Raises OverQuota.
        """
        with self._database.atomic():
            tank = self._make(name, now)
            insert_all(self._database, tank.id, entries, lambda e, of: self._columns(tank.id, e, now, of))
            return tank

    def bring_practice(self, name: str, entries: Sequence[Entry], now: datetime, practice: Practice) -> TankName:
        """The same for a practice tank, which counts for no quota of real ones. practice: its record."""
        values = {"account": self._account_id, "name": name, "made_at": _naive(now)}
        values["practice"] = practice.model_dump(mode="json")
        with self._database.atomic():
            tank = TankName(Tank.insert(values).bind(self._database).execute(), name, now)
            insert_all(self._database, tank.id, entries, lambda e, of: self._columns(tank.id, e, now, of))
            return tank

    def _write(self, tank_id: int, new: NewEntry, now: datetime) -> tuple[Entry, bool]:
        rows = EntryRow.select().where(EntryRow.tank == tank_id)
        twin = rows.where(EntryRow.client_key == new.key).bind(self._database).first()
        if twin is not None:
            return entry_of_row(twin), False
        if new.supersedes is not None and not rows.where(EntryRow.id == new.supersedes).bind(self._database).exists():
            raise NoSuchEntry
        if new.body.kind in PLAN_KINDS:
            current = current_plan(self._database, tank_id, new.body.kind)
            if (current.id if current else None) != new.based_on:
                raise PlanMoved(current, new, filter_names(self._database, tank_id))
        return self._insert(tank_id, new, now, new.supersedes), True

    def _insert(self, tank_id: int, new: NewEntry | Entry, now: datetime, supersedes: int | None) -> Entry:
        row_id = EntryRow.insert(self._columns(tank_id, new, now, supersedes)).bind(self._database).execute()
        at, written = new.at.astimezone(UTC), now.astimezone(UTC)
        return Entry(id=row_id, key=new.key, at=at, written_at=written, supersedes=supersedes, body=new.body)

    def _columns(self, tank_id: int, new: NewEntry | Entry, now: datetime, supersedes: int | None) -> dict[str, Any]:
        return {
            "tank": tank_id,
            "client_key": new.key,
            "kind": new.body.kind,
            "at": _naive(new.at),
            "written_at": _naive(now),
            "supersedes_id": supersedes,
            "by_account": self._account_id if self._helps and self.role(tank_id) is not None else None,
            "body": new.body.model_dump(mode="json"),
        }

    def _make(self, name: str, now: datetime) -> TankName:
        mine = (Tank.account == self._account_id) & Tank.practice.is_null()
        if Tank.select().where(mine).bind(self._database).count() >= MOST_TANKS:
            raise too_many_tanks()
        values = {"account": self._account_id, "name": name, "made_at": _naive(now)}
        return TankName(Tank.insert(values).bind(self._database).execute(), name, now)

    def _row(self, tank_id: int) -> Tank:
        # An archived tank can still be read and written; a removed one counts as deleted.
        mine = Tank.select().where(
            (Tank.id == tank_id) & self._seen & (Tank.aside.is_null() | (Tank.aside == "archived"))
        )
        # Nobody helps in another's practice.
        mine = mine.where(Tank.practice.is_null() | (Tank.account == self._account_id))
        row: Tank | None = mine.bind(self._database).first()
        if row is None:
            raise NoSuchTank
        return row
