"""Illness check of a tank from its logbook: signs seen, water, and recent events."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from reedmace.core.cycle import CycleLog, IllnessAnswer, IllnessQuestion, illness_check
from reedmace.core.stock import SPECIES, Species
from reedmace.core.stock.species import body_mass_g
from reedmace.logbook.care.last_done import days_since
from reedmace.logbook.care.upkeep_log import LONG_STOP
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.arrival import came_at
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.cycle_log import lived_log
from reedmace.logbook.replay.entries import Ailing, Conditioner, Entry, MediaWork, Reading, Stocking, WaterChange
from reedmace.logbook.replay.equipment import currents_and_oxygen_of, installed_filters, stock_load
from reedmace.logbook.replay.film_shares import stretches
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

SEEN, LOST = timedelta(days=14), timedelta(days=7)
"""Days for which signs, or losses, stay relevant, unless all is recorded as well."""
SHELLED, WASHED = ("shrimp", "snail", "tall snail"), ("axolotl", "turtle")


def illness(state: LogbookState, now: datetime) -> IllnessAnswer | None:
    """What to check first; None where no illness was recorded lately. state: the tank's; now: aware time."""
    well = max((e.at for e in state.events if isinstance(e.body, Ailing) and not e.body.signs), default=None)

    def open_since(e: Entry, span: timedelta) -> bool:
        return now - span <= e.at <= now and (well is None or e.at > well)

    seen = [e.body for e in state.events if isinstance(e.body, Ailing) and e.body.signs and open_since(e, SEEN)]
    lost = [
        e.body
        for e in state.events
        if isinstance(e.body, Stocking) and e.body.count < 0 and not e.body.moved and open_since(e, LOST)
    ]
    log = lived_log(state, now)
    if log is None or not (seen or lost):
        return None
    return illness_check(_question(state, log, seen, lost, now))


def _question(
    state: LogbookState, log: CycleLog, seen: list[Ailing], lost: list[Stocking], now: datetime
) -> IllnessQuestion:
    known: dict[str, Species] = {**SPECIES, **{s.id: s for s in stock_plan(state).own_species}}
    lost_count = -sum(b.count for b in lost)
    here = [known[a.species_id] for a in animals_in(state) if a.species_id in known]
    in_count = sum(a.count for a in animals_in(state)) + lost_count
    mass = sum(-b.count * body_mass_g(s.adult_length_cm, s.body_form) for b in lost if (s := known.get(b.species_id)))
    ph = [r.ph for r in log.readings if r.ph is not None]
    warm = [r.temperature_c for r in log.readings if r.temperature_c is not None]
    load = stock_load(state)
    running = [one for one in installed_filters(state) if one.runs]
    return IllnessQuestion(
        signs=list(dict.fromkeys(s for b in seen for s in b.signs)),
        ill_count=min(max((b.count for b in seen), default=0), 5000),
        lost_count=min(lost_count, 5000),
        in_count=min(in_count, 5000),
        body_left_g=min(mass, 1e6),
        net_l=net_litres(state),
        ammonia_mg_n_l=_last(log, "ammonia_mg_n_l"),
        nitrite_mg_n_l=_last(log, "nitrite_mg_n_l"),
        since_test_days=days_since(now, _tested_both(state.readings)),
        kit=log.kit,
        ph=ph[-1] if ph else None,
        before_ph=ph[-2] if len(ph) > 1 else None,
        temperature_c=warm[-1] if warm else None,
        animals_low_c=load.temperature_low_c,
        animals_high_c=load.temperature_high_c,
        salinity_g_kg=log.salinity_g_kg,
        oxygen_enough=currents_and_oxygen_of(rank_question(state), running, 0.0)[1].enough if running else None,
        since_stop_days=days_since(now, _stood(state, now)),
        since_untreated_days=days_since(now, _untreated(state)),
        since_animals_days=days_since(now, _from_elsewhere(state)),
        company_trouble=len(here) > 1 and any(s.temper != "peaceful" for s in here),
        invertebrates=any(s.body_form in SHELLED for s in here),
        washes_hands=any(s.body_form in WASHED for s in here),
    )


def _last(log: CycleLog, name: str) -> float | None:
    found: list[float] = [v for r in log.readings if (v := getattr(r, name)) is not None]
    return found[-1] if found else None


def _tested_both(readings: Iterable[Entry]) -> datetime | None:
    tests = [(e.at, e.body) for e in readings if isinstance(e.body, Reading)]
    return max((at for at, b in tests if b.ammonia_ppm is not None and b.nitrite_ppm is not None), default=None)


def _stood(state: LogbookState, now: datetime) -> datetime | None:
    ends = [end or now for start, end, _ in stretches(state, now) if (end or now) - start >= LONG_STOP]
    return max(ends, default=None)


def _untreated(state: LogbookState) -> datetime | None:
    treated = [e.at for e in state.events if isinstance(e.body, Conditioner)]
    raw = [
        e.at
        for e in state.changes
        if isinstance(e.body, WaterChange) and not e.body.treated and not any(at >= e.at for at in treated)
    ]
    return max(raw, default=None)


def _from_elsewhere(state: LogbookState) -> datetime | None:
    media = [e.at for e in state.events if isinstance(e.body, MediaWork) and e.body.what in ("seed-added", "moved")]
    return max([*came_at(state), *media], default=None)
