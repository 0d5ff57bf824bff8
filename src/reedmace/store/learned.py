"""What this installation's keepers taught about typical boxes: learned once a day, the same for every process."""

from collections.abc import Iterator
from datetime import UTC, datetime, timedelta
from typing import Any

import peewee
from pydantic import ValidationError

from reedmace.core.filter.learned import PRINTED, LearnedRelation, TimedRatio, TypedBox, learn
from reedmace.core.flow.bucket_test import bucket_lph
from reedmace.logbook.upcast import FIRST
from reedmace.store.keepers import GUEST, VISITOR
from reedmace.store.models import Account, EntryRow, LearnedRow, ShelfBoxRow, Tank

LEARNED_EVERY = timedelta(days=1)
MOST_READ = 5000
"""Boxes, and flows, that are read at most, the newest."""
_ONLY = 1
"""Id of the table's one row."""


def learned_boxes(database: peewee.Database, now: datetime) -> list[LearnedRelation]:
    """The relations learned here, renewed after a day by whoever asks first. now: aware time."""
    at = now.astimezone(UTC).replace(tzinfo=None)
    row = LearnedRow.select().where(LearnedRow.id == _ONLY).bind(database).first()
    if row is None or row.made_at < at - LEARNED_EVERY:
        if not _claimed(database, row, at):
            return _read(row)
        found = learn(_boxes(database), _flows(database))
        body = [one.model_dump(mode="json") for one in found]
        LearnedRow.update(body=body).where(LearnedRow.id == _ONLY).bind(database).execute()
        return found
    return _read(row)


def _read(row: LearnedRow | None) -> list[LearnedRelation]:
    """What a row holds; nothing where another version wrote it, until it is learned anew."""
    try:
        return [] if row is None else [LearnedRelation.model_validate(one) for one in row.body]
    except ValidationError:
        return []


def contributes(database: peewee.Database, account_id: int) -> bool:
    """Whether an account's boxes and timed flows count when typical boxes are learned. account_id: of it."""
    row = Account.select(Account.contributes).where(Account.id == account_id).bind(database).first()
    return row is not None and bool(row.contributes)


def set_contributes(database: peewee.Database, account_id: int, *, may: bool) -> None:
    """Choose whether an account's boxes and flows count. account_id: of it; may: whether."""
    Account.update(contributes=may).where(Account.id == account_id).bind(database).execute()


def _claimed(database: peewee.Database, row: LearnedRow | None, at: datetime) -> bool:
    """Whether this process learns anew: of several that ask at once, one does. at: UTC without zone."""
    if row is None:
        made = LearnedRow.insert(id=_ONLY, body=[], made_at=at).on_conflict_ignore().bind(database)
        return bool(made.execute() is not None and _is_of(database, at))
    moved = LearnedRow.update(made_at=at).where((LearnedRow.id == _ONLY) & (LearnedRow.made_at == row.made_at))
    return bool(moved.bind(database).execute())


def _is_of(database: peewee.Database, at: datetime) -> bool:
    row = LearnedRow.select().where(LearnedRow.id == _ONLY).bind(database).first()
    return row is not None and bool(row.made_at == at)


def _contributing() -> Any:
    """Accounts that take part: neither guests nor visits, nor who opted out."""
    nobodys = Account.email.startswith(GUEST) | Account.email.startswith(VISITOR)
    return Account.contributes & ~nobodys


def _boxes(database: peewee.Database) -> Iterator[TypedBox]:
    """Boxes typed with their kind, newest first."""
    rows = (
        ShelfBoxRow.select(ShelfBoxRow, Account)
        .join(Account)
        .where(_contributing())
        .order_by(ShelfBoxRow.id.desc())
        .limit(MOST_READ)
        .bind(database)
    )
    for row in rows:
        label = row.body["label"]
        if label.get("kind") and label.get("box_lph"):
            figures = tuple((name, float(label[name])) for name in PRINTED if label.get(name))
            yield TypedBox(keeper=row.account.id, kind=label["kind"], box_lph=float(label["box_lph"]), figures=figures)


def _flows(database: peewee.Database) -> Iterator[TimedRatio]:
    """Flows timed with the one computed that day, newest first."""
    rows = (
        EntryRow.select(EntryRow, Tank, Account)
        .join(Tank)
        .join(Account)
        .where(EntryRow.kind.in_(["flow-test", "timed-flow"]) & _contributing() & Tank.practice.is_null())
        .order_by(EntryRow.written_at.desc())
        .limit(MOST_READ)
        .bind(database)
    )
    kinds: dict[int, dict[str, str]] = {}
    for row in rows:
        if row.tank.id not in kinds:
            kinds[row.tank.id] = _kinds_on(database, row.tank.id)
        body = row.body
        computed, kind = body.get("computed_lph"), kinds[row.tank.id].get(body.get("filter_key", FIRST))
        measured = body.get("measured_lph") or ("times_s" in body and bucket_lph(body["container_l"], body["times_s"]))
        if kind is not None and computed and measured:
            yield TimedRatio(keeper=row.tank.account.id, kind=kind, ratio=float(measured) / float(computed))


def _kinds_on(database: peewee.Database, tank_id: int) -> dict[str, str]:
    """Kinds of the filters of a tank's newest plan, by key."""
    newest = (
        EntryRow.select()
        .where((EntryRow.tank == tank_id) & (EntryRow.kind == "filter-plan"))
        .order_by(EntryRow.id.desc())
        .bind(database)
        .first()
    )
    return {} if newest is None else {one["key"]: one["filter"]["kind"] for one in newest.body.get("filters", [])}
