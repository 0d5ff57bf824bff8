"""Requirement of a tank on its filters by the rules followed.

On one filter, on a set, and on filters admitted for their film.
"""

from dataclasses import dataclass

import numpy as np

from reedmace.core.film import film_needed_m2
from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.limits import Requirement, enough_by_film, required_flow
from reedmace.core.filter.choice.margins import Available, Required
from reedmace.core.filter.filter_flow import current_preferences, oxygen_consumers
from reedmace.core.filter.sizing_rules import flow_requirement_here
from reedmace.core.flow.currents import CurrentPreference
from reedmace.core.flow.oxygen_balance import OxygenConsumer
from reedmace.core.stock import WasteLoadQuestion, waste_load
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
    light: bool

    def for_limits(self) -> Requirement:
        """The same for the hard limits."""
        return Requirement(self.sizing, self.low, self.film_m2)

    def for_margins(self, q: RankFiltersQuestion, low: float) -> Required:
        """The same for biology, clarity and movement. q: the question; low: flow required of these filters, L/h."""
        return Required(
            grown_mg_n_day=self.load_mg_n_day,
            today_mg_n_day=self.today_mg_n_day,
            tank_film_m2=q.site.film_here_m2,
            temperature_c=q.temperature_c,
            low_lph=low,
        )


def requirement_of(question: RankFiltersQuestion, *, film: float, air: bool, count: int) -> Required:
    """Requirement on a set of filters in biology, clarity and movement.

    question: as for the ranking; film: the set's, m²; air: whether air drives all of it; count: how many they are.
    """
    asked = tank_requirement(question)
    low = required_flow(np.array([air]), question.site, np.array([film]), asked.for_limits(), count)
    return asked.for_margins(question, float(low[0]))


def is_enough_by_film(question: RankFiltersQuestion, has: Available, *, air: bool) -> bool:
    """Whether a set is enough by its film although slow, by the ranking's own limit.

    question: as for the ranking; has: the set's film in m² and flows in L/h; air: whether air drives all of it.
    """
    service, film = np.array([has.service_lph]), np.array([has.film_m2])
    asked = tank_requirement(question).for_limits()
    return bool(enough_by_film(np.array([air]), question.site, service, film, asked)[0])


def tank_requirement(q: RankFiltersQuestion) -> TankRequirement:
    """Requirement of this tank on any filter. q: as for the ranking."""
    flow = flow_requirement_here(q.site, q.animals, q.own_species, q.temperature_c)
    followed = next(s for s in flow.sizing_rules if s.followed)
    load = next(s for s in flow.sizing_rules if s.rule == "load")
    waste = waste_load(
        WasteLoadQuestion(net_l=q.site.net_l, animals=q.animals, own_species=q.own_species, feed_g_day=q.feed_g_day)
    )
    present = [find_species(a.species_id, "animals", q.own_species) for a in q.animals]
    return TankRequirement(
        sizing=flow.sizing,
        light=flow.light,
        current_preferences=current_preferences(q.animals, q.own_species),
        oxygen_consumers=oxygen_consumers(q.animals, q.own_species),
        film_m2=film_needed_m2(min(waste.today_mg_n_day, waste.ammonia_mg_n_day), q.temperature_c),
        today_mg_n_day=waste.today_mg_n_day,
        low=followed.low_lph or 0.0,
        high=followed.high_lph or 0.0,
        load_mg_n_day=waste.ammonia_mg_n_day,
        load_lph=load.low_lph or 0.0,
        feed=waste.feed_g_day,
        guard=sorted({s.common_name for s in present if s.needs_guard}),
    )
