"""Tanks, boxes and plans that tests of fitting share."""

from datetime import UTC, datetime, timedelta

from reedmace.core.filter.kinds import BY_NAME
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import replay

BY_ID = {f.id: f for f in SAMPLE_BOXES}


KINDS = tuple(BY_NAME)


ONE = {kind: next(f for f in SAMPLE_BOXES if f.kind == kind) for kind in KINDS}


ROOM = {"net_l": 131, "water_depth_cm": 41.4, "length_cm": 90, "width_cm": 40, "rim_to_water_cm": 3, "behind_cm": 12}


AT = {"stand_height_cm": 66, "tank_height_cm": 45, "substrate_depth_cm": 4}


SUMP = {"length_cm": 60, "width_cm": 40, "height_cm": 34.5, "level_cm": 20}


NOW = datetime(2026, 3, 1, 12, tzinfo=UTC)


def state_of(*rows: tuple[float, dict]):
    """Entries so many days before NOW."""
    entries = [
        {"id": i, "key": f"due-{i:04d}", "at": NOW - timedelta(days=days), "written_at": NOW, "body": body}
        for i, (days, body) in enumerate(rows, start=1)
    ]
    return replay([Entry.model_validate(e) for e in entries])


CHOSEN = (30, {"kind": "filter-plan", "chosen": BY_ID["sweetflag-800"].model_dump()})
