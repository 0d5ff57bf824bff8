"""Recurring tasks of one tank for its room's round, with the times of their last and next."""

from datetime import datetime, timedelta
from typing import Annotated, Literal

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Part, number
from reedmace.core.filter.kinds import kind_of
from reedmace.core.quantity import formatting
from reedmace.core.stock.brood import times_in_words
from reedmace.core.upkeep.care_plan import CHANGE_SHARE
from reedmace.core.upkeep.care_schemas import CareWhat
from reedmace.core.upkeep.room_round import CHANGE_SETUP_MIN, MEAL_MIN
from reedmace.logbook.care.brood_care import BroodCare, brood_care
from reedmace.logbook.care.care_rows import care_row
from reedmace.logbook.care.due import tops_up
from reedmace.logbook.care.last_done import last_done
from reedmace.logbook.care.upkeep_log import care
from reedmace.logbook.replay.entries import Body, CareDone
from reedmace.logbook.replay.equipment import installed_filters
from reedmace.logbook.replay.water import net_litres
from reedmace.logbook.rooms.shared_resources import RoomTank


class TankTask(Part):
    """One recurring task of a tank."""

    key: str = Field(description="Tank, task and filter")
    tank_id: int = Field(ge=1, le=2**53)
    what: CareWhat
    filter_key: str | None
    title: str
    why: str
    every_days: Annotated[float, number("days", 0, 4000)]
    due_at: AwareDatetime
    not_before_at: AwareDatetime
    waits: str | None = Field(description="Why it is not on the day it would fall on")
    done_at: AwareDatetime | None = Field(description="When it was last done")
    minutes: Annotated[float, number("min", 0, 600, "A change: besides the pumping")]
    litres: Annotated[float, number("L", 0, 1e6, "Of a change")]
    sponge: bool = Field(description="The squeeze of an air-driven filter")
    done: Body | None = Field(description="What the logbook gets when it is done")
    stage: Literal["fit", "cycle"] | None = Field(description="Where it is done, if not by a press")
    pour: str | None = Field(description="What a change pours")


def round_tasks(tank: RoomTank, now: datetime) -> list[TankTask]:
    """A tank's recurring tasks, the next of each; none while nothing lives in it. tank: it; now: aware time."""
    state, found = tank.state, _feeding(tank, now)
    plan = care(state, now, rounds=False)
    if plan is None:
        return found
    installed = {one.key: one for one in installed_filters(state)}
    touched = {key: kind_of(one.filter.kind).care.share for key, one in installed.items()}
    seen = set[tuple[CareWhat, str | None]]()
    for task in plan.tasks:
        # Bubbles are looked at in passing, a whole shelf at once.
        unasked = task.what == "look" or (task.what == "top-up" and not tops_up(state))
        if (task.what, task.filter_key) in seen or unasked:
            continue
        seen.add((task.what, task.filter_key))
        row = care_row(state, task, touched, now)
        change = task.what == "change"
        found.append(
            TankTask(
                key=f"{tank.id}:{task.what}:{task.filter_key or ''}",
                tank_id=tank.id,
                what=task.what,
                filter_key=task.filter_key,
                title=task.title,
                why=task.why,
                every_days=task.every_days,
                due_at=now + timedelta(days=task.in_days - task.late_days),
                not_before_at=now + timedelta(days=max(task.not_before_days, task.in_days if task.moved else 0.0)),
                waits=task.moved,
                done_at=last_done(state, task.what, task.filter_key),
                minutes=CHANGE_SETUP_MIN if change else task.minutes,
                litres=CHANGE_SHARE * net_litres(state) if change else 0.0,
                sponge=task.what == "clean" and task.filter_key in installed and installed[task.filter_key].filter.air,
                done=row.done,
                stage=row.stage,
                pour=row.pour,
            )
        )
    return found


def _feeding(tank: RoomTank, now: datetime) -> list[TankTask]:
    """The day's meals of a tank's young, all its broods in one task; none while none of them eat."""
    eating = [one for one in brood_care(tank.state, now) if _eats(one)]
    if not eating:
        return []
    # How often those of a species that nobody described eat is not known: at least one meal.
    known = [one.answer.meals_count for one in eating if one.answer is not None]
    meals = max(known, default=1)
    fed_at = last_done(tank.state, "feed-young", None)
    due_at = now if fed_at is None else max(fed_at + timedelta(days=1), now - timedelta(days=1))
    return [
        TankTask(
            key=f"{tank.id}:feed-young:",
            tank_id=tank.id,
            what="feed-young",
            filter_key=None,
            title=f"Feed the young {times_in_words(meals)}" if known else "Feed the young",
            why=" ".join(_meal_words(one) for one in eating),
            every_days=1.0,
            due_at=due_at,
            not_before_at=due_at - timedelta(days=0.5),
            waits=None,
            done_at=fed_at,
            minutes=MEAL_MIN * meals * len(eating),
            litres=0.0,
            sponge=False,
            done=CareDone(kind="care", what="feed-young"),
            stage=None,
            pour=None,
        )
    ]


def _eats(one: BroodCare) -> bool:
    """Whether it has young that take food, of a described species or not."""
    if one.answer is None:
        return one.free_at is not None
    return one.answer.food is not None and one.answer.count > 0


def _meal_words(one: BroodCare) -> str:
    """What its young eat, or that nobody described it."""
    if one.answer is None:
        return one.verdict
    return f"{one.common_name}: {formatting.inside(one.answer.food or '')}."
