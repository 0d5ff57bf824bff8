"""The six stages in a few words each."""

from datetime import datetime
from typing import Literal

from pydantic import Field, ValidationError

from reedmace.core.contract import Part
from reedmace.core.cycle import CycleReadinessQuestion, cycle_readiness
from reedmace.core.errors import CannotAnswer, ReedmaceError
from reedmace.core.quantity import formatting
from reedmace.logbook.replay.arrival import came_at, ran_already, since
from reedmace.logbook.replay.current_plans import stock_plan, tank_plan
from reedmace.logbook.replay.cycle_log import cycle_log
from reedmace.logbook.replay.equipment import EquippedFilter, installed_filters, steps_of
from reedmace.logbook.replay.measured_flows import all_flows
from reedmace.logbook.replay.state import LogbookState
from reedmace.logbook.replay.water import volume

StageName = Literal["tank", "stock", "filter", "fit", "cycle", "keep"]


class Stage(Part):
    """One stage: done, begun or open, and its state in words."""

    stage: StageName
    state: Literal["done", "begun", "open"]
    words: str


class NextStep(Part):
    """What comes next on the way to animals, and what is left of it after."""

    stage: StageName
    words: str = Field(description='As a button says it: "choose its filter"')
    left: list[str] = Field(description="What is left after it, until animals live there")


_STEPS: dict[StageName, str] = {
    "tank": "measure the tank",
    "stock": "choose the animals",
    "filter": "choose its filter",
    "fit": "fit it",
    "cycle": "cycle it",
}
_GOING_ON: dict[StageName, str] = {"fit": "go on fitting", "cycle": "go on with its cycle"}


def next_step(stages: list[Stage]) -> NextStep | None:
    """The first stage that is not done; None where all are, or where the figures do not agree. stages: of a tank."""
    if any(s.words == DISAGREE for s in stages):
        return None
    waiting = [s for s in stages if s.stage in _STEPS and s.state != "done"]
    if not waiting:
        return None
    words = [_GOING_ON.get(s.stage, _STEPS[s.stage]) if s.state == "begun" else _STEPS[s.stage] for s in waiting]
    return NextStep(stage=waiting[0].stage, words=words[0], left=words[1:])


DISAGREE = "figures do not agree"


def rows_or_fault(state: LogbookState, now: datetime) -> tuple[list[Stage], str | None]:
    """The six stages, or, where the plans contradict each other, rows that say so and the reason.

    state: the tank's; now: aware time. One tank that cannot be worked out must not close the others.
    """
    try:
        return stage_rows(state, now), None
    except (CannotAnswer, ValidationError) as error:
        names: tuple[StageName, ...] = ("tank", "stock", "filter", "fit", "cycle", "keep")
        rows = [Stage(stage=n, state="begun" if n == "tank" else "open", words=DISAGREE) for n in names]
        return rows, str(error) if isinstance(error, ReedmaceError) else "a plan holds a figure outside its range"


Row = tuple[Literal["done", "begun", "open"], str]


def stage_rows(state: LogbookState, now: datetime) -> list[Stage]:
    """State of each of the six stages.

    state: the tank's; now: aware time.
    """
    installed = installed_filters(state)
    rows: list[tuple[StageName, Row]] = [
        ("tank", _tank(state)),
        ("stock", _stock(state)),
        ("filter", _filter(state, installed)),
        ("fit", _fit(state, installed)),
        ("cycle", _cycle(state, now)),
        ("keep", _keep(state)),
    ]
    return [Stage(stage=name, state=row[0], words=row[1]) for name, row in rows]


def _tank(state: LogbookState) -> Row:
    if not state.tank_plan:
        return "open", "not measured"
    v = volume(state)
    if tank_plan(state).by_litres:
        return "done", f"{formatting.litres(v.net_l)}, sizes not measured"
    return "done", f"{formatting.litres(v.net_l)} net, {formatting.litres.twin(v.net_l)}"


def _stock(state: LogbookState) -> Row:
    count = sum(a.count for a in stock_plan(state).animals)
    return ("done", f"{count} animal{'s' if count != 1 else ''}") if count else ("open", "none chosen")


def _filter(state: LogbookState, installed: list[EquippedFilter]) -> Row:
    if not installed:
        return ("begun" if state.filter_plan else "open"), "choosing"
    names = [h.filter.name for h in installed]
    return "done", names[0] if len(names) == 1 else f"{names[0]} and {len(names) - 1} more"


def _fit(state: LogbookState, installed: list[EquippedFilter]) -> Row:
    if not installed:
        return "open", "after choosing"
    asked = {h.key: [s.id for s in steps_of(state, h).steps] for h in installed if not ran_already(state, h.key)}
    all_steps = sum(len(ids) for ids in asked.values())
    done = sum(i in state.ticked(key) for key, ids in asked.items() for i in ids)
    if done < all_steps:
        return ("begun" if done else "open"), f"{done} of {all_steps} steps"
    flows = [all_flows(state, h.key) for h in installed]
    if all(flows):
        return "done", f"{formatting.lph(sum(f[-1][1] for f in flows))} measured"
    return "done", "done" if asked else "runs already"


def _cycle(state: LogbookState, now: datetime) -> Row:
    log = cycle_log(state, now)
    came = came_at(state)
    if came and not (log is not None and log.method == "animals-in"):
        days = (now - came[0]).days
        return "done", f"stocked {formatting.long_time(days)}" if days >= 60 else f"stocked day {max(days, 0)}"
    if log is None:
        began = since(state)
        return "open", "not begun" if began is None else f"day {(now - began).days}, not planned here yet"
    ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready
    return ("done" if ready else "begun"), f"day {int(log.day_now)}, {'ready' if ready else 'not yet ready'}"


def _keep(state: LogbookState) -> Row:
    count = len(state.flow_tests) + len(state.readings) + len(state.events)
    words = f"{count} {'entries' if count != 1 else 'entry'}" if count else "logbook empty"
    return ("begun" if count else "open"), words
