"""A tank in quarantine: since when, which day, and when it ends."""

from datetime import datetime, timedelta

from pydantic import AwareDatetime, Field

from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.contract import Part
from reedmace.core.memo import memoize
from reedmace.core.upkeep import QuarantineAnswer, QuarantineQuestion, quarantine
from reedmace.core.upkeep.quarantine import usual_days
from reedmace.logbook.replay.entries import Ailing, Quarantine, Stocking
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import salinity_now


class InQuarantine(Part):
    """Start, end and description of a quarantine."""

    since: AwareDatetime
    until: AwareDatetime
    words: str = Field(description="In a few words, for the board")
    answer: QuarantineAnswer


def usual_quarantine_days(state: LogbookState) -> int:
    """Usual length of a quarantine in this tank's water, days. state: the tank's."""
    return round(usual_days(salt_water=not is_fresh(salinity_now(state))))


@memoize
def in_quarantine(state: LogbookState, now: datetime) -> InQuarantine | None:
    """A tank's quarantine, over or not; None where none was begun, or it was ended.

    state: the tank's; now: aware time.
    """
    begun = [e for e in state.events if isinstance(e.body, Quarantine) and e.at <= now]
    if not begun or not isinstance(newest := begun[-1].body, Quarantine) or newest.days == 0:
        return None
    at = begun[-1].at
    came = [e.at for e in state.events if isinstance(e.body, Stocking) and e.body.count > 0 and at < e.at <= now]
    trouble = [
        e.at
        for e in state.events
        if at < e.at <= now
        and (
            (isinstance(e.body, Ailing) and e.body.signs)
            or (isinstance(e.body, Stocking) and e.body.count < 0 and not e.body.moved)
        )
    ]

    def days(times: list[datetime]) -> float | None:
        return (now - max(times)).total_seconds() / 86400 if times else None

    answer = quarantine(
        QuarantineQuestion(
            asked_days=newest.days,
            salt_water=not is_fresh(salinity_now(state)),
            since_begun_days=min(days([at]) or 0.0, 4000.0),
            since_animals_days=days(came),
            since_trouble_days=days(trouble),
        )
    )
    words = "quarantine over" if answer.over else f"quarantine, day {int(answer.day) + 1} of {newest.days}"
    if answer.begun_again and not answer.over:
        words += f", anew since {answer.begun_again}"
    return InQuarantine(
        words=words, since=at, until=max([at, *came, *trouble]) + timedelta(days=newest.days), answer=answer
    )
