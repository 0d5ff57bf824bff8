"""The six stages in a few words each, for the stem."""

from datetime import datetime
from typing import Literal

from reedmace.core.cycle import CycleReadinessQuestion, cycle_readiness
from reedmace.core.filter import FilterKind
from reedmace.core.fit import FittingStepsQuestion, fitting_steps
from reedmace.core.working import Part
from reedmace.logbook.entries import FilterPlan, FlowTest, Stocking, StockPlan
from reedmace.logbook.questions import cycle_log, volume
from reedmace.logbook.standing import Standing

StageName = Literal["tank", "stock", "filter", "fit", "cycle", "keep"]


class Stage(Part):
    """One stage: done, begun or open, and where it stands in words."""

    stage: StageName
    state: Literal["done", "begun", "open"]
    words: str


def stem(standing: Standing, now: datetime) -> list[Stage]:
    """Where each of the six stages stands.

    standing: the tank's; now: aware time.
    """
    v = volume(standing)
    stages = [
        Stage(stage="tank", state="done", words=f"{v.net_l:.0f} L net, {v.net_us_gal:.0f} US gal")
        if standing.tank_plan
        else Stage(stage="tank", state="open", words="not measured")
    ]
    stock = standing.stock_plan.body if standing.stock_plan else None
    count = sum(a.count for a in stock.animals) if isinstance(stock, StockPlan) else 0
    stages.append(
        Stage(
            stage="stock",
            state="done" if count else "open",
            words=f"{count} animal{'s' if count != 1 else ''}" if count else "none chosen",
        )
    )
    plan = standing.filter_plan.body if standing.filter_plan else None
    chosen = plan.chosen if isinstance(plan, FilterPlan) else None
    stages.append(
        Stage(
            stage="filter",
            state="done" if chosen else "begun" if plan else "open",
            words=chosen.name if chosen else "choosing",
        )
    )
    stages.append(_fit(standing, chosen.kind if chosen else None))
    log = cycle_log(standing, now)
    stocked = next((e for e in standing.events if isinstance(e.body, Stocking) and e.body.count > 0), None)
    if stocked is not None and not (log is not None and log.method == "animals-in"):
        days = (now - stocked.at).days
        words = f"stocked {days // 30} months" if days >= 60 else f"stocked day {max(days, 0)}"
        stages.append(Stage(stage="cycle", state="done", words=words))
    elif log is None:
        stages.append(Stage(stage="cycle", state="open", words="not begun"))
    else:
        ready = cycle_readiness(CycleReadinessQuestion(log=log)).ready
        stages.append(
            Stage(
                stage="cycle",
                state="done" if ready else "begun",
                words=f"day {int(log.day_now)}, {'ready' if ready else 'not yet ready'}",
            )
        )
    count = len(standing.flow_tests) + len(standing.readings) + len(standing.events)
    stages.append(
        Stage(
            stage="keep",
            state="begun" if count else "open",
            words=f"{count} {'entries' if count != 1 else 'entry'}" if count else "logbook empty",
        )
    )
    return stages


def _fit(standing: Standing, kind: FilterKind | None) -> Stage:
    if kind is None:
        return Stage(stage="fit", state="open", words="after choosing")
    steps = fitting_steps(FittingStepsQuestion(kind=kind)).steps
    done = sum(s.id in standing.steps_done for s in steps)
    test = standing.flow_tests[-1].body if standing.flow_tests else None
    if done == len(steps):
        words = "done"
        if isinstance(test, FlowTest):
            flow = test.container_l * 3600 * sum(1 / t for t in test.times_s) / len(test.times_s)
            words = f"{flow:.0f} L/h measured"
        return Stage(stage="fit", state="done", words=words)
    return Stage(stage="fit", state="begun" if done else "open", words=f"{done} of {len(steps)} steps")
