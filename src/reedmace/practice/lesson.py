"""A lesson: what is given, what happens on the way, what it teaches, how it is judged. One file each in `lessons`."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cache, lru_cache
from importlib import import_module
from pkgutil import iter_modules
from typing import Any, Literal, Protocol

import numpy as np

from reedmace.core.filter.shelf_box import ShelfItem
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

DAY = 1440.0
Stage = Literal["tank", "stock", "filter", "fit", "cycle", "keep"]


@dataclass(frozen=True)
class Written:
    """An entry that stands in the logbook when a lesson begins. minute: on its clock; body: as sent to the logbook."""

    minute: float
    body: dict[str, Any]


@dataclass(frozen=True)
class Mishap:
    """Something that happens on the way.

    minute: on the clock; seen: what the keeper sees, empty where nothing; acts: what it does.
    """

    minute: float
    seen: str
    acts: tuple[Act, ...]
    told: str = ""
    """What the end tells of one that nobody sees."""


@dataclass(frozen=True)
class Given:
    """The start of a lesson with one seed.

    setup: the true tank; entries: its logbook; acts: what was done to the true tank before; minute: where the clock
    stands; mishaps: what is to come.
    """

    setup: Setup
    entries: Sequence[Written]
    acts: Sequence[Act] = ()
    minute: float = 0.0
    mishaps: Sequence[Mishap] = ()
    structure: int | None = None
    bottle: float | None = None
    """What a bottle of culture holds over a usual one that lives; None where it is drawn."""
    uncovers: str = ""
    """What the end tells of how it was given."""
    shelf: Sequence[ShelfItem] = ()
    """Boxes to choose from; a lesson without any leaves the keeper their own."""
    makes: Mapping[str, float] = field(default_factory=dict)
    """What boxes move over what their labels promise, by their ids; others are drawn."""

    def tank(self, seed: int) -> PracticeTank:
        """The simulated tank. seed: of its own parameters."""
        return PracticeTank(self.setup, seed, self.structure)


@dataclass(frozen=True)
class SideTank:
    """One of several tanks a lesson is played on at once.

    label: what it is called; begin: its start, from its own seed, the seed of the play that all share, and draws of its
    own; reached: whether its goal is reached, where it is another than the lesson's.
    """

    label: str
    begin: Callable[[int, int, np.random.Generator], "Given"]
    reached: Callable[["Ending"], bool] | None = None
    opens: Stage | None = None
    """The stage it begins in, where it is another than the lesson's."""


@dataclass(frozen=True)
class Lesson:
    """A lesson. `opens` is the stage it begins in; `rule` the question of the help page that answers it."""

    id: str
    order: int
    title: str
    opens: Stage
    task: str
    teaches: str
    mistake: str
    rule: str
    goal: str
    lasts_days: int
    """Days on its clock after which the goal is usually reached."""
    begin: Callable[[int, np.random.Generator], Given]
    reached: Callable[["Ending"], bool]
    """Whether the goal is reached."""
    side_by_side: tuple[SideTank, ...] = ()
    """Tanks it is played on at once; in a class each learner has one, drawn by `begin`."""
    task_alone: str = ""
    goal_alone: str = ""
    """Task and goal of who has one of these tanks, where they are others."""
    shares_media: bool = False
    """Whether film for the others is taken out of the filter of the first of them."""


def words_of(lesson: Lesson, *, alone: bool) -> tuple[str, str]:
    """(task, goal) in words. alone: for somebody with one tank, as in a class."""
    return (lesson.task_alone or lesson.task, lesson.goal_alone or lesson.goal) if alone else (lesson.task, lesson.goal)


@dataclass(frozen=True)
class Ending:
    """What a lesson is judged by: days passed, animals that came, that live and that died, and what the film clears."""

    days: float
    came: int
    alive: int
    lost: int
    clears: float
    load: float
    """What the animals alive give off, mg N/(L day)."""
    days_with_animals: float
    worst: float = 0.0
    kh_dkh: float = 4.0
    flow_lph: float = 0.0
    """True flow of all filters that hang, L/h."""
    asked_lph: float = 0.0
    """Least flow the animals ask for, L/h."""
    flow_share: float = 1.0
    """Of the clean filter's."""
    timed: bool = False
    """Whether each filter was timed rightly."""
    faults: tuple[str, ...] | None = None
    """Faults of the layout when a plug first went in; None before."""


@cache
def lessons() -> dict[str, Lesson]:
    """Every lesson by its id, in their order. A new one is a file in `lessons` with a `LESSON`."""
    package = import_module("reedmace.practice.lessons")
    found = [import_module(f"{package.__name__}.{m.name}").LESSON for m in iter_modules(package.__path__)]
    return {one.id: one for one in sorted(found, key=lambda one: one.order)}


class Place(Protocol):
    """Which of the tanks side by side, and the seed all of them share."""

    @property
    def place(self) -> int:
        """From 0."""

    @property
    def seed(self) -> int:
        """Of the play."""


def given(lesson: Lesson, seed: int, side: Place | None = None) -> Given:
    """A lesson's start.

    seed: of the tank and of what happens on the way; side: which of its tanks, None where it has one.
    """
    return _given(lesson.id, seed, None if side is None else side.place, 0 if side is None else side.seed)


@lru_cache(maxsize=256)
def _given(lesson_id: str, seed: int, place: int | None, play_seed: int) -> Given:
    lesson = lessons()[lesson_id]
    rng = np.random.default_rng((seed, lesson.order, 17))
    return lesson.begin(seed, rng) if place is None else lesson.side_by_side[place].begin(seed, play_seed, rng)
