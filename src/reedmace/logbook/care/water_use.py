"""Water of a running tank as its care plan takes it: evaporation, socks, alkalinity."""

from datetime import datetime, timedelta

from reedmace.core.chemistry import DissolvedCo2Answer, DissolvedCo2Question, dissolved_co2
from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.chemistry.water_change import Pouring
from reedmace.core.cycle.record.targets import targets_of
from reedmace.core.flow import SockDaysAnswer, SockDaysQuestion, sock_days
from reedmace.core.memo import memoize
from reedmace.core.quantity import formatting
from reedmace.core.tank import EvaporationAnswer, EvaporationQuestion, Sump, evaporation
from reedmace.core.upkeep import CaredKh, CaredTopUp
from reedmace.core.upkeep.care_plan import CHANGE_SHARE
from reedmace.core.upkeep.nitrate_rhythm import DKH_PER_MG_N
from reedmace.logbook.care.later_years import nitrate_between_changes
from reedmace.logbook.replay.current_plans import cycle_plan, tank_plan
from reedmace.logbook.replay.cycle_log import care_log
from reedmace.logbook.replay.entries import AlkalinityAdded, CareDone, Reading, WaterChange
from reedmace.logbook.replay.equipment import (
    EquippedFilter,
    currents_and_oxygen_of,
    installed_filters,
    stock_load,
    temperature_c,
)
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.sump_overflow import sump_under
from reedmace.logbook.replay.water import net_litres, salinity_now, volume

USUAL_ROOM_C = 20.0
"""Room temperature when unknown: a heated room in the cold season (common practice)."""
CO2_OLD = timedelta(days=7)
"""Age in days from which a test of KH and pH no longer tells CO2."""
HOURS_LIT = {"none": 0.0, "by-day": 9.0, "day-and-night": 24.0}
"""Hours of CO2 a day: with the light, or always (common practice)."""
KH_OLD = timedelta(days=45)
"""Age in days from which a KH reading no longer counts."""


def sump_of(state: LogbookState) -> Sump | None:
    """The sump below the tank: as measured, or the sump filter; None without one. state: the tank's."""
    if (own := tank_plan(state).surroundings.sump) is not None:
        return own
    return next((found for one in installed_filters(state) if (found := sump_under(one)) is not None), None)


@memoize
def evaporated(state: LogbookState) -> EvaporationAnswer:
    """Evaporation from tank and sump, and the interval of top-ups. state: the tank's."""
    place, sump = tank_plan(state).surroundings, sump_of(state)
    return evaporation(
        EvaporationQuestion(
            surface_m2=min(max(volume(state).surface_cm2 / 1e4, 0.005), 500),
            lid=place.lid,
            sump_m2=sump.open_m2 if sump else 0,
            chamber_m2=max(sump.last_chamber_m2, 0.001) if sump else None,
            net_l=net_litres(state),
            water_c=temperature_c(state),
            room_c=USUAL_ROOM_C if place.room_c is None else place.room_c,
            salinity_g_kg=salinity_now(state),
        )
    )


def co2_now(state: LogbookState, now: datetime) -> DissolvedCo2Answer | None:
    """CO2 by the newest test of KH and pH; None where none is given or none was tested lately.

    state: the tank's; now: aware time.
    """
    given = tank_plan(state).surroundings.co2
    read = [
        (e.at, e.body.kh_dkh, e.body.ph)
        for e in state.readings
        if isinstance(e.body, Reading) and e.body.kh_dkh is not None and e.body.ph is not None
    ]
    if given == "none" or not read or now - read[-1][0] > CO2_OLD:
        return None
    _, kh, ph = read[-1]
    log = care_log(state, now)
    oxygen = currents_and_oxygen_of(rank_question(state), installed_filters(state), 0.0)[1]
    return dissolved_co2(
        DissolvedCo2Question(
            kh_dkh=min(kh, 40),
            ph=ph,
            temperature_c=temperature_c(state) if log is None else log.temperature_now_c(),
            net_l=net_litres(state),
            surface_per_hour=min(oxygen.surface_per_hour, 20),
            on_h=HOURS_LIT[given],
        )
    )


def socks_of(state: LogbookState, one: EquippedFilter) -> SockDaysAnswer | None:
    """Washing interval of a filter's socks; None where it has none. state: the tank's; one: the filter."""
    sump = sump_under(one)
    if sump is None or "socks" not in sump.chambers:
        return None
    return sock_days(
        SockDaysQuestion(
            return_lph=max(one.flow.delivered_lph, 1),
            feed_g_day=min(stock_load(state).feed_today_g_day, 5000),
            socks_count=sump.socks_count,
            width_cm=sump.sock_width_cm,
            length_cm=sump.sock_length_cm,
        )
    )


def top_up_of(state: LogbookState, now: datetime) -> CaredTopUp | None:
    """Top-ups for the care plan: the level was at its mark when last topped up or changed.

    state: the tank's; now: aware time.
    """
    lost = evaporated(state)
    filled = [e.at for e in state.events if isinstance(e.body, CareDone) and e.body.what == "top-up"]
    filled += [e.at for e in state.changes]
    since = (now - max(filled)).total_seconds() / 86400 if filled else lost.top_up_days
    return CaredTopUp(
        every_days=lost.top_up_days,
        litres_day=lost.litres_day if state.tank_plan is not None else None,
        since_days=min(max(since, 0.0), 40000.0),
        salt_water=not is_fresh(salinity_now(state)),
    )


def kh_of(state: LogbookState, now: datetime) -> CaredKh | None:
    """Alkalinity from its last reading on, through changes and soda; None without a recent one.

    state: the tank's; now: aware time. Source: mass balance; US EPA 1993 for what the film takes.
    """
    read = [(e.at, e.body.kh_dkh) for e in state.readings if isinstance(e.body, Reading) and e.body.kh_dkh is not None]
    log, rhythm = care_log(state, now), nitrate_between_changes(state, now)
    if not read or log is None or rhythm is None or now - read[-1][0] > KH_OLD:
        return None
    ammonia = log.latest("ammonia_mg_n_l")
    if ammonia is not None and ammonia[1] > log.kit.zero_mg_n_l("ammonia"):
        # Soda would free ammonia: while any is read the cycle advice doses it, hour by hour.
        return None
    wanted = targets_of(log)
    plan = cycle_plan(state, now)
    tap = plan.tap.kh_dkh
    falls = min(DKH_PER_MG_N * rhythm.rise_mg_n_l_day, 40.0)
    at, level = read[-1]
    for e in sorted([*state.changes, *state.alkalinity], key=lambda e: e.at):
        if e.at <= at or e.at > now:
            continue
        if isinstance(e.body, WaterChange) and tap is not None:
            level = max(level - falls * (e.at - at).total_seconds() / 86400, 0.0)
            level, at = level + e.body.share * (tap - level), e.at
        elif isinstance(e.body, AlkalinityAdded):
            level = max(level - falls * (e.at - at).total_seconds() / 86400, 0.0)
            level, at = level + e.body.raise_dkh, e.at
    level -= falls * (now - at).total_seconds() / 86400
    return CaredKh(
        now_dkh=min(max(level, 0.0), 40.0),
        falls_dkh_day=falls,
        floor_dkh=wanted.kh_low_dkh,
        target_dkh=wanted.kh_target_dkh,
        tap_dkh=tap,
        change_share=CHANGE_SHARE,
        net_l=net_litres(state) if state.tank_plan is not None else None,
    )


def pour_words(state: LogbookState, share: float, now: datetime) -> str:
    """Description of a change of this share: litres, hot and cold, salt, treatment.

    state: the tank's; share: 0 to 1; now: aware time.
    """
    tap, litres = cycle_plan(state, now).tap, share * net_litres(state)
    known = state.tank_plan is not None
    measured = tank_plan(state).surroundings.temperature_c is not None or any(
        isinstance(e.body, Reading) and e.body.temperature_c is not None for e in state.readings
    )
    pouring = Pouring(temperature_c(state), tap.cold_c, tap.hot_c, salinity_now(state), tap.chlorine, measured=measured)
    words = pouring.words(litres, known=known)
    return f"{formatting.litres(litres)}: {words}" if known else formatting.opening(words)
