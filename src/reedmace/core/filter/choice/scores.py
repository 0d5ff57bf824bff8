"""Scores of each filter and pair for each priority: shares from 0 to 1."""

import numpy as np
from numpy.typing import NDArray

from reedmace.core.filter.filter_table import Bools, FilterTable, Floats, usual_days
from reedmace.core.filter.kind_parts.traits import Judgements
from reedmace.core.filter.kinds import KINDS
from reedmace.core.filter.site.noise import added_db, heard_db, level_of, quiet_score
from reedmace.core.filter.site.site import Priorities, Site

Ints = NDArray[np.int64]
NAMES: tuple[str, ...] = ("flow", *Priorities.model_fields)
FLOW_WEIGHT = 5
MOST_ON_ONE_PUMP = 10
WITH_SKIMMER = 0.95
"""Score for growth of a filter with a foam fractionator on a salt tank (a stated judgement)."""
SALT_DAYS = 30.0
"""Days between openings of a closed filter in salt water (common practice)."""

_JUDGED = tuple(Judgements.__dataclass_fields__)
_TABLE = {name: np.array([getattr(kind.judged, name) for kind in KINDS]) for name in _JUDGED}


def watts_here(t: FilterTable, site: Site) -> Floats:
    """Electricity of each filter here, W (n,): air-driven ones share one pump, up to ten of them (common practice).

    t: n filters; site: the tank's.
    """
    on_the_pump = min(site.tanks_here_count, MOST_ON_ONE_PUMP) if site.air_shared else 1
    return np.where(t.air, t.watts / on_the_pump, t.watts)


L_MIN_PER_M3S = 60000.0
AIR_PUMP_BASE, AIR_PUMP_PER_L_MIN = 8.0, 4.0
"""Price of an air pump, and of each further L/min (memory)."""


def pump_price(air_l_min: Floats, site: Site) -> Floats:
    """Price of the air pump that drives these filters, any shape.

    air_l_min: L/min together, 0 where none is driven by air; site: the tank's. A pump that feeds the room's tanks is
    there already.
    """
    if site.air_shared:
        return np.zeros_like(air_l_min)
    return np.where(air_l_min > 0, AIR_PUMP_BASE + AIR_PUMP_PER_L_MIN * air_l_min, 0.0)


def price_here(t: FilterTable, site: Site, i: Ints, j: Ints | None = None) -> Floats:
    """Price here of single filters, or of pairs on one air pump (m,).

    t: n filters; site: the tank's; i: which (m,); j: the other of each pair (m,).
    """
    bought, air = t.price[i], t.air_m3s[i]
    if j is not None:
        bought, air = bought + t.price[j], air + t.air_m3s[j]
    return bought + pump_price(air * L_MIN_PER_M3S, site)


def sound_here(t: FilterTable, site: Site, flow: Floats) -> Floats:
    """Sound level of each filter here, dB(A) at a metre (n,). t: n filters; site: the site; flow: of each, L/h (n,)."""
    falls = np.where(t.where(lambda k: k.outlet == "lip"), flow, 0.0)
    drains = np.where(t.where(lambda k: k.drains_cm > 0), flow, 0.0)
    return heard_db(
        t.noise,
        t.air,
        falls,
        site.rim_to_water_cm,
        pump_here=not site.air_shared,
        stones=site.air_stones,
        drains_lph=drains,
        beneath=t.where(lambda k: k.hosed),
        cabinet_shut=site.cabinet_shut,
        lid=site.lid,
    )


def flow_score(dirty: Floats, low: Floats, high: float) -> Floats:
    """Score of the flow in service against the requirement, any shape. dirty, low: (n,), high: L/h."""
    short = np.minimum(dirty / np.maximum(low, 1e-9), 1.0) ** 2
    # Surplus can be throttled, so it costs less than a shortfall.
    over = 1.0 - 0.35 * np.log2(np.maximum(dirty, 1e-9) / max(high, 1e-9))
    return np.where(dirty < low, short, np.where(dirty <= high, 1.0, np.clip(over, 0, 1)))


def price_score(price: Floats) -> Floats:
    """Score for price: 1 at 5, 0 at 400, logarithmic. price: money."""
    return np.asarray(np.clip(1 - np.log(np.maximum(price, 5) / 5) / np.log(80), 0, 1))


def running_score(watts: Floats) -> Floats:
    """Score for electricity: 1 at 2 W, 0 at 60 W, logarithmic. watts: W."""
    return np.asarray(np.clip(1 - np.log(np.maximum(watts, 2) / 2) / np.log(30), 0, 1))


CO2_LOST = 0.35
"""Score for flow left to a filter that drives CO2 out of a tank that is given some (a stated judgement)."""
SLOW_LEAST, SLOW_RISE = 0.55, 0.4
"""Score for flow of a filter that is slow by turnover and enough by its film: at no flow, and more as it nears what is
asked (a stated judgement).
"""


def single_scores(
    t: FilterTable, site: Site, dirty: Floats, days: Floats, low: Floats, high: float, slow: Bools
) -> Floats:
    """Scores of single filters, (n, len(NAMES)).

    t: n filters; site: the tank's; dirty: flow in service (n,), low: asked (n,), high: L/h; days: between cleanings
    here (n,); slow: enough by film although slow (n,).
    """
    inside = t.where(lambda k: k.in_tank)
    taken = np.where(inside, t.width_cm * t.depth_cm * t.height_cm / 1000 / site.net_l, 0.0)
    watts = watts_here(t, site)
    columns = {
        "flow": np.maximum(
            flow_score(dirty, low, high), np.where(slow, SLOW_LEAST + SLOW_RISE * np.minimum(dirty / low, 1.0), 0.0)
        ),
        "price": price_score(price_here(t, site, np.arange(len(t)))),
        "running_cost": running_score(watts),
        "quiet": quiet_score(sound_here(t, site, dirty)),
        "room_in_tank": np.clip(1 - 10 * taken, 0, 1),
        "power_cut": np.where(t.air, 1.0, np.where(t.pump_wet, 0.7, np.where(t.restarts, 0.45, 0.15))),
        "chemical": t.chemical.astype(float),
        "redundant": np.zeros(len(t)),
    } | {name: table[t.kind] for name, table in _TABLE.items()}
    if site.co2 != "none":
        # Water that falls or bubbles drives out the CO2 that is bought (common practice of planted tanks).
        drives_out = t.where(lambda k: k.outlet in ("lip", "bubbles"))
        columns["flow"] = np.where(drives_out, CO2_LOST * columns["flow"], columns["flow"])
    if site.water == "salt":
        # A foam fractionator is the first addition to a salt tank; a closed filter is opened monthly, lest its waste
        # turn to nitrate (common practice of salt-water keepers).
        columns["expandable"] = np.where(t.skimmer, WITH_SKIMMER, columns["expandable"])
        days = np.where(t.where(lambda k: k.closed), np.minimum(days, SALT_DAYS), days)
    # A filter cleaned sooner than usual for its kind is proportionally less easy.
    columns["easy_clean"] = columns["easy_clean"] * np.minimum(days / usual_days(t), 1.0) ** 0.3
    return np.column_stack([columns[name] for name in NAMES])


def pair_scores(
    t: FilterTable,
    site: Site,
    singles: Floats,
    i: Ints,
    j: Ints,
    together: Floats,
    low: Floats,
    high: float,
) -> Floats:
    """Scores of pairs (i, j), (m, len(NAMES)).

    t: n filters; site: the tank's; singles: their scores; i, j: (m,); together: flow in service of each pair (m,), low:
    asked of each (m,), high: L/h. Costs add, looks and flood go by the worse, straining and power cuts by the better,
    noise by both.
    """
    a, b, watts = singles[i], singles[j], watts_here(t, site)
    at = {name: k for k, name in enumerate(NAMES)}
    found = np.minimum(a, b)
    found[:, at["flow"]] = flow_score(together, low, high)
    found[:, at["price"]] = price_score(price_here(t, site, i, j))
    found[:, at["running_cost"]] = running_score(watts[i] + watts[j])
    found[:, at["quiet"]] = quiet_score(added_db(level_of(a[:, at["quiet"]]), level_of(b[:, at["quiet"]])))
    found[:, at["easy_clean"]] = np.clip((a[:, at["easy_clean"]] + b[:, at["easy_clean"]]) / 2 - 0.05, 0, 1)
    for name in ("clear_water", "power_cut", "chemical", "expandable"):
        found[:, at[name]] = np.maximum(a[:, at[name]], b[:, at[name]])
    found[:, at["room_in_tank"]] = np.clip(a[:, at["room_in_tank"]] + b[:, at["room_in_tank"]] - 1, 0, 1)
    found[:, at["redundant"]] = 1.0
    return found


def weights_of(priorities: Priorities) -> Floats:
    """Weights in the order of NAMES, flow first. priorities: 0 to 5 each."""
    return np.array([FLOW_WEIGHT, *priorities.model_dump().values()], dtype=float)
