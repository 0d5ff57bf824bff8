"""What a class of practice is asked, and what it answers."""

from typing import Annotated

from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, StringConstraints

from reedmace.api.practice_schemas import LessonOut
from reedmace.practice.judgement import ReadPoint, TruePoint
from reedmace.practice.mishaps import MishapKind
from reedmace.practice.record import Coach

Code = Annotated[str, StringConstraints(min_length=4, max_length=8, pattern=r"^[0-9A-Za-z]+$")]


LearnerName = Annotated[str, StringConstraints(min_length=1, max_length=40, strip_whitespace=True)]


Mg = Annotated[float, Field(ge=0, le=1e5)]


class OpenClass(BaseModel):
    """A lesson for a class; one tank alike for all, or each their own."""

    model_config = ConfigDict(extra="forbid")
    lesson: Annotated[str, Field(min_length=1, max_length=40)]
    alike: bool = Field(default=True, description="Whether all get the same tank")
    coach: Coach = "when-wrong"


class ClassOut(BaseModel):
    """A class: its code for the wall, its lesson, and how it stands."""

    id: int
    code: str
    lesson: LessonOut
    alike: bool
    coach: Coach
    stopped: bool
    uncovered: bool
    until: AwareDatetime = Field(description="When it is forgotten")
    learners_count: int = Field(ge=0, le=40)


class ClassList(BaseModel):
    """The classes of a teacher, newest first."""

    classes: list[ClassOut]


class TrueNow(BaseModel):
    """What is true in a learner's tank."""

    ammonia_mg_n_l: Mg
    nitrite_mg_n_l: Mg
    clears_mg_n_l_day: Mg
    lost_count: int = Field(ge=0)
    equipment: list[str] = Field(description="What the filter truly does; empty but in lessons about it")


class Learner(BaseModel):
    """A learner's tank on the board. `truth` stands there once it is uncovered."""

    id: int
    name: str
    day: float = Field(ge=0)
    believed: str
    alive_count: int = Field(ge=0)
    tests_count: int = Field(ge=0)
    ended: bool
    truth: TrueNow | None


class Spread(BaseModel):
    """One figure over the class."""

    what: str
    least: float
    middle: float
    most: float


class Board(BaseModel):
    """A class with all its learners, and what may be sent to them."""

    of_class: ClassOut
    learners: list[Learner]
    mishaps: dict[MishapKind, str]
    spreads: list[Spread] = Field(description="Over the learners, once uncovered")


class Control(BaseModel):
    """What a teacher sets; what is left out stays."""

    model_config = ConfigDict(extra="forbid")
    stopped: bool | None = None
    uncovered: bool | None = None
    mishap: MishapKind | None = None


class Controlled(BaseModel):
    """The class as it stands, and how many tanks a mishap was sent to."""

    of_class: ClassOut
    sent_count: int = Field(ge=0)


class Course(BaseModel):
    """A learner's whole course, uncovered."""

    name: str
    days: float
    truth: list[TruePoint]
    read: list[ReadPoint]


class ClassSeen(BaseModel):
    """What stands on the page of a class before one has joined."""

    title: str
    task: str
    goal: str
    full: bool


class JoinClass(BaseModel):
    """A name to be called by; nothing else is asked."""

    model_config = ConfigDict(extra="forbid")
    name: LearnerName


class Joined(BaseModel):
    """The learner's own tank, and the stage it opens in."""

    tank_id: int
    opens: str


class Closed(BaseModel):
    """Whether a class was forgotten."""

    removed: bool
