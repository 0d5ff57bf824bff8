"""What each brood of a tank needs: its food and waste, the next step, and when its tank is too small."""

from datetime import datetime, timedelta
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Part, whole
from reedmace.core.memo import memoize
from reedmace.core.quantity import formatting
from reedmace.core.stock import Species
from reedmace.core.stock.brood import (
    COUNT_AFTER_DAYS,
    BroodAnswer,
    BroodQuestion,
    brood,
    early_days,
    too_small_before_sale,
)
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

NextStep = Literal["spawned", "hatched", "free-swimming", "counted"]


class BroodCare(Part):
    """One brood of a tank."""

    key: str
    species_id: str
    common_name: str
    verdict: str
    counted: Annotated[int, whole(0, 20000)] | None = Field(description="None where nobody has counted")
    free_at: AwareDatetime | None
    answer: BroodAnswer | None = Field(description="None before eggs are laid, and of animals nobody described")
    next_step: NextStep
    next_at: AwareDatetime | None = Field(description="When it is to be expected")
    small_at: AwareDatetime | None = Field(description="When its tank is too small for so many, before they leave")
    lost_count: Annotated[int, whole(0, 10**6)]
    sold_count: Annotated[int, whole(0, 10**6)]
    moved_count: Annotated[int, whole(0, 10**6)]


@memoize
def brood_care(state: LogbookState, now: datetime) -> list[BroodCare]:
    """Every brood that lives in a tank, oldest first. state: the tank's; now: aware time."""
    return [_cared(state, one, now) for one in broods_of(state) if not one.over]


def _cared(state: LogbookState, one: Brood, now: datetime) -> BroodCare:
    species, warmth = species_of(state, one.species_id), temperature_c(state)
    swims = expected_free(state, one, warmth)
    laid = swims is not None or one.free_at is not None
    answer = _answer(state, one, species, swims, now) if species is not None and laid else None
    name = species.common_name if species else one.species_id
    small = too_small_before_sale(answer) if answer else None
    step, at = _next(one, species, swims, warmth)
    return BroodCare(
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
    return f"A pair of {formatting.inside(name)}: nothing is laid or born yet."


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


def _next(
    one: Brood, species: Species | None, swims: datetime | None, temperature_c: float
) -> tuple[NextStep, datetime | None]:
    """The step to write down next, and when it is to be expected."""
    if one.free_at is not None:
        return "counted", one.free_at + timedelta(days=COUNT_AFTER_DAYS) if one.count is None else None
    if one.hatched_at is not None:
        return "free-swimming", swims
    if one.spawned_at is None:
        # Livebearers lay no eggs: their young swim as they are born.
        born = species is not None and sum(early_days(species, temperature_c)) == 0
        return "free-swimming" if born else "spawned", None
    hatch = early_days(species, temperature_c)[0] if species is not None else None
    return "hatched", None if hatch is None else one.spawned_at + timedelta(days=hatch)
