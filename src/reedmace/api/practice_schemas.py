"""What practice answers with and takes: lessons, a tank's clock and settings, what passed, vials and jugs."""

from typing import Annotated

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field

from reedmace.practice.clock import Jump, Until, VialPlaces
from reedmace.practice.equipment import Jugful
from reedmace.practice.lesson import Stage
from reedmace.practice.record import Coach


class LessonOut(BaseModel):
    """A lesson, and how far this keeper is with it."""

    id: str
    title: str
    opens: Stage
    task: str
    teaches: str
    goal: str
    lasts_days: int = Field(ge=0, le=400)
    won_count: int = Field(ge=0, description="Times it was won without a loss")
    tried_count: int = Field(ge=0)
    done: bool
    tank_id: int | None = Field(description="A tank on which it is under way")


class LessonList(BaseModel):
    """All lessons in their order."""

    lessons: list[LessonOut]


class Begin(BaseModel):
    """A lesson to begin; the same seed gives the same tank."""

    model_config = ConfigDict(extra="forbid")
    lesson: Annotated[str, Field(min_length=1, max_length=40)]
    coach: Coach = "beside"
    seed: Annotated[int, Field(ge=0, le=2**31 - 1)] | None = None
    tank_id: Annotated[int, Field(ge=1, le=2**53)] | None = Field(
        default=None, description="A real tank to copy, with the lesson free"
    )


class BesideOut(BaseModel):
    """One of the tanks side by side."""

    tank_id: int
    label: str
    opens: Stage


class OwnSeat(BaseModel):
    """The class a practice tank belongs to."""

    name: str = Field(description="What the learner is called there")
    stopped: bool = Field(description="Whether the teacher has stopped the clock")


class PracticeOut(BaseModel):
    """A practice tank: its lesson, its clock, and how it stands set."""

    tank_id: int
    lesson: LessonOut
    now: AwareDatetime
    day: float = Field(ge=0)
    coach: Coach
    reads_vials: bool
    feed: float = Field(ge=0, le=1, description="Share of the ration")
    air_stone: bool
    heater_c: float = Field(ge=0, le=40)
    ended: bool
    label: str = Field(description="What it is called beside the others; empty for one alone")
    beside: list[BesideOut] = Field(description="Every tank of the lesson, this one too; empty for one alone")
    of_class: OwnSeat | None


class PassTime(BaseModel):
    """How far the clock is to go."""

    model_config = ConfigDict(extra="forbid")
    until: Until


class Passed(BaseModel):
    """What passed, and how the tank stands."""

    passed: Jump
    practice: PracticeOut


class SetTank(BaseModel):
    """What is set by hand; what is left out stays."""

    model_config = ConfigDict(extra="forbid")
    coach: Coach | None = None
    reads_vials: bool | None = None
    feed: Annotated[float, Field(ge=0, le=1)] | None = None
    air_stone: bool | None = None
    heater_c: Annotated[float, Field(ge=10, le=36)] | None = None


class WhichKit(BaseModel):
    """The kit a test is made with."""

    model_config = ConfigDict(extra="forbid")
    other: bool = Field(default=False, description="Another kit than the tank's own, borrowed for one test")


class Vials(BaseModel):
    """What the kit shows now. `entered` is what a careful eye reads, where the vials are not to be read."""

    vials: VialPlaces
    entered: dict[str, object] | None


class Jugs(BaseModel):
    """A jug held under every outlet, now."""

    jugs: list[Jugful]


class Ended(BaseModel):
    """Whether a practice tank was removed."""

    removed: bool
