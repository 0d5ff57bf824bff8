"""Broods of many tanks on one board: what each eats, what comes next, until when its tank does."""

from collections.abc import Iterable, Sequence
from datetime import datetime, timedelta
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Name, Part, whole
from reedmace.core.quantity import formatting
from reedmace.core.stock import Species
from reedmace.core.stock.brood import BroodAnswer, BroodQuestion, brood
from reedmace.logbook.care.later_years import film_carries_mg_n_day
from reedmace.logbook.replay.animals import grown_load
from reedmace.logbook.replay.broods import (
    Brood,
    broods_of,
    expected_free,
    fry_age_days,
    fry_length_now_cm,
    fry_load,
    species_of,
)
from reedmace.logbook.replay.equipment import installed_filters, tank_site, temperature_c
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres
from reedmace.logbook.rooms.shared_resources import RoomTank

COUNT_AFTER = timedelta(days=14)
"""When young that swim freely are first counted (common practice)."""
NextStep = Literal["spawned", "hatched", "free-swimming", "counted"]


class BroodRow(Part):
    """One brood on the board."""

    tank_id: Annotated[int, whole(1, 2**53)]
    tank: Name
    key: str
    species_id: str
    common_name: str
    verdict: str
    counted: Annotated[int, whole(0, 20000)] | None = Field(description="None where nobody has counted")
    free_at: AwareDatetime | None
    answer: BroodAnswer | None = Field(description="None before eggs are laid, and of animals nobody described")
    next_step: NextStep
    next_at: AwareDatetime | None = Field(description="When it is to be expected")
    small_at: AwareDatetime | None = Field(description="When its tank is too small for so many")
    lost_count: Annotated[int, whole(0, 10**6)]
    sold_count: Annotated[int, whole(0, 10**6)]
    moved_count: Annotated[int, whole(0, 10**6)]


def brood_board(tanks: Iterable[RoomTank], now: datetime) -> list[BroodRow]:
    """Broods of some tanks, those whose tank is too small soonest first. tanks: them; now: aware time."""
    rows = [_row(tank, one, now) for tank in tanks for one in broods_of(tank.state) if not one.over]
    far = now + timedelta(days=40000)
    return sorted(rows, key=lambda r: (min(r.small_at or far, r.next_at or far), r.tank, r.key))


def board_verdict(rows: Sequence[BroodRow]) -> str:
    """What presses first among the broods, in a sentence. rows: as `brood_board` sorts them."""
    if not rows:
        return "No brood is written down. Begin one as soon as a pair is together, eggs are laid or young swim."
    pressing = next((r for r in rows if r.small_at is not None and r.answer is not None), rows[0])
    many = "One brood" if len(rows) == 1 else f"{len(rows)} broods"
    return f"{many}. {pressing.tank}: {formatting.inside(pressing.verdict)}"


def _row(tank: RoomTank, one: Brood, now: datetime) -> BroodRow:
    species = species_of(tank.state, one.species_id)
    warmth = temperature_c(tank.state)
    swims = expected_free(tank.state, one, warmth)
    laid = swims is not None or one.free_at is not None
    answer = _answer(tank.state, one, species, swims, now) if species is not None and laid else None
    name = species.common_name if species else one.species_id
    small = answer.too_small_in_days if answer else None
    step, at = _next(one, swims, now)
    return BroodRow(
        tank_id=tank.id,
        tank=tank.name,
        key=one.key,
        species_id=one.species_id,
        common_name=name,
        verdict=answer.verdict if answer else _without_figures(name, described=species is not None),
        counted=one.count,
        free_at=one.free_at,
        answer=answer,
        next_step=step,
        next_at=at,
        small_at=None if small is None else now + timedelta(days=small),
        lost_count=one.lost_count,
        sold_count=one.sold_count,
        moved_count=one.moved_count,
    )


def _without_figures(name: str, *, described: bool) -> str:
    if not described:
        return f"Nobody has described {name}: what its young eat and make is not known. Describe it in Stock."
    return f"A pair of {formatting.inside(name)}: no eggs written down yet."


def _answer(state: LogbookState, one: Brood, species: Species, swims: datetime | None, now: datetime) -> BroodAnswer:
    litres, installed = net_litres(state), installed_filters(state)
    age = fry_age_days(one, now) if swims is None else min((now - swims).total_seconds() / 86400, -0.01)
    question = BroodQuestion(
        species_id=one.species_id,
        own_species=[species],
        count=one.count,
        age_days=min(max(age, -400), 4000),
        length_cm=fry_length_now_cm(species, one, now) if swims is None else None,
        net_l=litres,
        temperature_c=temperature_c(state),
        tank_length_cm=tank_site(state).length_cm,
        carries_mg_n_day=film_carries_mg_n_day(state, installed) if installed else None,
    )
    own = brood(question).load_mg_n_day
    others = max(grown_load(state) * litres + fry_load(state, now) - own, 0.0)
    return brood(question.model_copy(update={"others_mg_n_day": others}))


def _next(one: Brood, swims: datetime | None, now: datetime) -> tuple[NextStep, datetime | None]:
    """The step to write down next, and when it is to be expected."""
    if one.free_at is not None:
        last = max(t for t in (one.free_at, one.measured_at) if t is not None)
        return "counted", None if one.count is not None else min(last + COUNT_AFTER, now)
    if one.hatched_at is not None:
        return "free-swimming", swims
    return ("hatched" if one.spawned_at else "spawned"), swims if one.spawned_at else None
