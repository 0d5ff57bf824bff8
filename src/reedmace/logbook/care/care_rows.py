"""Tasks of the care plan with their days, and what the logbook gets when one is done."""

from collections.abc import Mapping
from datetime import datetime, timedelta
from typing import Literal

from pydantic import AwareDatetime, Field

from reedmace.core.contract import Part
from reedmace.core.upkeep import CareTask
from reedmace.core.upkeep.care_plan import CHANGE_SHARE
from reedmace.logbook.care.water_use import pour_words
from reedmace.logbook.replay.entries import AirSeen, Body, CareDone, MediaWork, WaterChange
from reedmace.logbook.replay.state import LogbookState


class CareRow(Part):
    """One task of the care plan with its day, and what "done" records or the stage where it is done."""

    task: CareTask
    at: AwareDatetime
    done: Body | None
    stage: Literal["fit", "cycle"] | None
    pour: str | None = Field(description="What a change pours: litres, hot and cold, salt, treatment")


def care_row(state: LogbookState, task: CareTask, touched: Mapping[str, float], now: datetime) -> CareRow:
    """A task with its day.

    state: the tank's; task: of its care plan; touched: the share of its media one cleaning of each filter touches, by
    its key; now: aware time.
    """
    done: Body | None = None
    stage: Literal["fit", "cycle"] | None = None
    if task.what == "change":
        done = WaterChange(kind="water-change", share=CHANGE_SHARE)
    elif task.what == "clean":
        done = MediaWork(
            kind="media-work", what="rinsed", share=touched[task.filter_key or ""], filter_key=task.filter_key
        )
    elif task.what == "look":
        done = AirSeen(kind="air-seen", bubbles="steady", filter_key=task.filter_key)
    elif task.what in ("guard", "carbon", "socks", "top-up"):
        done = CareDone(kind="care", what=task.what, filter_key=task.filter_key)
    else:
        stage = "fit" if task.what == "flow-test" else "cycle"
    pour = pour_words(state, CHANGE_SHARE, now) if task.what == "change" else None
    return CareRow(task=task, at=now + timedelta(days=task.in_days), done=done, stage=stage, pour=pour)
