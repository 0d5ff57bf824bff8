"""How well each filter, and each pair, serves each priority: shares from 0 to 1."""

import numpy as np
from numpy.typing import NDArray

from reedmace.core.filter.catalogue import KINDS
from reedmace.core.filter.room import Priorities, Room
from reedmace.core.filter.table import FilterTable, Floats, usual_days

NAMES: tuple[str, ...] = ("flow", *Priorities.model_fields)
FLOW_WEIGHT = 5

# Stated judgements where nothing can be computed (common practice), by kind.
_JUDGED: dict[str, dict[str, float]] = {
    "easy_clean": {
        "sponge": 0.7,
        "sheet": 0.85,
        "hang-on": 0.95,
        "internal": 0.6,
        "canister": 0.3,
        "sump": 0.6,
        "box": 0.8,
        "under-gravel": 0.1,
    },
    "clear_water": {
        "sponge": 0.35,
        "sheet": 0.5,
        "hang-on": 0.65,
        "internal": 0.4,
        "canister": 0.85,
        "sump": 0.95,
        "box": 0.45,
        "under-gravel": 0.25,
    },
    "hidden": {
        "sponge": 0.1,
        "sheet": 0.25,
        "hang-on": 0.5,
        "internal": 0.2,
        "canister": 0.95,
        "sump": 1.0,
        "box": 0.05,
        "under-gravel": 0.7,
    },
    "flood_safety": {
        "sponge": 1.0,
        "sheet": 1.0,
        "hang-on": 0.6,
        "internal": 0.95,
        "canister": 0.35,
        "sump": 0.4,
        "box": 1.0,
        "under-gravel": 0.95,
    },
    "expandable": {
        "sponge": 0.8,
        "sheet": 0.5,
        "hang-on": 0.5,
        "internal": 0.3,
        "canister": 0.6,
        "sump": 1.0,
        "box": 0.5,
        "under-gravel": 0.2,
    },
}
_TABLE = {name: np.array([by_kind[k] for k in KINDS]) for name, by_kind in _JUDGED.items()}


def flow_score(dirty: Floats, low: float, high: float) -> Floats:
    """How the flow in service meets what is asked, any shape. dirty, low, high: L/h."""
    short = np.minimum(dirty / low, 1.0) ** 2 if low > 0 else np.ones_like(dirty)
    # Too much can be throttled, so it costs less than too little.
    over = 1.0 - 0.35 * np.log2(np.maximum(dirty, 1e-9) / max(high, 1e-9))
    return np.where(dirty < low, short, np.where(dirty <= high, 1.0, np.clip(over, 0, 1)))


def price_score(price: Floats) -> Floats:
    """Cheap to buy: 1 at 5, 0 at 400, by the logarithm. price: money."""
    return np.asarray(np.clip(1 - np.log(np.maximum(price, 5) / 5) / np.log(80), 0, 1))


def running_score(watts: Floats) -> Floats:
    """Cheap to run: 1 at 2 W, 0 at 60 W, by the logarithm. watts: W."""
    return np.asarray(np.clip(1 - np.log(np.maximum(watts, 2) / 2) / np.log(30), 0, 1))


def single_scores(t: FilterTable, room: Room, dirty: Floats, days: Floats, low: float, high: float) -> Floats:
    """Scores of single filters, (n, len(NAMES)).

    t: n filters; room: the tank's; dirty: flow in service (n,), low, high: L/h; days: between cleanings here (n,).
    """
    inside = t.is_kind("sponge", "sheet", "internal", "box")
    taken = np.where(inside, t.width_cm * t.depth_cm * t.height_cm / 1000 / room.net_l, 0.0)
    in_water = t.is_kind("internal") | (t.is_kind("hang-on") & t.restarts)
    # Several air-driven filters share one pump, so each costs its part of the watts.
    watts = np.where(t.air, t.watts / min(room.tanks_here_count, 10), t.watts)
    columns = {
        "flow": flow_score(dirty, low, high),
        "price": price_score(t.price),
        "running_cost": running_score(watts),
        "quiet": (5 - t.noise) / 4,
        "room_in_tank": np.clip(1 - 10 * taken, 0, 1),
        "power_cut": np.where(t.air, 1.0, np.where(in_water, 0.7, np.where(t.restarts, 0.45, 0.15))),
        "chemical": t.chemical.astype(float),
        "redundant": np.zeros(len(t)),
    } | {name: table[t.kind] for name, table in _TABLE.items()}
    # What must be cleaned sooner than is usual for its kind is that much less easy.
    columns["easy_clean"] = columns["easy_clean"] * np.minimum(days / usual_days(t), 1.0) ** 0.3
    return np.column_stack([columns[name] for name in NAMES])


def pair_scores(
    t: FilterTable, singles: Floats, i: NDArray[np.int64], j: NDArray[np.int64], dirty: Floats, low: float, high: float
) -> Floats:
    """Scores of pairs (i, j), (m, len(NAMES)).

    t: n filters; singles: their scores; i, j: (m,); dirty: (n,), low, high: L/h. Costs add, looks and flood go by the
    worse, straining and power cuts by the better, noise by both.
    """
    a, b = singles[i], singles[j]
    at = {name: k for k, name in enumerate(NAMES)}
    found = np.minimum(a, b)
    found[:, at["flow"]] = flow_score(dirty[i] + dirty[j], low, high)
    found[:, at["price"]] = price_score(t.price[i] + t.price[j])
    found[:, at["running_cost"]] = running_score(t.watts[i] + t.watts[j])
    found[:, at["quiet"]] = np.clip(np.minimum(a[:, at["quiet"]], b[:, at["quiet"]]) - 0.1, 0, 1)
    found[:, at["easy_clean"]] = np.clip((a[:, at["easy_clean"]] + b[:, at["easy_clean"]]) / 2 - 0.05, 0, 1)
    for name in ("clear_water", "power_cut", "chemical", "expandable"):
        found[:, at[name]] = np.maximum(a[:, at[name]], b[:, at[name]])
    found[:, at["room_in_tank"]] = np.clip(a[:, at["room_in_tank"]] + b[:, at["room_in_tank"]] - 1, 0, 1)
    found[:, at["redundant"]] = 1.0
    return found


def weights_of(priorities: Priorities) -> Floats:
    """Weights in the order of NAMES, flow first. priorities: 0 to 5 each."""
    return np.array([FLOW_WEIGHT, *priorities.model_dump().values()], dtype=float)
