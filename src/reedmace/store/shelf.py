"""The shelf of one account: boxes seen or owned. Every query names the account, so another's rows are out of reach."""

import hashlib
import json
import secrets
from collections.abc import Sequence
from datetime import UTC, datetime

import peewee

from reedmace.core.filter.shelf_box import PREFIX, ShelfBox, ShelfItem
from reedmace.logbook.plans.plan_kinds import FilterPlan
from reedmace.store.models import EntryRow, ShelfBoxRow, ShelfLink, Tank
from reedmace.store.quotas import MOST_BOXES, too_many_boxes


class NoSuchBox(LookupError):
    """No box of that number on this shelf."""


def _hash(token: str) -> str:
    return hashlib.sha256(f"shelf {token}".encode()).hexdigest()


class Shelf:
    """Queries on one account's shelf."""

    def __init__(self, database: peewee.Database, account_id: int) -> None:
        self._database = database
        self._account_id = account_id

    def all(self) -> list[ShelfItem]:
        """Every box, oldest first."""
        rows = ShelfBoxRow.select().where(ShelfBoxRow.account == self._account_id).order_by(ShelfBoxRow.id)
        return [ShelfItem(id=r.id, box=ShelfBox.model_validate(r.body)) for r in rows.bind(self._database)]

    def boxes_on_tanks(self) -> list[tuple[str, FilterPlan]]:
        """Name and filter plan of each tank whose latest plan holds a box of a shelf."""
        place = peewee.fn.ROW_NUMBER().over(
            partition_by=[EntryRow.tank], order_by=[EntryRow.at.desc(), EntryRow.id.desc()]
        )
        real = (Tank.account == self._account_id) & Tank.practice.is_null() & Tank.aside.is_null()
        plans = (
            EntryRow.select(EntryRow.body, Tank.name, place.alias("place"))
            .join(Tank)
            .where(real & (EntryRow.kind == "filter-plan"))
            .alias("plans")
        )
        latest = (
            peewee.Select([plans], [plans.c.name, plans.c.body])
            .where((plans.c.place == 1) & (peewee.fn.LOCATE(f'"{PREFIX}', plans.c.body) > 0))
            .bind(self._database)
        )
        return [(row["name"], FilterPlan.model_validate(json.loads(row["body"]))) for row in latest]

    def put(self, boxes: Sequence[tuple[str, ShelfBox]], now: datetime) -> list[ShelfItem]:
        """Put boxes on the shelf, all or none; one whose key is there already is left as it is. Raises OverQuota.

        boxes: each with its client's key; now: aware time.
        """
        at = now.astimezone(UTC).replace(tzinfo=None)
        keys = [key for key, _ in boxes]
        with self._database.atomic():
            there = {row.client_key: row for row in self._rows(keys)}
            news = [(key, box) for key, box in boxes if key not in there]
            count = ShelfBoxRow.select().where(ShelfBoxRow.account == self._account_id).bind(self._database).count()
            if count + len(news) > MOST_BOXES:
                raise too_many_boxes()
            if news:
                values = [
                    {"account": self._account_id, "client_key": key, "body": box.model_dump(mode="json"), "made_at": at}
                    for key, box in news
                ]
                # A repeated send may race with the first: the key decides, not the moment.
                ShelfBoxRow.insert_many(values).on_conflict_ignore().bind(self._database).execute()
            by_key = {row.client_key: row for row in self._rows(keys)}
        return [ShelfItem(id=by_key[k].id, box=ShelfBox.model_validate(by_key[k].body)) for k in keys]

    def save(self, box_id: int, box: ShelfBox) -> ShelfItem:
        """Replace what is written of a box. Raises NoSuchBox."""
        self._row(box_id)
        changed = ShelfBoxRow.update(body=box.model_dump(mode="json")).where(self._mine(box_id))
        changed.bind(self._database).execute()
        return ShelfItem(id=box_id, box=box)

    def remove(self, box_id: int) -> None:
        """Take a box off the shelf; tanks that hold it keep its figures. Raises NoSuchBox."""
        self._row(box_id)
        ShelfBoxRow.delete().where(self._mine(box_id)).bind(self._database).execute()

    def make_link(self, now: datetime) -> str:
        """A new link that shows this shelf; an older one stops working."""
        token = secrets.token_urlsafe(24)
        with self._database.atomic():
            self.end_link()
            new = ShelfLink.insert(
                account=self._account_id, token_hash=_hash(token), made_at=now.astimezone(UTC).replace(tzinfo=None)
            )
            new.bind(self._database).execute()
        return token

    def link_since(self) -> datetime | None:
        """When the link was made; None without one."""
        row = ShelfLink.select().where(ShelfLink.account == self._account_id).bind(self._database).first()
        return None if row is None else row.made_at.replace(tzinfo=UTC)

    def end_link(self) -> None:
        """Revoke the link."""
        ShelfLink.delete().where(ShelfLink.account == self._account_id).bind(self._database).execute()

    def _mine(self, box_id: int) -> peewee.Expression:
        return (ShelfBoxRow.id == box_id) & (ShelfBoxRow.account == self._account_id)

    def _row(self, box_id: int) -> ShelfBoxRow:
        row: ShelfBoxRow | None = ShelfBoxRow.select().where(self._mine(box_id)).bind(self._database).first()
        if row is None:
            raise NoSuchBox
        return row

    def _rows(self, keys: Sequence[str]) -> list[ShelfBoxRow]:
        mine = (ShelfBoxRow.account == self._account_id) & ShelfBoxRow.client_key.in_(list(keys))
        return list(ShelfBoxRow.select().where(mine).bind(self._database))


def shown_shelf(database: peewee.Database, token: str) -> Shelf | None:
    """The shelf of a link; None where it was revoked."""
    row = ShelfLink.select().where(ShelfLink.token_hash == _hash(token)).bind(database).first()
    return None if row is None else Shelf(database, row.account_id)
