"""Input and output of the ranking."""

from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Celsius, Lph, Name, Part, Question, number, whole
from reedmace.core.filter.choice.changes import Change
from reedmace.core.filter.choice.margins import Margin
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.learned import LearnedRelation
from reedmace.core.filter.media.basket import Basket
from reedmace.core.filter.site.site import Plumbing, Priorities, Site
from reedmace.core.stock import Animals
from reedmace.core.stock.species import Species

MOST_SHOWN = 60
"""Most rows of each output list. A long shelf is scored whole; the remainder is counted, not listed."""


MOST_PAIRS = 5


class InstalledFilter(Part):
    """A filter installed on this tank: its hoses and its media."""

    filter_id: Name
    plumbing: Plumbing
    media: Annotated[list[Basket], Field(max_length=12)] = Field(default_factory=list)


class RankFiltersQuestion(Question):
    """Site, animals, plumbing, priorities, and the boxes to choose from; without any, boxes as usually made."""

    site: Site
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    plumbing: Plumbing = Field(default_factory=Plumbing)
    priorities: Priorities | None = Field(default=None, description="Left out, a sensible start for the room")
    own_filters: Annotated[list[Filter], Field(max_length=5000)] = Field(default_factory=list)
    learned: Annotated[
        list[LearnedRelation],
        Field(max_length=100, description="How boxes as usually made differ from memory, learned where this runs"),
    ] = Field(default_factory=list)
    running_ids: Annotated[list[Name], Field(max_length=8, description="Filters already on this tank")] = Field(
        default_factory=list
    )
    days_since_cleaning: (
        Annotated[float, number("days", 0, 1000, "For the flow in service; left out, each kind's usual interval")]
        | None
    ) = None
    installed: Annotated[list[InstalledFilter], Field(max_length=12)] = Field(
        default_factory=list, description="Filters whose own hoses and media are known; the rest take the plumbing"
    )
    hose_m: dict[str, Annotated[float, number("m", 0.2, 50)]] = Field(
        default_factory=dict, description="Both hoses as they would be laid out, by filter id; as planned where none"
    )
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Really fed; left out, by the animals")] | None = None
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] = 0.30
    temperature_c: Celsius = 25


class Contribution(Part):
    """Contribution of one priority: weight (share of all weights) times score."""

    priority: str
    score: Annotated[float, number("share", 0, 1)]
    points: Annotated[float, number("points of 100", 0, 100)]


class Candidate(Part):
    """One filter on this tank."""

    filter_id: Name
    name: Name
    kind: KindName
    box_lph: Lph
    delivered_lph: Lph
    dirty_lph: Lph
    service_day: Annotated[float, number("days", 0, 4000, "Between cleanings here")]
    turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)]
    rise_m: Annotated[float, number("m", 0, 100, "Height the water is really lifted")]
    watts: Annotated[float, number("W", 0, 5000)]
    price: Annotated[float, number("money", 0, 1e6, "Its air pump included, where the tank has one of its own")]
    air_pump_price: Annotated[float, number("money", 0, 1e6, "Of that, what the air pump costs")]
    price_known: bool = Field(description="False where the price is a usual one, to compare by")
    noise_db: Annotated[float, number("dB", 0, 140, "At a metre, here")]
    money_three_years: Annotated[float, number("money", 0, 1e9)]
    media_kg: Annotated[float, number("kg", 0, 1e4, "If its media space held ceramic, about 0.55 kg/L")]
    film_m2: Annotated[float, number("m²", 0, 1e5, "If its media space held medium foam")]
    carries_times_count: Annotated[float, number("times the load", 0, 1e6, "As its margin of biology says")]
    enough_by_film: bool = Field(description="Film enough, slow only by the turnover asked")
    score: Annotated[float, number("points of 100", 0, 100)]
    reason: str
    caveats: list[str]
    margins: list[Margin]
    contributions: list[Contribution]


class Pair(Part):
    """Two filters side by side, each able to carry the load alone."""

    filter_ids: list[Name]
    name: str
    delivered_lph: Lph
    dirty_lph: Lph
    turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)]
    watts: Annotated[float, number("W", 0, 1e4)]
    price: Annotated[float, number("money", 0, 1e6, "Its air pump included, where the tank has one of its own")]
    air_pump_price: Annotated[float, number("money", 0, 1e6, "Of that, what the air pump costs")]
    price_known: bool = Field(description="False where the price is a usual one, to compare by")
    noise_db: Annotated[float, number("dB", 0, 140, "At a metre, here")]
    score: Annotated[float, number("points of 100", 0, 100)]
    margins: list[Margin]
    would_rank: Annotated[int, whole(1, 10000, "Its place among the single filters")]


class Excluded(Part):
    """One filter that does not fit, why, and what would admit it."""

    filter_id: Name
    name: Name
    kind: KindName
    box_lph: Lph
    delivered_lph: Lph
    reason: str
    remedy: str
    would_rank: Annotated[int, whole(1, 10000, "The place it would take if this one thing were changed")] | None


class RankFiltersAnswer(Answer):
    """Main results of the ranking.

    The best in order, pairs, exclusions, changes that would alter the first place, and whether a filter is needed at
    all.
    """

    fitting_count: Annotated[int, whole(0, 10000, "How many fit, of which the first 60 are listed")]
    excluded_count: Annotated[int, whole(0, 10000, "How many were left out, of which the nearest 60 are listed")]
    first: list[Name] = Field(description="Ids of the filter or the pair to look at first")
    ranked: list[Candidate]
    pairs: list[Pair]
    excluded: list[Excluded]
    single_change: str | None
    changes: list[Change]
    too_many: str | None = Field(description="Why these animals are too many whatever the filter, null where not")
    enough: str | None = Field(description="Why no further filter is needed, null where one is")
    priorities: Priorities
    asked_low_lph: Lph
    asked_high_lph: Lph
