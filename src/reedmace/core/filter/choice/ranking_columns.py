"""Scores and figures of every filter of a table on one tank, from which it is ranked and paired."""

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from reedmace.core.filter.choice.candidates import (
    RankFiltersQuestion,
)
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.choice.limits import enough_by_film
from reedmace.core.filter.choice.requirement import TankRequirement, tank_requirement, water_of
from reedmace.core.filter.choice.scores import (
    NAMES,
    price_here,
    single_scores,
    sound_here,
    watts_here,
)
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_flow import Placed, currents_and_oxygen
from reedmace.core.filter.filter_table import Bools, FilterTable, Floats, Ints, film_m2
from reedmace.core.filter.media.straining import straining
from reedmace.core.filter.water_path import Delivered
from reedmace.core.flow import CurrentsAnswer, OxygenBalanceAnswer
from reedmace.core.quantity import formatting


def stirred(
    q: RankFiltersQuestion, low: float, set_: list[tuple[Filter, float]]
) -> tuple[CurrentsAnswer, OxygenBalanceAnswer]:
    """Currents and oxygen of a set of filters here, kept while other filters and wishes are tried.

    q: the question; low: flow asked, L/h; set_: each filter with its clean flow, L/h.
    """
    return _stirred(water_of(q), tuple((f.model_dump_json(), lph) for f, lph in set_), low, formatting.chosen())


@lru_cache(maxsize=512)
def _stirred(
    water: str, boxes: tuple[tuple[str, float], ...], low: float, _units: formatting.Units
) -> tuple[CurrentsAnswer, OxygenBalanceAnswer]:
    """Currents and oxygen. water: from `water_of`; boxes: each as JSON with its flow, L/h; _units: of its words."""
    q = RankFiltersQuestion.model_validate_json(water)
    asked = tank_requirement(q)
    return currents_and_oxygen(
        q.site,
        [Placed(Filter.model_validate_json(box), q.plumbing, lph) for box, lph in boxes],
        asked.current_preferences,
        asked.oxygen_consumers,
        low,
        asked.today_mg_n_day,
        q.temperature_c,
    )


@dataclass(frozen=True)
class RankingColumns:
    """A ranking in progress.

    n filters with scores (n,), parts (n, k), flows and required flows (n,) in L/h, film (n,) in m², sound (n,) in dB.
    """

    q: RankFiltersQuestion
    table: FilterTable
    asked: TankRequirement
    weights: Floats
    parts: Floats
    scores: Floats
    clean: Floats
    service: Floats
    low: Floats
    days: Floats
    rises: Floats
    film: Floats
    sound: Floats
    watts: Floats
    price: Floats
    slow: Bools

    def pair_service(self, best: Ints, i: Ints, j: Ints) -> Floats:
        """Flow in service of pairs that share the tank's dirt as they share its water (m,), L/h."""
        grid = np.array([0.02, 0.25, 0.5, 0.75, 1.0])
        # Every filter at every share in one computation.
        sub, feed = self.table.taken(np.repeat(best, len(grid))), self.asked.feed * np.tile(grid, len(best))
        flows = flows_here(self.q, sub, feed).service_lph.reshape(len(best), len(grid))
        place = np.full(len(self.table), -1)
        place[best] = np.arange(len(best))
        total = np.maximum(self.clean[i] + self.clean[j], 1e-9)

        def at(k: Ints) -> Floats:
            x = np.clip(self.clean[k] / total, grid[0], 1.0)
            low = np.clip(np.searchsorted(grid, x, side="right") - 1, 0, len(grid) - 2)
            part = (x - grid[low]) / (grid[low + 1] - grid[low])
            rows = place[k]
            return np.asarray(flows[rows, low] * (1 - part) + flows[rows, low + 1] * part)

        return at(i) + at(j)


def ranking_columns(
    q: RankFiltersQuestion, t: FilterTable, asked: TankRequirement, weights: Floats, got: Delivered
) -> RankingColumns:
    """Scores and figures of every filter of a table on this tank.

    q: the question; t: n filters; asked: of this tank; weights: of the priorities, in the order of NAMES; got: the
    flows here.
    """
    film = film_m2(t)
    low = np.full(len(t), asked.low)
    slow = enough_by_film(q.site, got.service_lph, film, asked.for_limits()) & (got.service_lph < asked.low)
    parts = single_scores(t, q.site, got.service_lph, got.service_days, low, asked.high, slow)
    for one in q.installed:
        clear = NAMES.index("clear_water")
        for at in (i for i, f in enumerate(t.filters) if f.id == one.filter_id):
            parts[at, clear] = straining(float(parts[at, clear]), one.media)
    return RankingColumns(
        q,
        t,
        asked,
        weights,
        parts,
        100 * (parts @ weights) / weights.sum(),
        got.clean_lph,
        got.service_lph,
        low,
        got.service_days,
        got.rise_m,
        film,
        sound_here(t, q.site, got.service_lph),
        watts_here(t, q.site),
        price_here(t, q.site, np.arange(len(t))),
        slow,
    )
