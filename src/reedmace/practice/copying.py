"""A practice twin of a real tank: its logbook, and a true tank that agrees with what was measured."""

from collections.abc import Sequence
from datetime import datetime

from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.cycle import CycleLog, CycleReadinessQuestion, cycle_readiness
from reedmace.core.cycle.record.water_now import water_now
from reedmace.core.stock import Animals, WasteLoadQuestion, waste_load
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.cycle_log import care_log, cycle_log
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.equipment import temperature_c
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.logbook.replay.water import net_litres
from reedmace.practice.lesson import Given
from reedmace.practice.record import Coach, Copied, Practice
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import BARE

SETTLED_SHARE, MATURE_DAYS = 1.6, 42.0
"""Film of a settled tank, in multiples of its load, and the age from which it is taken for settled, days (memory)."""
USUAL_KH, USUAL_PH, USUAL_NITRATE = 5.0, 7.5, 5.0
"""Of water nobody tested: dKH, pH, mg N/L (memory)."""


def copy_of(entries: Sequence[Entry], seed: int, now: datetime, coach: Coach) -> Practice:
    """The record of a practice twin. entries: of the real logbook; seed: of what nobody measured; now: aware time."""
    state = replay(list(entries))
    return Practice(
        lesson="free", seed=seed, began_at=now, minutes=0, coach=coach, visits=[0], copied=_copied(state, now)
    )


def _copied(state: LogbookState, now: datetime) -> Copied:
    log = cycle_log(state, now) or care_log(state, now)
    seen = None if log is None else water_now(log)
    litres, present = net_litres(state), animals_in(state)
    return Copied(
        net_l=litres,
        kh_dkh=_latest(log, "kh_dkh", USUAL_KH),
        ph=_latest(log, "ph", USUAL_PH),
        warmth_c=temperature_c(state),
        salt=log is not None and not is_fresh(log.salinity_g_kg),
        tap_ammonia_mg_n_l=0.0 if log is None else log.tap.released_mg_n_l(),
        ammonia_mg_n_l=0.0 if seen is None else seen.ammonia_now,
        nitrite_mg_n_l=_latest(log, "nitrite_mg_n_l", 0.0),
        nitrate_mg_n_l=_latest(log, "nitrate_mg_n_l", USUAL_NITRATE),
        film_mg_n_l_day=_film(log, litres, present),
        animals=present,
    )


def _latest(log: CycleLog | None, figure: str, usual: float) -> float:
    """The newest test of a figure, else what is usual."""
    found = None if log is None else log.latest(figure)
    return usual if found is None else found[1]


def _film(log: CycleLog | None, litres: float, present: list[Animals]) -> float:
    """What the film clears, as far as the logbook shows: proven, or carrying its animals, or hardly any yet."""
    proven = 0.0 if log is None else cycle_readiness(CycleReadinessQuestion(log=log)).proven_mg_n_l_day
    lived = log is None or log.stocked_day is None or log.day_now - log.stocked_day >= MATURE_DAYS
    load = waste_load(WasteLoadQuestion(net_l=litres, animals=present)).ammonia_mg_n_l_day if present and lived else 0.0
    return max(proven, SETTLED_SHARE * load, BARE)


def given_copy(copied: Copied) -> Given:
    """The start of a twin: nothing of its logbook is done again, its animals and its water are there."""
    setup = Setup(
        net_l=copied.net_l,
        kh_dkh=copied.kh_dkh,
        ph=copied.ph,
        nitrate_mg_n_l=copied.nitrate_mg_n_l,
        tap_ammonia_mg_n_l=copied.tap_ammonia_mg_n_l,
        warmth_c=copied.warmth_c,
        salt=copied.salt,
    )
    acts = [
        Act(0.0, "dose", copied.ammonia_mg_n_l),
        Act(0.0, "nitrite", copied.nitrite_mg_n_l),
        Act(0.0, "film-gain", copied.film_mg_n_l_day),
        *(Act(0.0, "animals", one.count, one.species_id) for one in copied.animals),
    ]
    return Given(setup, (), tuple(acts))
