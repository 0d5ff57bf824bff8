"""Broods of many tanks on one board, those that press first."""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from typing import Annotated

from reedmace.core.contract import Name, whole
from reedmace.core.quantity import formatting
from reedmace.core.stock.brood import in_words
from reedmace.logbook.care.brood_care import BroodCare, brood_care
from reedmace.logbook.rooms.shared_resources import RoomTank


class BroodRow(BroodCare):
    """One brood on the board."""

    tank_id: Annotated[int, whole(1, 2**53)]
    tank: Name


def brood_board(tanks: Iterable[RoomTank], now: datetime) -> list[BroodRow]:
    """Broods of some tanks, those whose tank is too small or whose next step comes soonest first.

    tanks: them; now: aware time.
    """
    rows = [
        BroodRow(tank_id=tank.id, tank=tank.name, **dict(one)) for tank in tanks for one in brood_care(tank.state, now)
    ]
    far = now + timedelta(days=40000)
    return sorted(rows, key=lambda r: (min(r.small_at or far, r.next_at or far), r.tank, r.key))


def board_verdict(rows: Sequence[BroodRow], now: datetime) -> str:
    """What presses first among the broods, in a sentence. rows: as `brood_board` sorts them; now: aware time."""
    if not rows:
        return "No brood is written down. Begin one as soon as a pair is together, eggs are laid or young swim."
    many = "One brood" if len(rows) == 1 else f"{len(rows)} broods"
    return f"{many}. {_pressing(rows[0], now)}"


def _pressing(row: BroodRow, now: datetime) -> str:
    """The first thing to know of a brood."""
    name = formatting.inside(row.common_name)
    if row.small_at is not None and row.answer is not None and (row.next_at is None or row.small_at <= row.next_at):
        days = (row.small_at - now).total_seconds() / 86400
        when = "by now" if days < 1 else f"in about {in_words(days)}"
        raises = f"it raises {row.answer.raises_count} of them"
        return f"{row.tank} is too small for so many {name} young {when}: {raises}."
    if row.next_step == "counted":
        return f"Count the young {name} in {row.tank}." if row.counted is None else "All have room until they leave."
    if row.next_at is None:
        return f"{row.tank} waits for {name} to breed."
    days = max((row.next_at - now).total_seconds() / 86400, 0.0)
    when = "any day now" if days < 1 else f"in about {in_words(days)}"
    return f"The {name} in {row.tank} should {'hatch' if row.next_step == 'hatched' else 'swim freely'} {when}."
