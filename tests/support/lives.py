"""A tank's life as rows of (days ago, body), and the moment it is looked at."""

from datetime import UTC, datetime, timedelta
from typing import Any

from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import LogbookState, replay

NOW = datetime(2026, 6, 1, 9, tzinfo=UTC)
Row = tuple[float, dict[str, Any]]
SIZES = {"kind": "tank-plan", "tank": {"length_cm": 80, "width_cm": 35, "height_cm": 40}}


def life(*rows: Row) -> list[Entry]:
    """Entries of one tank from (days ago, body)."""
    return [
        Entry.model_validate(
            {"id": i, "at": NOW - timedelta(days=ago), "written_at": NOW, "key": f"k{i}", "body": body}
        )
        for i, (ago, body) in enumerate(rows, 1)
    ]


def lived(*rows: Row) -> LogbookState:
    """The state after some rows, oldest first whatever their order."""
    return replay(life(*sorted(rows, key=lambda row: -row[0])))


def tank(age: float, species: str = "zebra-danio", count: int = 8) -> list[Row]:
    """A measured tank whose animals came so many days ago."""
    return [
        (age, SIZES),
        (age, {"kind": "stock-plan", "animals": [{"species_id": species, "count": count}]}),
        (age, {"kind": "stocking", "species_id": species, "count": count}),
    ]


def unnamed(stands: str, age: float) -> list[Row]:
    """A tank that came in here with animals nobody named."""
    since = (NOW - timedelta(days=age)).isoformat()
    return [(0.3, SIZES), (0.3, {"kind": "situation", "stands": stands, "since": since})]


def read(ago: float = 0.1, **figures: Any) -> Row:
    return ago, {"kind": "reading", **figures}


def change(ago: float, share: float, **more: Any) -> Row:
    return ago, {"kind": "water-change", "share": share, **more}
