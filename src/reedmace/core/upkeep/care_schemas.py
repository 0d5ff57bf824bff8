"""Input and answer of a tank's care plan. Times are days from now; what is past is negative."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Name, Part, Question, Share, number
from reedmace.core.upkeep.water_tasks import CaredKh, CaredTopUp

CHANGE_DAYS = 7.0
"""Days between water changes (common practice)."""
CareWhat = Literal[
    "clean", "flow-test", "look", "guard", "socks", "carbon", "change", "test", "soda", "top-up", "feed-young"
]


class CaredFilter(Part):
    """One filter as the plan sees it."""

    key: Name
    name: Name
    title: Name = Field(description="What its cleaning is called")
    every_days: Annotated[float, number("days", 0.5, 4000, "Between cleanings, by its food, foam and kind")]
    since_cleaned_days: Annotated[float, number("days", 0, 40000)]
    fades_in_days: (
        Annotated[float, number("days", -4000, 4000, "Until its measured flow reaches the service limit")] | None
    ) = None
    since_flow_test_days: Annotated[float, number("days", 0, 40000)] | None = None
    air: bool = Field(default=False, description="Driven by air: its bubbles are looked at, not timed")
    since_look_days: Annotated[float, number("days", 0, 40000)] = 0
    film_share: Share = Field(default=1.0, description="Of the film in all filters, what it holds")
    touched_share: Share = Field(default=0.5, description="Of its film, what one cleaning touches")
    minutes: Annotated[float, number("min", 0, 600)] = 15
    since_guard_days: Annotated[float, number("days", 0, 40000, "None where it has no guard")] | None = None
    since_carbon_days: Annotated[float, number("days", 0, 40000, "None where it holds no carbon")] | None = None
    since_socks_days: Annotated[float, number("days", 0, 40000, "None where it has no socks")] | None = None
    socks_every_days: Annotated[float, number("days", 0.05, 4000)] = 7


class Away(Part):
    """An absence of the keeper."""

    from_days: Annotated[float, number("days", -4000, 4000)]
    to_days: Annotated[float, number("days", -4000, 4000)]


DaysFromNow = Annotated[float, number("days", -40000, 4000)]


class RoundVisit(Part):
    """One task of the tank that a room's round reckoned with."""

    what: CareWhat
    filter_key: Name | None = None
    due_day: Annotated[DaysFromNow, Field(description="When it was due as the round was taken on, from now")]
    walk_days: Annotated[list[DaysFromNow], Field(max_length=7, description="From now; none where it is left over")]


class RoundWeek(Part):
    """The week of a room's round, as far as it concerns one tank."""

    until_days: Annotated[float, number("days", 0, 7, "To the end of its week")]
    visits: Annotated[list[RoundVisit], Field(max_length=100)]


class CarePlanQuestion(Question):
    """A running tank: its filters, when tasks were last done, and absences."""

    filters: Annotated[list[CaredFilter], Field(max_length=12)] = Field(default_factory=list)
    since_animals_days: Annotated[float, number("days", 0, 40000, "Since animals were last put in")] | None = None
    since_trouble_days: (
        Annotated[float, number("days", 0, 40000, "Since poison was last read, or a filter stood for hours")] | None
    ) = None
    poison_for_days: Annotated[
        float, number("days", 0, 40000, "For how long every test has read some, up to the last that did")
    ] = 0
    since_change_days: Annotated[float, number("days", 0, 40000)] = 0
    since_test_days: Annotated[float, number("days", 0, 40000)] = 0
    change_every_days: Annotated[float, number("days", 1, 120)] = CHANGE_DAYS
    change_day_in_days: (
        Annotated[float, number("days", 0, 7, "To the weekday on which the keeper changes water")] | None
    ) = None
    top_up: CaredTopUp | None = Field(default=None, description="None where next to nothing evaporates")
    kh: CaredKh | None = Field(default=None, description="None where it is not known")
    left_out: Annotated[list[CareWhat], Field(max_length=9, description="Asked for elsewhere: not in this plan")] = (
        Field(default_factory=list)
    )
    away: Annotated[list[Away], Field(max_length=20)] = Field(default_factory=list)
    round_week: RoundWeek | None = Field(default=None, description="Where the tank is on the round of its room")
    horizon_days: Annotated[float, number("days", 7, 400)] = 60


class CareTask(Part):
    """One task, once."""

    what: CareWhat
    filter_key: Name | None
    title: str
    why: str
    in_days: Annotated[float, number("days", 0, 4000, "From now; 0 when it is due or late")]
    late_days: Annotated[float, number("days", 0, 40000)]
    moved: str | None = Field(description="Why it is not on the day it would fall on")
    film_left_share: Share = Field(description="Of the film in all filters, after it")
    every_days: Annotated[float, number("days", 0, 4000, "After which it comes back")]
    not_before_days: Annotated[
        float, number("days", 0, 4000, "While a film settles, rests beside another or from its last cleaning")
    ]
    minutes: Annotated[float, number("min", 0, 600)]


class CarePlanAnswer(Answer):
    """Every task within the horizon, soonest first, and the work it makes."""

    tasks: list[CareTask]
    weekly_minutes: Annotated[float, number("min", 0, 1e5)]
    crowded: str | None = Field(description="Why cleanings cannot keep a fortnight apart here")
