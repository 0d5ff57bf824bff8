"""The years ahead of a running tank: nitrate between changes, growth, and whether a filter could stay off."""

from datetime import datetime, timedelta
from itertools import pairwise
from statistics import median

from pydantic import Field

from reedmace.core.contract import Part
from reedmace.core.cycle import StandbyTrialAnswer, StandbyTrialQuestion, Trial, standby_trial
from reedmace.core.errors import CannotAnswer
from reedmace.core.film import AREAL_RATE, film_needed_m2, grown_share, temperature_factor
from reedmace.core.filter.filter_table import film_of_m2
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import as_nitrogen
from reedmace.core.stock import OutgrowAnswer, OutgrowQuestion, outgrow
from reedmace.core.upkeep import NitrateRhythmAnswer, NitrateRhythmQuestion, nitrate_rhythm
from reedmace.core.upkeep.care_plan import CHANGE_SHARE
from reedmace.core.upkeep.care_schemas import CHANGE_DAYS
from reedmace.logbook.replay.animals import animals_in, load_in
from reedmace.logbook.replay.arrival import came_at, came_with_animals
from reedmace.logbook.replay.current_plans import cycle_plan, stock_plan, tank_plan
from reedmace.logbook.replay.cycle_log import care_log
from reedmace.logbook.replay.entries import Reading, WaterChange
from reedmace.logbook.replay.equipment import (
    EquippedFilter,
    currents_and_oxygen_of,
    installed_filters,
    tank_site,
    temperature_c,
)
from reedmace.logbook.replay.film_shares import stretches
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

LAST_CHANGES, APART_DAYS = 6, 2.0
LAST_DAY, LONGEST_WATCH = timedelta(days=1), timedelta(days=3)
"""Age of a test up to which it still counts for a stop."""


class YearsAhead(Part):
    """Outlook for a running tank; each field None where nothing can be said."""

    nitrate: NitrateRhythmAnswer | None
    growth: OutgrowAnswer | None
    trial: StandbyTrialAnswer | None
    trial_of: str | None = Field(description="The filter that would stand")


def years_ahead(state: LogbookState, now: datetime) -> YearsAhead | None:
    """The years ahead of a tank with animals; None for another. state: the tank's; now: aware time."""
    if not animals_in(state) and came_with_animals(state) is None:
        return None
    installed = [one for one in installed_filters(state) if one.runs]
    return YearsAhead(
        nitrate=nitrate_between_changes(state, now),
        growth=_growth(state, installed),
        trial=_trial(state, installed, now),
        trial_of=_strongest(installed).filter.name if installed else None,
    )


def _nitrates(state: LogbookState) -> list[tuple[datetime, float]]:
    found = []
    for e in state.readings:
        if isinstance(e.body, Reading) and e.body.nitrate_ppm is not None and "nitrate" not in e.body.off_scale:
            found.append((e.at, as_nitrogen(e.body.nitrate_ppm, "nitrate", e.body.basis)))
    return found


def _measured_rise(state: LogbookState) -> float | None:
    """Median daily rise between two tests with no change between, mg N/L; None where none rises."""
    slopes = [
        (after - before) / days
        for (a, before), (b, after) in pairwise(_nitrates(state))
        if (days := (b - a).total_seconds() / 86400) >= APART_DAYS and not any(a < c.at <= b for c in state.changes)
    ]
    rising = [s for s in slopes if s > 0]
    return min(median(rising), 100.0) if len(rising) >= 2 else None


def rhythm_of(state: LogbookState) -> tuple[float, float]:
    """(share, days) of recent water changes; the usual ones where too few are recorded. state: the tank's."""
    last = state.changes[-LAST_CHANGES:]
    shares = [e.body.share for e in last if isinstance(e.body, WaterChange) and e.body.share > 0]
    gaps = [(b.at - a.at).total_seconds() / 86400 for a, b in pairwise(last)]
    if len(gaps) < 2 or not shares:
        return CHANGE_SHARE, CHANGE_DAYS
    return min(max(median(shares), 0.01), 0.95), min(max(round(median(gaps)), 1), 120)


@memoize
def nitrate_between_changes(state: LogbookState, now: datetime) -> NitrateRhythmAnswer | None:
    """The saw-tooth of nitrate as the tank is kept.

    None where nothing produces any. state: the tank's; now: aware time.
    """
    share, every = rhythm_of(state)
    seen = _nitrates(state)
    made = load_in(state, now) * net_litres(state)
    rise = _measured_rise(state)
    if made <= 0 and rise is None:
        return None
    question = NitrateRhythmQuestion(
        net_l=net_litres(state),
        made_mg_n_day=made,
        planted=tank_plan(state).surroundings.planted,
        measured_rise_mg_n_l_day=rise,
        tap_mg_n_l=cycle_plan(state, now).tap.nitrate_mg_n_l,
        tap_kh_dkh=cycle_plan(state, now).tap.kh_dkh,
        now_mg_n_l=seen[-1][1] if seen else None,
        change_share=share,
        every_days=every,
    )
    try:
        return nitrate_rhythm(question)
    except CannotAnswer:
        return None


def film_carries_mg_n_day(state: LogbookState, installed: list[EquippedFilter]) -> float:
    """Capacity of the film of all filters and the tank at its temperature, mg N a day.

    state: the tank's; installed: its filters.
    """
    area = sum(film_of_m2(one.filter) for one in installed) + tank_site(state).film_here_m2
    return area * AREAL_RATE * temperature_factor(temperature_c(state))


def _growth(state: LogbookState, installed: list[EquippedFilter]) -> OutgrowAnswer | None:
    stock = stock_plan(state)
    if not stock.animals:
        return None
    return outgrow(
        OutgrowQuestion(
            net_l=net_litres(state),
            animals=stock.animals,
            own_species=stock.own_species,
            tank_length_cm=tank_site(state).length_cm,
            carries_mg_n_day=film_carries_mg_n_day(state, installed) if installed else None,
        )
    )


def _strongest(installed: list[EquippedFilter]) -> EquippedFilter:
    return max(installed, key=lambda one: one.flow.service_lph)


def _trial(state: LogbookState, installed: list[EquippedFilter], now: datetime) -> StandbyTrialAnswer | None:
    """Standby trial of the filter with the most flow; None without filters or where little would be gained."""
    if not installed:
        return None
    off = _strongest(installed)
    stay = [one for one in installed if one is not off]
    load = load_in(state, now) * net_litres(state)
    need = film_needed_m2(max(load, 1e-3), temperature_c(state))
    # A filter added lately holds little film yet, whatever its volume.
    area = sum(film_of_m2(one.filter) * _grown(state, one, now) for one in stay) + tank_site(state).film_here_m2
    log = care_log(state, now)
    return standby_trial(
        StandbyTrialQuestion(
            carried_times_count=min(area / need, 1e6),
            # Plants use oxygen at night: the rest is computed with still water where nothing stays on.
            oxygen_enough=currents_and_oxygen_of(rank_question(state), stay, 0.0)[1].enough,
            animals_settled=log is None or log.settled(),
            trials=_trials(state, off.key, now)[-50:],
        )
    )


def _grown(state: LogbookState, one: EquippedFilter, now: datetime) -> float:
    return grown_share((now - state.hung_since.get(one.key, now)).total_seconds() / 86400)


def _trials(state: LogbookState, key: str, now: datetime) -> list[Trial]:
    """Stops of one filter since animals last came, each with its tests.

    More animals ask the question anew, so an old stop proves nothing. A stop counts as tested by a test of both poisons
    made in its last day or after it, and shows a trace by any test that found either.
    """
    found, came = [], max(came_at(state), default=None)
    for start, end, which in stretches(state, now):
        if which != key or (came is not None and start < came):
            continue
        until = end or now
        after = [
            e.body for e in state.readings if start < e.at <= until + LONGEST_WATCH and isinstance(e.body, Reading)
        ]
        late = [
            e.body
            for e in state.readings
            if until - LAST_DAY <= e.at <= until + LONGEST_WATCH and e.at > start and isinstance(e.body, Reading)
        ]
        tested = any(b.ammonia_ppm is not None and b.nitrite_ppm is not None for b in late)
        hours = (until - start).total_seconds() / 3600
        if hours >= 1:
            trace = any((b.ammonia_ppm or 0) > 0 or (b.nitrite_ppm or 0) > 0 for b in after)
            found.append(Trial(hours=min(hours, 10000), tested=tested, trace=trace))
    return found
