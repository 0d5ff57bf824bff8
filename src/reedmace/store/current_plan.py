"""Plans of a tank that nothing supersedes, as stored."""

import peewee

from reedmace.logbook.plans.plan_kinds import FilterPlan
from reedmace.logbook.replay.entries import Entry
from reedmace.store.models import EntryRow
from reedmace.store.recent_entries import entry_of_row


def current_plan(database: peewee.Database, tank_id: int, kind: str) -> Entry | None:
    """The plan of a kind that nothing supersedes; None before any."""
    later = EntryRow.alias()
    rows = (
        EntryRow.select()
        .where((EntryRow.tank == tank_id) & (EntryRow.kind == kind))
        .where(
            ~peewee.fn.EXISTS(
                later.select(peewee.SQL("1")).where((later.tank == tank_id) & (later.supersedes_id == EntryRow.id))
            )
        )
        .order_by(EntryRow.id.desc())
    )
    row = rows.bind(database).first()
    return entry_of_row(row) if row else None


def filter_names(database: peewee.Database, tank_id: int) -> dict[str, str]:
    """Names of the filters on a tank, by key."""
    plan = current_plan(database, tank_id, "filter-plan")
    if plan is None or not isinstance(plan.body, FilterPlan):
        return {}
    return {installed.key: installed.filter.name for installed in plan.body.filters}
