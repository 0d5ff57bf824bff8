"""Filter stops in the logbook, and what each asks for."""

from datetime import datetime, timedelta

from reedmace.core.chemistry.salinity import has_salt
from reedmace.core.cycle import FilterStopAnswer, FilterStopQuestion, filter_stop
from reedmace.core.cycle.judgement.filter_stop import WATCH_DAYS
from reedmace.core.filter.kinds import kind_of
from reedmace.core.memo import memoize
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.animals import animals_in
from reedmace.logbook.replay.arrival import came_at, came_with_animals
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.entries import Reading
from reedmace.logbook.replay.equipment import currents_and_oxygen_of, installed_filters
from reedmace.logbook.replay.film_shares import film_shares, stretches
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import salinity_now


def _tested(state: LogbookState) -> datetime | None:
    full = [
        e.at
        for e in state.readings
        if isinstance(e.body, Reading) and e.body.ammonia_ppm is not None and e.body.nitrite_ppm is not None
    ]
    return max(full, default=None)


def begun_with_life(state: LogbookState, at: datetime) -> bool:
    """Whether animals had come by then, so that a removed filter carried film the tank depended on.

    state: the tank's; at: aware time.
    """
    plan = state.cycle_plan.body if state.cycle_plan else None
    came = came_at(state)
    if isinstance(plan, CyclePlan) and plan.method == "animals-in":
        came.append(plan.started_at)
    return any(day <= at for day in came)


def _together(
    found: list[tuple[datetime, datetime | None, str]], now: datetime
) -> list[tuple[float, datetime | None, str]]:
    """(hours, until, key) of each stop; several of one filter within a day are merged, with their hours added.

    A film does not grow back between breakfast and supper, so ten short stops cost what one long one does.
    """
    joined: dict[str, list[tuple[float, datetime | None, str]]] = {}
    for begun, ended, key in found:
        hours = ((ended or now) - begun).total_seconds() / 3600
        rows = joined.setdefault(key, [])
        before = rows[-1][1] if rows else None
        if before is not None and begun - before < timedelta(days=1):
            rows[-1] = (rows[-1][0] + hours, ended, key)
        else:
            rows.append((hours, ended, key))
    return [row for rows in joined.values() for row in rows]


def _breath(state: LogbookState) -> float | None:
    """Hours from a stop of everything until oxygen runs short; None where another filter moves the water."""
    installed = installed_filters(state)
    if not installed or any(state.runs(h.key) for h in installed):
        return None
    asked = rank_question(state)
    return currents_and_oxygen_of(asked, installed, 0.0)[1].short_after_h


@memoize
def stops(state: LogbookState, now: datetime) -> list[FilterStopAnswer]:
    """Every stop that still asks for something, most urgent first: while it lasts, and for a week after.

    state: the tank's, with a cycle plan or without; now: aware time.
    """
    shares, bodies = film_shares(state, now), {f.key: f.filter for f in state.filters()}
    plan = state.cycle_plan.body if state.cycle_plan else None
    unnamed = came_with_animals(state) is not None and not stock_plan(state).animals
    living = bool(animals_in(state)) or unnamed or (isinstance(plan, CyclePlan) and plan.method == "animals-in")
    tested = _tested(state)
    since_test = (now - tested).total_seconds() / 86400 if tested and tested <= now else None
    found = []
    for hours, ended, key in _together(stretches(state, now), now):
        if ended is not None and now - ended > timedelta(days=WATCH_DAYS):
            continue
        body = bodies.get(key)
        answer = filter_stop(
            FilterStopQuestion(
                name=body.name if body else "The filter",
                closed=kind_of(body.kind).closed if body else False,
                hours=min(hours, 1e5),
                salt=has_salt(salinity_now(state)),
                film_share=shares.get(key, 1.0),
                standing=ended is None,
                since_days=(now - ended).total_seconds() / 86400 if ended else 0,
                animals_in=living,
                tested_days=since_test,
                oxygen_h=_breath(state) if living and ended is None else None,
            )
        )
        found.append(answer)
    for gone in state.taken_off:
        if not begun_with_life(state, gone.at) or now - gone.at > timedelta(days=WATCH_DAYS) or gone.at > now:
            continue
        found.append(
            filter_stop(
                FilterStopQuestion(
                    name=gone.name,
                    taken_off=True,
                    film_share=gone.share,
                    since_days=(now - gone.at).total_seconds() / 86400,
                    animals_in=living,
                    tested_days=since_test,
                )
            )
        )
    return sorted((s for s in found if not s.over), key=lambda s: (not s.urgent, -s.lost_share))
