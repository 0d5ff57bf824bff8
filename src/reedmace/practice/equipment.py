"""What hangs on a practice tank, in truth: the flow a jug would show, and what was wrong when the plug went in.

A filter moves what its label and the hoses let it, times its make: a share that no label tells.
"""

import zlib
from collections.abc import Sequence
from typing import Annotated, NamedTuple

import numpy as np
from pydantic import Field

from reedmace.core.contract import Name, Part, number
from reedmace.core.filter.choice.requirement import tank_requirement
from reedmace.core.filter.kind_parts.placement import PlacedIssue
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.shelf_box import boxes_of
from reedmace.core.fit.fitting_steps import leak_checks
from reedmace.core.quantity import formatting
from reedmace.logbook.plans.plan_kinds import FittedFilter
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.equipment import EquippedFilter, installed_filters, steps_of
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.practice.lesson import DAY, Given, lessons
from reedmace.practice.record import Practice
from reedmace.standins.practice_run import Run, Sample

USUAL_MAKE, MAKES_SPREAD = 0.95, 0.06
"""Median and spread of what boxes move, over what their labels promise in that tank (memory)."""
JUG_L, BUCKET_L, BUCKET_FROM_LPH = 2.0, 10.0, 1200.0
"""Litres of the jug, of the bucket, and the flow from which a jug fills too fast to time, L/h."""
JUG_SCATTER, FILLS = 0.03, 3
"""Scatter of a time taken by hand, as a share (memory), and how often it is taken."""
TIMED_RIGHT = 0.15
"""Distance of a timed flow from the true one within which it counts as timed, as a share (a stated judgement)."""


class Jugful(Part):
    """A jug held under one outlet: how long it took to fill, each time."""

    filter_key: Name
    filter: str
    container_l: Annotated[float, number("L", 0.05, 200)]
    times_s: list[Annotated[float, number("s", 0, 3600)]] = Field(description="Empty where no water comes")


class TrueFlow(NamedTuple):
    """One pumped filter: its box, what its label promises on this tank when clean, and what it moves now, L/h."""

    key: str
    name: str
    promised_lph: float
    flow_lph: float


class Equipment(NamedTuple):
    """What a lesson is judged by besides water and animals.

    flow_lph: true flow of all filters now; asked_lph: the least the animals ask for; timed: whether each
    filter was chosen from those given and timed rightly; faults: those that stood when the plug went in, None before.
    """

    flow_lph: float
    asked_lph: float
    timed: bool
    faults: tuple[str, ...] | None


def make_of(start: Given, seed: int, filter_id: str) -> float:
    """What a box moves over what its label promises, a share. seed: of the tank; filter_id: of the box."""
    if filter_id in start.makes:
        return start.makes[filter_id]
    rng = np.random.default_rng((seed, 76, zlib.crc32(filter_id.encode())))
    return float(USUAL_MAKE * np.exp(MAKES_SPREAD * rng.standard_normal()))


def true_flows(start: Given, seed: int, state: LogbookState, share: float) -> list[TrueFlow]:
    """Each pumped filter that hangs.

    seed: of the tank; state: of its logbook; share: of the clean flow that is left.
    """
    return [_true_flow(start, seed, one, share) for one in installed_filters(state) if not one.filter.air]


def _true_flow(start: Given, seed: int, one: EquippedFilter, share: float) -> TrueFlow:
    promised = one.flow.delivered_lph
    return TrueFlow(one.key, one.filter.name, promised, promised * make_of(start, seed, one.filter.id) * share)


def _left_on_the_table(practice: Practice, start: Given, state: LogbookState) -> list[TrueFlow]:
    """What a lesson's other boxes would move, each hung by itself. state: of the logbook."""
    hung = {one.filter.id for one in installed_filters(state)}
    boxes = [f for item in start.shelf for f in boxes_of(item) if f.id not in hung]
    alone = [installed_filters(state, [FittedFilter(key=f.id, filter=f)])[0] for f in boxes]
    return [_true_flow(start, practice.seed, one, 1.0) for one in alone]


def jugs(practice: Practice, start: Given, entries: Sequence[Entry], now: Sample) -> list[Jugful]:
    """A jug held under every outlet now. entries: of the logbook; now: the true tank."""
    found = []
    for one in true_flows(start, practice.seed, replay(list(entries)), now.flow):
        rng = np.random.default_rng((practice.seed, 77, round(practice.minutes), zlib.crc32(one.key.encode())))
        jug = BUCKET_L if one.flow_lph >= BUCKET_FROM_LPH else JUG_L
        by_hand = 1 + JUG_SCATTER * rng.standard_normal(FILLS)
        times = [round(jug / one.flow_lph * 3600 * float(b), 1) for b in by_hand] if one.flow_lph >= 10 else []
        found.append(Jugful(filter_key=one.key, filter=one.name, container_l=jug, times_s=times))
    return found


def equipment_of(practice: Practice, start: Given, entries: Sequence[Entry], run: Run) -> Equipment:
    """What hangs on the tank and how it was put there. entries: of the logbook; run: the true one, up to now."""
    state = replay(list(entries))
    flows = true_flows(start, practice.seed, state, run.samples[-1].flow)
    asked = tank_requirement(rank_question(state)).low if stock_plan(state).animals else 0.0
    faults = faults_at_plug(entries)
    return Equipment(
        flow_lph=sum(f.flow_lph for f in flows),
        asked_lph=asked,
        timed=bool(flows) and _from_the_table(start, state) and all(_timed(practice, state, f, run) for f in flows),
        faults=None if faults is None else tuple(f.what for f in faults),
    )


def _from_the_table(start: Given, state: LogbookState) -> bool:
    """Whether what hangs was among the boxes to choose from; always where a lesson gives none."""
    return not start.shelf or all(one.filter.id in start.makes for one in installed_filters(state))


def _timed(practice: Practice, state: LogbookState, one: TrueFlow, run: Run) -> bool:
    """Whether a filter was timed and what was written is near the truth of that moment."""
    clean = one.flow_lph / max(run.samples[-1].flow, 1e-6)
    for at, measured in all_flows(state, one.key):
        true = clean * run.at(max(practice.minute_of(at), 0.0)).flow
        if abs(measured / max(true, 1.0) - 1) <= TIMED_RIGHT:
            return True
    return False


def faults_at_plug(entries: Sequence[Entry]) -> list[PlacedIssue] | None:
    """Faults of the layout when a filter was first switched on; None before. entries: of the logbook."""
    for n, e in enumerate(entries):
        if e.body.kind == "step-done" and e.body.done:
            state = replay(list(entries[: n + 1]))
            one = next((f for f in installed_filters(state) if f.key == e.body.filter_key), None)
            if one is not None and e.body.step_id in leak_checks(kind_of(one.filter.kind)).values():
                return one.plan.faults
    return None


def tests_made(state: LogbookState) -> int:
    """How often a flow was timed. state: of the logbook."""
    return len(state.flow_tests) + len(state.timed_flows)


def believed_of_filters(state: LogbookState) -> str:
    """What a keeper knows of the filters that hang, in a sentence. state: of the logbook."""
    found = []
    for one in installed_filters(state):
        flows, steps = all_flows(state, one.key), steps_of(state, one).steps
        done = sum(step.id in state.ticked(one.key) for step in steps)
        timed = f"timed at {formatting.lph(flows[-1][1])}" if flows else "not timed yet"
        found.append(f"{one.filter.name}: {done} of {len(steps)} steps done, {timed}.")
    return " ".join(found) or "No filter is chosen yet."


def equipment_words(practice: Practice, start: Given, entries: Sequence[Entry], run: Run) -> list[str]:
    """What a lesson's end says of the filter; nothing where neither lesson nor keeper was about it.

    entries: of the logbook; run: the true one.
    """
    state, words = replay(list(entries)), []
    about = lessons()[practice.lesson].opens in ("filter", "fit") or start.setup.clogs_days > 0
    if not about and not tests_made(state):
        return []
    for one in true_flows(start, practice.seed, state, run.samples[-1].flow):
        flows = all_flows(state, one.key)
        read = f"you timed {formatting.lph(flows[-1][1])}" if flows else "nobody held a jug under it"
        words.append(
            f"{formatting.opening(one.name)}: its label promises {formatting.lph(one.promised_lph)} on this tank,"
            f" it truly moves {formatting.lph(one.flow_lph)}; {read}."
        )
    if state.filter_plan is not None and not _from_the_table(start, state):
        words.append("What hangs is none of the boxes that stand on the table: the lesson is won with one of those.")
    words += [
        f"{formatting.opening(one.name)}, left on the table: its label promises {formatting.lph(one.promised_lph)}"
        f" here, it would truly move {formatting.lph(one.flow_lph)}."
        for one in _left_on_the_table(practice, start, state)
    ]
    if start.setup.clogs_days and run.samples[-1].minute > DAY:
        least = min(run.samples, key=lambda s: s.flow)
        words.append(
            f"Dirt took its flow down to {least.flow:.0%} of the clean filter's on day {least.minute / DAY:.0f}; at the"
            f" end it had {run.samples[-1].flow:.0%}."
        )
    if (faults := faults_at_plug(entries)) is not None:
        words += [f"When the plug went in: {f.what} {f.remedy}" for f in faults]
        if not faults:
            words.append("When the plug went in nothing was wrong any more.")
    return words
