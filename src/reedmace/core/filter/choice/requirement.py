"""Requirement of a tank on its filters by the rules followed.

On one filter, on a set, and on filters admitted for their film.
"""

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np

from reedmace.core.film import film_needed_m2
from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.limits import Requirement, enough_by_film
from reedmace.core.filter.choice.margins import Available, Required
from reedmace.core.filter.filter_flow import current_preferences, oxygen_consumers
from reedmace.core.filter.sizing_rules import flow_requirement_here
from reedmace.core.flow.currents import CurrentPreference
from reedmace.core.flow.oxygen_balance import OxygenConsumer
from reedmace.core.quantity import formatting
from reedmace.core.stock import WasteLoadQuestion, body_mass_g, waste_load
from reedmace.core.stock.crowding import too_many
from reedmace.core.stock.flow_demand import DEMANDING
from reedmace.core.stock.species import Sizing, find_species


@dataclass(frozen=True)
class TankRequirement:
    """Requirement of a tank on its filters by the rules followed.

    On one filter, on a set, and on filters admitted for their film.
    """

    low: float
    high: float
    load_mg_n_day: float
    today_mg_n_day: float
    film_m2: float
    load_lph: float
    feed: float
    guard: list[str]
    current_preferences: list[CurrentPreference]
    oxygen_consumers: list[OxygenConsumer]
    sizing: Sizing
    coarse: bool
    has_young: bool
    too_many: str | None
    light: bool

    def for_limits(self) -> Requirement:
        """The same for the hard limits."""
        return Requirement(self.sizing, self.low, self.film_m2, self.coarse)

    def for_margins(self, q: RankFiltersQuestion) -> Required:
        """The same for biology, clarity and movement. q: the question."""
        return Required(
            grown_mg_n_day=self.load_mg_n_day,
            today_mg_n_day=self.today_mg_n_day,
            tank_film_m2=q.site.film_here_m2,
            temperature_c=q.temperature_c,
            low_lph=self.low,
        )


def requirement_of(question: RankFiltersQuestion) -> Required:
    """Requirement on any set of filters in biology, clarity and movement. question: as for the ranking."""
    return tank_requirement(question).for_margins(question)


def is_enough_by_film(question: RankFiltersQuestion, has: Available) -> bool:
    """Whether a set is enough by its film although slow, by the ranking's own limit.

    question: as for the ranking; has: the set's film in m² and flows in L/h.
    """
    service, film = np.array([has.service_lph]), np.array([has.film_m2])
    return bool(enough_by_film(question.site, service, film, tank_requirement(question).for_limits())[0])


COARSE_G = 80.0
"""Grown mass of one messy animal from which its dirt must be strained, g (memory): a filter is bought for the adult."""


YOUNG_CM = 2.0
"""Length today up to which any animal can be drawn into an intake, cm (memory)."""


def _has_young(q: RankFiltersQuestion, sizing: Sizing) -> bool:
    """Whether young, shrimp or other gentle animals live there."""
    small = any((a.length_cm or YOUNG_CM + 1) <= YOUNG_CM for a in q.animals)
    guarded = any(find_species(a.species_id, "animals", q.own_species).needs_guard for a in q.animals)
    return small or guarded or (sizing == "gentle" and bool(q.animals))


def _is_coarse(q: RankFiltersQuestion) -> bool:
    for a in q.animals:
        s = find_species(a.species_id, "animals", q.own_species)
        # What wants still water is fed and cleaned by hand, under a sponge as well.
        if s.current == "gentle":
            continue
        if s.sizing in DEMANDING and body_mass_g(s.adult_length_cm, s.body_form) >= COARSE_G:
            return True
    return False


_BESIDE_WATER: dict[str, Any] = {
    "own_filters": [], "installed": [], "running_ids": [], "hose_m": {}, "priorities": None, "learned": [],
}  # fmt: skip
"""Fields of a question that change nothing about what a tank asks for, emptied."""


def water_of(q: RankFiltersQuestion) -> str:
    """A tank with its animals as JSON, whatever filters and wishes are tried on it. q: as for the ranking."""
    return q.model_copy(update=_BESIDE_WATER).model_dump_json()


def tank_requirement(q: RankFiltersQuestion) -> TankRequirement:
    """Requirement of this tank on any filter, kept while filters and wishes change. q: as for the ranking."""
    return _requirement(water_of(q), formatting.chosen())


@lru_cache(maxsize=128)
def _requirement(water: str, _units: formatting.Units) -> TankRequirement:
    """Requirement of a tank. water: from `water_of`; _units: of its words."""
    q = RankFiltersQuestion.model_validate_json(water)
    flow = flow_requirement_here(q.site, q.animals, q.own_species, q.temperature_c)
    followed = next(s for s in flow.sizing_rules if s.followed)
    load = next(s for s in flow.sizing_rules if s.rule == "load")
    waste = waste_load(
        WasteLoadQuestion(net_l=q.site.net_l, animals=q.animals, own_species=q.own_species, feed_g_day=q.feed_g_day)
    )
    present = [find_species(a.species_id, "animals", q.own_species) for a in q.animals]
    return TankRequirement(
        sizing=flow.sizing,
        coarse=_is_coarse(q),
        too_many=too_many(waste, q.site.net_l, q.site.length_cm, q.own_species),
        has_young=_has_young(q, flow.sizing),
        light=flow.light,
        current_preferences=current_preferences(q.animals, q.own_species),
        oxygen_consumers=oxygen_consumers(q.animals, q.own_species),
        film_m2=film_needed_m2(min(waste.today_mg_n_day, waste.ammonia_mg_n_day), q.temperature_c),
        today_mg_n_day=waste.today_mg_n_day,
        low=followed.low_lph or 0.0,
        high=followed.high_lph or 0.0,
        load_mg_n_day=waste.ammonia_mg_n_day,
        load_lph=load.low_lph or 0.0,
        feed=waste.feed_today_g_day,
        guard=sorted({s.common_name for s in present if s.needs_guard}),
    )
