"""Redundant pairs of filters: together they carry the flow, each alone carries the load."""

from typing import Any

import numpy as np

from reedmace.core.filter.choice.candidates import (
    MOST_PAIRS,
    Pair,
)
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.choice.margins import Available, margins
from reedmace.core.filter.choice.ranking_columns import RankingColumns, stirred
from reedmace.core.filter.choice.scores import (
    NAMES,
    pair_scores,
    price_here,
    watts_here,
)
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import Bools, Floats, Ints
from reedmace.core.filter.site.noise import added_db
from reedmace.core.filter.sizing_schools import ENOUGH_SHARE
from reedmace.core.filter.water_path import food_shares

BEST_FOR_PAIRS = 200
"""Filters, the best first, that are tried in pairs."""


def best_pairs(r: RankingColumns, fits: Bools) -> list[Pair]:
    """The best redundant pairs: together they carry the flow, each alone carries the load.

    r: ranking of n filters; fits: which of them fit here (n,).
    """
    t, asked, site = r.table, r.asked, r.q.site
    # The filters of a pair may each fall short of the flow, but neither of the load.
    able = t.where(lambda k: k.may_pair) & fits & (r.film + site.film_here_m2 >= asked.film_m2)
    able &= (r.service >= asked.load_lph) & (r.clean > 0)
    best = np.flatnonzero(able)
    best = best[np.argsort(-r.scores[best], kind="stable")][:BEST_FOR_PAIRS]
    if len(best) == 0:
        return []
    x, y = np.triu_indices(len(best))
    i, j = best[x], best[y]
    together = r.pair_service(best, i, j)
    # Two on the rim, two in the water, or two under the tank need room side by side along its length.
    air, rim, wet = t.air[i] & t.air[j], t.where(lambda k: k.on_rim), t.where(lambda k: k.in_tank)
    under = t.where(lambda k: k.hosed)
    room_for = ~((rim[i] & rim[j]) | (wet[i] & wet[j]) | (under[i] & under[j])) | (
        t.width_cm[i] + t.width_cm[j] <= site.length_cm
    )
    low = np.full(len(i), asked.low)
    fitted = (air | (site.sockets >= 2)) & room_for & (together >= ENOUGH_SHARE * low)
    i, j, together, low = i[fitted], j[fitted], together[fitted], low[fitted]
    if len(i) == 0:
        return []
    points = 100 * (pair_scores(t, site, r.parts, i, j, together, low, asked.high) @ r.weights) / r.weights.sum()
    single = np.sort(r.scores[fits & (r.service >= ENOUGH_SHARE * r.low)])[::-1]
    watts, price = watts_here(t, site), price_here(t, site, i, j)
    chosen = np.argsort(-points, kind="stable")[:MOST_PAIRS]
    found = []
    for k, exact in zip(chosen, _service_of_pairs(r, i[chosen], j[chosen]), strict=True):
        one, two = int(i[k]), int(j[k])
        found.append(
            Pair(
                **_flows_of_pair(r, one, two, float(exact), float(low[k])),
                **_names_of_pair(t.filters[one], t.filters[two], float(price[k])),
                watts=float(watts[one] + watts[two]),
                noise_db=float(added_db(r.sound[[one]], r.sound[[two]])[0]),
                score=float(points[k]),
                would_rank=1 + int(np.sum(single > points[k])),
            )
        )
    return found


def _names_of_pair(a: Filter, b: Filter, price: float) -> dict[str, Any]:
    """Fields of a pair that its boxes say. price: of both, with an air pump where one is needed."""
    return {
        "filter_ids": [a.id, b.id],
        "name": f"2 × {a.name}" if a.id == b.id else f"{a.name} with {b.name}",
        "price": price,
        "air_pump_price": max(price - a.price - b.price, 0.0),
        "price_known": a.price_known and b.price_known,
    }


def _service_of_pairs(r: RankingColumns, i: Ints, j: Ints) -> Floats:
    """Flow in service of pairs (m,), L/h, each filter with the dirt it catches. i, j: rows of the pairs (m,)."""
    rows = np.column_stack([i, j])
    shares = np.array([food_shares(r.clean[both]) for both in rows])
    flows = flows_here(r.q, r.table.taken(rows.ravel()), r.asked.feed * shares.ravel()).service_lph
    return np.asarray(flows.reshape(rows.shape).sum(axis=1))


def _flows_of_pair(r: RankingColumns, x: int, y: int, service_lph: float, low_lph: float) -> dict[str, Any]:
    """Flows and margins of two rows together. service_lph: flow in service; low_lph: flow that is enough."""
    t, strains = r.table, r.parts[:, NAMES.index("clear_water")]
    flow = float(r.clean[x] + r.clean[y])
    moving = [(t.filters[n], float(r.clean[n])) for n in (x, y)]
    available = Available(
        float(r.film[x] + r.film[y]),
        flow,
        service_lph,
        float(max(strains[x], strains[y])),
        float(min(r.days[x], r.days[y])),
        *stirred(r.q, low_lph, moving),
    )
    return {
        "delivered_lph": flow,
        "dirty_lph": service_lph,
        "turnovers_per_hour": flow / r.q.site.net_l,
        "margins": margins(available, r.asked.for_margins(r.q)),
    }
