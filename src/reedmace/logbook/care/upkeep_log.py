"""Inputs of the care plan from a logbook: what was done when, how flows faded, absences."""

from datetime import datetime, timedelta
from itertools import takewhile
from statistics import median

from reedmace.core.cycle import needs_watching, water_note
from reedmace.core.errors import CannotAnswer
from reedmace.core.filter.kinds import kind_of
from reedmace.core.fit import CareStepsAnswer, CareStepsQuestion, care_steps_of
from reedmace.core.memo import memoize
from reedmace.core.upkeep import (
    Away,
    CaredFilter,
    CarePlanAnswer,
    CarePlanQuestion,
    FlowFadeAnswer,
    FlowFadeQuestion,
    HolidayAnswer,
    HolidayQuestion,
    care_plan,
    flow_fade,
    holiday_page,
)
from reedmace.core.upkeep.care_plan import BEFORE_LEAVING, TEST_DAYS, WHEN_BACK
from reedmace.core.upkeep.care_schemas import CHANGE_DAYS
from reedmace.core.upkeep.cleaning_interval import SERVICE_SHARE
from reedmace.core.upkeep.flow_drop import clean_flow
from reedmace.core.upkeep.flow_fade import FadeTest
from reedmace.logbook.care.last_done import cleaned_at, cleanings, days_since, done_at, looked_at, newest
from reedmace.logbook.care.round_days import round_week
from reedmace.logbook.care.water_use import evaporated, kh_of, socks_of, top_up_of
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.arrival import came_with_animals
from reedmace.logbook.replay.current_plans import tank_plan
from reedmace.logbook.replay.cycle_log import care_log
from reedmace.logbook.replay.entries import AwayTime, CareDone, Reading, Stocking
from reedmace.logbook.replay.equipment import EquippedFilter, installed_filters, needs_guard
from reedmace.logbook.replay.film_shares import film_shares, stretches
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import net_litres

LONG_STOP = timedelta(hours=2)
"""Length of a stop that may have cost film (memory)."""
CHEMICAL = ("carbon", "zeolite")


Flows = list[tuple[datetime, float]]


def _clean_lph(flows: Flows, cleaned: list[datetime]) -> float | None:
    """The flow that counts as clean since the last of some cleanings, L/h."""
    if not flows:
        return None
    begun = flows[0][0]
    days = [(at - begun).total_seconds() / 86400 for at in cleaned]
    return clean_flow([((at - begun).total_seconds() / 86400, lph) for at, lph in flows], days)


def _fade(flows: Flows, start: datetime, end: datetime | None, clean_lph: float | None) -> FlowFadeAnswer | None:
    """Fading of the flow between two cleanings, as far as tests show. clean_lph: what counts as clean, where known."""
    tests = [(at, lph) for at, lph in flows if at >= start and (end is None or at < end)]
    if len(tests) < 2:
        return None
    question = FlowFadeQuestion(
        tests=[FadeTest(day=(at - start).total_seconds() / 86400, flow_lph=lph) for at, lph in tests[-100:]],
        most_lph=clean_lph,
    )
    try:
        return flow_fade(question)
    except CannotAnswer:
        return None


def flow_faded(state: LogbookState, key: str) -> tuple[FlowFadeAnswer | None, datetime | None]:
    """Fading of a filter's flow since its last cleaning, and since when; None where too few tests show it.

    state: the tank's; key: of the filter.
    """
    flows = all_flows(state, key)
    start = cleaned_at(state, key) or (flows[0][0] if flows else None)
    clean = _clean_lph(flows, cleanings(state, key))
    return (None, None) if start is None else (_fade(flows, start, None, clean), start)


def _clogged_since(state: LogbookState, key: str) -> datetime | None:
    """When a flow under the limit of service was first timed since the last cleaning: one test is enough for that."""
    flows, times = all_flows(state, key), cleanings(state, key)
    clean = _clean_lph(flows, times)
    if clean is None or flows[-1][1] >= SERVICE_SHARE * clean:
        return None
    return next((at for at, lph in flows if at >= times[-1] and lph < SERVICE_SHARE * clean), None)


def learned_days(state: LogbookState, key: str) -> float | None:
    """Days between cleanings learned from this filter's earlier intervals, whatever was timed since; None before any.

    state: the tank's; key: of the filter.
    """
    flows, times = all_flows(state, key), cleanings(state, key)
    if not flows:
        return None
    starts = [flows[0][0], *times]
    found = [
        fade.service_day
        for start, end in zip(starts, [*times, None], strict=True)
        if (fade := _fade(flows, start, end, None)) is not None and fade.service_day is not None
    ]
    return min(max(median(found), 0.5), 4000.0) if found else None


def _cared(state: LogbookState, one: EquippedFilter, share: float, begun: datetime, now: datetime) -> CaredFilter:
    care, fade = kind_of(one.filter.kind).care, flow_faded(state, one.key)
    installed = state.hung_since.get(one.key, begun)
    fades = None
    if fade[0] is not None and fade[1] is not None and fade[0].service_day is not None:
        fades = (fade[1] + timedelta(days=min(fade[0].service_day, 3650)) - now).total_seconds() / 86400
    elif (clogged := _clogged_since(state, one.key)) is not None:
        fades = -(days_since(now, clogged) or 0.0)
    flows = all_flows(state, one.key)
    # Washed when the filter was cleaned, unless separately since.
    washed = [done_at(state, "guard", one.key), cleaned_at(state, one.key), installed]
    guarded = needs_guard(state) and not one.filter.air
    carbon = any(b.media in CHEMICAL for b in one.media)
    socks = socks_of(state, one)
    return CaredFilter(
        key=one.key,
        name=one.filter.name,
        title=care.title,
        every_days=min(max(learned_days(state, one.key) or one.flow.service_days, 0.5), 4000),
        since_cleaned_days=days_since(now, cleaned_at(state, one.key) or installed) or 0.0,
        fades_in_days=None if fades is None else min(max(fades, -4000.0), 4000.0),
        since_flow_test_days=days_since(now, flows[-1][0]) if flows else None,
        air=one.filter.air,
        since_look_days=days_since(now, looked_at(state, one.key) or installed) or 0.0,
        film_share=min(share, 1.0),
        touched_share=care.share,
        minutes=care.minutes,
        since_guard_days=days_since(now, max(w for w in washed if w is not None)) if guarded else None,
        since_carbon_days=days_since(now, done_at(state, "carbon", one.key) or installed) if carbon else None,
        since_socks_days=(
            days_since(now, done_at(state, "socks", one.key) or cleaned_at(state, one.key) or installed)
            if socks
            else None
        ),
        socks_every_days=socks.wash_days if socks else 7,
    )


def care_question(state: LogbookState, now: datetime) -> CarePlanQuestion | None:
    """Input of the care plan; None for a tank without animals. state: the tank's; now: aware time."""
    came = came_with_animals(state)
    if not animals_in(state) and came is None:
        return None
    stocked = newest([e for e in state.events if isinstance(e.body, Stocking) and e.body.count > 0])
    tanks = state.tank_plan.at if state.tank_plan else now
    begun = min([t for t in (came, stocked, tanks) if t is not None])
    shares = film_shares(state, now)
    written = state.situation.at if state.situation else tanks
    return CarePlanQuestion(
        filters=[
            _cared(state, one, shares.get(one.key, 0.0), begun, now) for one in installed_filters(state) if one.runs
        ],
        since_animals_days=days_since(now, stocked),
        since_trouble_days=days_since(now, _trouble(state, now)),
        poison_for_days=_poison_for_days(state),
        since_change_days=_since(now, newest(state.changes), written, CHANGE_DAYS),
        change_day_in_days=_next_weekday(tank_plan(state).surroundings.change_weekday, now),
        since_test_days=_since(now, newest(state.readings), written, TEST_DAYS),
        top_up=top_up_of(state, now),
        kh=kh_of(state, now),
        away=[
            Away(from_days=_ahead(now, e.body.from_at), to_days=_ahead(now, e.body.until_at))
            for e in state.events
            if isinstance(e.body, AwayTime) and e.body.until_at > now
        ][:20],
    )


def _trouble(state: LogbookState, now: datetime) -> datetime | None:
    """When ammonia or nitrite was last read, or a filter last stopped for hours; None where neither."""
    poison = [at for at, read in _poison_read(state) if read]
    stood = [end or now for start, end, _ in stretches(state, now) if (end or now) - start >= LONG_STOP]
    return max([*poison, *stood], default=None)


def _poison_read(state: LogbookState) -> list[tuple[datetime, bool]]:
    """Tests of ammonia or nitrite, oldest first: when, and whether any was read."""
    bodies = [(e.at, e.body) for e in state.readings if isinstance(e.body, Reading)]
    return sorted(
        (at, (r.ammonia_ppm or 0) > 0 or (r.nitrite_ppm or 0) > 0)
        for at, r in bodies
        if r.ammonia_ppm is not None or r.nitrite_ppm is not None
    )


def _poison_for_days(state: LogbookState) -> float:
    """Days from the first to the last of the tests in a row, up to the newest, that read poison; 0 where it did not."""
    row = list(takewhile(lambda test: test[1], reversed(_poison_read(state))))
    return (row[0][0] - row[-1][0]).total_seconds() / 86400 if row else 0.0


def _since(now: datetime, done: datetime | None, begun: datetime, every_days: float) -> float:
    """Days since an event; if never recorded, since the logbook began, and then at most due."""
    days = days_since(now, done or begun) or 0.0
    return days if done is not None else min(days, every_days)


def _next_weekday(weekday: int | None, now: datetime) -> float | None:
    """Days until the next of a weekday, 0 on the day itself; None where none is set. weekday: 0 for Monday."""
    return None if weekday is None else float((weekday - now.weekday()) % 7)


def _ahead(now: datetime, at: datetime) -> float:
    return min(max((at - now).total_seconds() / 86400, -4000.0), 4000.0)


@memoize
def care(state: LogbookState, now: datetime, *, rounds: bool = True) -> CarePlanAnswer | None:
    """The care plan of a tank; None for a tank without animals.

    state: the tank's; now: aware time; rounds: with the days of its room's round, or as the tank alone would have it.
    While a cycle, new animals or poison are watched day by day, tests and changes are the cycle's to ask for, not the
    plan's.
    """
    question = care_question(state, now)
    if question is None:
        return None
    log = care_log(state, now)
    if log is not None and needs_watching(log):
        question = question.model_copy(update={"left_out": ["test", "change", "soda"]})
    elif log is not None and water_note(log) is not None:
        question = question.model_copy(update={"left_out": ["test"]})
    if rounds:
        question = question.model_copy(update={"round_week": round_week(state, now)})
    return care_plan(question)


def holiday(state: LogbookState, plan: CarePlanAnswer, feed_g_day: float, now: datetime) -> HolidayAnswer | None:
    """Instructions for the next absence; None where none is ahead.

    state: the tank's; plan: its care; feed_g_day: what the animals eat, g; now: aware time.
    """
    ahead = [e.body for e in state.events if isinstance(e.body, AwayTime) and e.body.until_at > now]
    if not ahead:
        return None
    days = min((a := min(ahead, key=lambda one: one.from_at)).until_at - a.from_at, timedelta(days=120))
    installed = [one for one in installed_filters(state) if one.runs]
    return holiday_page(
        HolidayQuestion(
            days=max(days.total_seconds() / 86400, 0.5),
            feed_g_day=min(feed_g_day, 5000),
            filters=[one.filter.name for one in installed],
            on_return=[kind_of(one.filter.kind).power_cut.on_return for one in installed],
            before=[t.title for t in plan.tasks if t.moved == BEFORE_LEAVING][:40],
            after=[t.title for t in plan.tasks if t.moved == WHEN_BACK][:40],
            salt_water=tank_plan(state).surroundings.water == "salt",
            top_up_l_day=evaporated(state).litres_day if state.tank_plan is not None else 0,
        )
    )


def cleaning(state: LogbookState, one: EquippedFilter, load_mg_n_l_day: float, now: datetime) -> CareStepsAnswer:
    """Cleaning steps of one filter and their effect on its film.

    state: the tank's; one: the filter; load_mg_n_l_day: what the animals that are in make, mg N/(L day); now: aware
    time.
    """
    return care_steps_of(
        CareStepsQuestion(
            kind=one.filter.kind,
            film_share=min(film_shares(state, now).get(one.key, 0.0), 1.0),
            load_mg_n_day=load_mg_n_l_day * net_litres(state),
            age_days=days_since(now, state.hung_since.get(one.key)) or 0.0,
            part_ages_days={
                e.body.part: days_since(now, e.at) or 0.0
                for e in state.events
                if isinstance(e.body, CareDone) and e.body.part and e.body.filter_key in (None, one.key)
            },
        )
    )
