"""What a practice tank truly is: the acts of its lesson, of its keeper's logbook and settings, run on its simulator.

What acts do to it is a memory, chosen apart from what the rules assume, so that the rules are tried on what they do
not know.
"""

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from reedmace.core.cycle.record.log import TRANSFERRED
from reedmace.core.film import FOOD_MG_N_PER_G
from reedmace.logbook.plans.plan_kinds import CyclePlan
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.entries import Entry, MediaWork, PlantGrowth, Stocking
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.practice.copying import given_copy
from reedmace.practice.course import course
from reedmace.practice.lesson import DAY, Given, given, lessons
from reedmace.practice.mishaps import mishap_of
from reedmace.practice.record import Practice
from reedmace.standins.practice_run import Act, Run, Sample
from reedmace.standins.practice_tank import BOTTLE, MATURE, PracticeTank

FILM_LOST = {"rinsed": 0.12, "rinsed-tap": 0.65, "replaced": 0.95, "dried": 0.97}
"""Share of the film in the media worked on that is lost (memory)."""
DIRT_CLEANED = 0.95
"""Share of the dirt that leaves with cleaned media (memory)."""
ROCK, PLANTS_TAKE = 0.25, 0.4
"""Film that comes with mature rock, and ammonia many plants take a day once they grow, mg N/(L day) (memory)."""
GROWS_AFTER_DAYS = 12.0
"""Days after planting from which plants take ammonia (memory)."""


def given_of(practice: Practice) -> Given:
    """The start of its lesson. practice: the tank's."""
    if practice.copied is not None:
        return given_copy(practice.copied)
    start = given(lessons()[practice.lesson], practice.seed, practice.side)
    if not practice.mishaps:
        return start
    sent = [mishap_of(one) for one in practice.mishaps]
    return replace(start, mishaps=[*start.mishaps, *sent])


def standing_entries(entries: Sequence[Entry], practice: Practice) -> list[Entry]:
    """Entries as far as they were done. What was corrected only after the clock had moved on was done all the same.

    entries: all of the logbook; practice: with the moments at which the keeper came to the tank.
    """
    kept: list[Entry] = []
    for e in entries:
        old = next((k for k in kept if k.id == e.supersedes), None)
        if old is not None and _time_passed_between(practice, old, e):
            continue
        kept.append(e)
    return kept


def _time_passed_between(practice: Practice, old: Entry, new: Entry) -> bool:
    first, last = practice.minute_of(old.written_at), practice.minute_of(new.written_at)
    return any(first < visit <= last for visit in practice.visits)


def acts_of(practice: Practice, start: Given, entries: Sequence[Entry]) -> list[Act]:
    """Everything done to the true tank and everything that happens to it, in no order.

    practice: clock and settings; start: of the lesson; entries: of the logbook.
    """
    done = standing_entries(entries, practice)
    if practice.copied is not None:
        # What was done to the real tank is in the copy's water already.
        done = [e for e in done if e.written_at >= practice.began_at]
    state = replay(done)
    acts = [*start.acts, *(act for mishap in start.mishaps for act in mishap.acts)]
    acts += [Act(one.minute, one.name, one.value) for one in practice.settings]
    acts += [Act(one.minute, "film-loss", one.share) for one in practice.taken]
    return acts + logbook_acts(practice, start, state)


def logbook_acts(practice: Practice, start: Given, state: LogbookState) -> list[Act]:
    """What the logbook says was done, as it truly was. state: of the logbook."""
    tank = start.tank(practice.seed)
    acts: list[Act] = []
    for e in (*state.doses, *state.alkalinity, *state.changes, *state.events):
        minute, body = max(practice.minute_of(e.at), 0.0), e.body
        if body.kind == "dose":
            acts.append(Act(minute, "dose", body.raise_mg_n_l * tank.dose_strength()))
        elif body.kind == "alkalinity":
            acts.append(Act(minute, "soda", body.raise_dkh))
        elif body.kind == "water-change":
            acts.append(Act(minute, "change" if body.treated else "untreated-change", body.share))
        elif isinstance(body, MediaWork):
            acts += _media(minute, body)
        elif isinstance(body, Stocking):
            acts.append(Act(minute, "animals", body.count, body.species_id))
        elif isinstance(body, PlantGrowth):
            acts.append(Act(minute, "plants", PLANTS_TAKE))
    return acts + _method(practice, start, state)


def _media(minute: float, body: MediaWork) -> list[Act]:
    if body.what in FILM_LOST:
        cleaned = Act(minute, "clean", DIRT_CLEANED * body.share)
        return [Act(minute, "film-loss", FILM_LOST[body.what] * body.share), cleaned]
    return [Act(minute, "film-gain", MATURE * body.share)] if body.what == "seed-added" else []


def brings_film(plan: CyclePlan) -> bool:
    """Whether media of a mature filter are moved into a tank. plan: of its cycle."""
    return plan.method in TRANSFERRED or "seed-media" in plan.helpers


def _method(practice: Practice, start: Given, state: LogbookState) -> list[Act]:
    """What the plan of the cycle puts in: film, plants, food to an empty tank."""
    plan = state.cycle_plan.body if state.cycle_plan else None
    if not isinstance(plan, CyclePlan):
        return []
    minute = max(practice.minute_of(plan.started_at), 0.0)
    differs = float(np.exp(0.5 * np.random.default_rng((practice.seed, 91)).standard_normal()))
    acts = []
    if brings_film(plan):
        acts.append(Act(minute, "film-gain", MATURE * min(plan.seed_share, practice.most_seed) * differs))
    if plan.method == "mature-rock":
        acts.append(Act(minute, "film-gain", ROCK * differs))
    if "bottled-culture" in plan.helpers:
        # From nothing to a great deal, unless the lesson says what is in it.
        holds = differs**3 if start.bottle is None else start.bottle
        acts.append(Act(minute, "film-gain", BOTTLE * holds if plan.bottle.in_date else 0.0))
    if plan.plants == "many":
        acts.append(Act(minute + GROWS_AFTER_DAYS * DAY, "plants", PLANTS_TAKE))
    if plan.method == "fish-food":
        acts.append(Act(minute, "food", plan.food_g_day * FOOD_MG_N_PER_G / start.setup.net_l))
    return acts


def tank_of(practice: Practice, start: Given, entries: Sequence[Entry]) -> PracticeTank:
    """The simulated tank, with the keeper's own species. entries: of the logbook."""
    own = stock_plan(replay(list(entries))).own_species
    return replace(start.tank(practice.seed), own_species=tuple(own))


def true_run(practice: Practice, entries: Sequence[Entry], until: float | None = None) -> Run:
    """The tank as it truly is. entries: of the logbook; until: minutes on the clock, its own time where left out."""
    start = given_of(practice)
    return course(
        tank_of(practice, start, entries),
        acts_of(practice, start, entries),
        practice.minutes if until is None else until,
    )


def shown_by(practice: Practice, sample: Sample) -> Sample:
    """The water as this tank's kit can show it: without its nitrite once that test has gone blind. sample: the true."""
    blind = any(m.kind == "nitrite-blind" and m.minute <= sample.minute for m in practice.mishaps)
    return sample._replace(no2=0.0) if blind else sample
