"""The schools of filter sizing, a function each: what one rule asks of a tank and its stock."""

import math
from collections.abc import Callable
from typing import Annotated, Literal

from reedmace.core.contract import (
    Lph,
    Part,
    Working,
    number,
    whole,
)
from reedmace.core.film import AREAL_RATE
from reedmace.core.filter.sizing_demand import SizingDemand
from reedmace.core.quantity import formatting

SPONGE_L = 115.0
"""Tank volume one sponge is used for, two or more above (common practice)."""
LABEL_FULL_MG_N_L_DAY = 0.12
"""Ammonia nitrogen a day of a full tropical community, for which labels are made (memory), mg N/L."""
AS_ASKED_SHARE = 0.95
"""Share of the required flow from which it counts as reached: no bucket shows a twentieth (a stated judgement)."""
ENOUGH_SHARE = 0.7
"""Share of the required flow from which a filter is admitted, a little slow (common practice)."""
SINGLE_PASS, TARGET_TAN = 0.5, 0.1
"""Share of ammonia a pass takes out, and the concentration it is held at, mg N/L (memory)."""
CANISTER_PER_HOUR = (6.0, 8.0)
"""Turnover per hour canister keepers ask for under messy fish (common practice)."""
HEAVY_FROM = 0.5
"""Pull of a demanding class from which the media school asks twice as much."""
LABEL_FALL, LABEL_TURTLE = 0.35, 0.26
"""Share of the label lost in a full tank, and the share left under turtles (common practice)."""

CIRCULATION_PER_HOUR = (10.0, 20.0)
"""Turnover per hour in salt water by circulation pumps in the tank, apart from the filter (common practice)."""

SizingRuleName = Literal["rated", "canister-only", "delivered", "circulation", "media", "load", "count", "label"]


class SizingRule(Part):
    """One rule's requirement. Flow rules give L/h; media gives kg; label gives the tank size to look for on a box."""

    rule: SizingRuleName
    title: str
    asks: str
    basis: Literal["box flow", "delivered flow", "media", "count", "label"]
    low_lph: Lph | None = None
    high_lph: Lph | None = None
    media_kg: Annotated[float, number("kg", 0, 1e6)] | None = None
    film_m2: Annotated[float, number("m²", 0, 1e7)] | None = None
    count: Annotated[int, whole(0, 100000, "Sponges")] | None = None
    label_l: Annotated[float, number("L", 0, 1e7)] | None = None
    followed: bool = False
    why: str


def _rated(d: SizingDemand, w: Working) -> SizingRule:
    return SizingRule(
        rule="rated",
        title="Rated turnover",
        asks=f"{d.low:.2g} to {d.high:.3g} times the tank, on the box",
        basis="box flow",
        low_lph=d.rated_lph[0],
        high_lph=d.rated_lph[1],
        why="Shop advice. Easy to check on a box, but the box flow is not what arrives.",
    )


def _canister_only(d: SizingDemand, w: Working) -> SizingRule | None:
    if d.sizing not in ("goldfish", "messy"):
        return None
    least, most = (times * d.q.net_l for times in CANISTER_PER_HOUR)
    w.line("canister", "6 × net litres", f"6 × {d.q.net_l:.1f}", least, "L/h", "practice")
    return SizingRule(
        rule="canister-only",
        title="Canister keepers",
        asks="6 to 8 times the tank, on the box",
        basis="box flow",
        low_lph=least,
        high_lph=most,
        why="Keepers with canisters only hold that more media makes up for less flow.",
    )


def _delivered(d: SizingDemand, w: Working) -> SizingRule:
    return SizingRule(
        rule="delivered",
        title="Delivered turnover",
        asks=f"{d.delivered_lph[0] / d.q.net_l:.1f} to {d.delivered_lph[1] / d.q.net_l:.1f} times the tank, measured",
        basis="delivered flow",
        low_lph=d.delivered_lph[0],
        high_lph=d.delivered_lph[1],
        followed=True,
        why=(
            "Followed: it asks for the flow that really arrives, by what these animals soil, of every kind of filter"
            " alike; it can be checked with a bucket."
        ),
    )


def _circulation(d: SizingDemand, w: Working) -> SizingRule | None:
    if d.q.water != "salt":
        return None
    around = [
        w.sum(f"circulation, {end}", "times × net litres", {"times": times, "net litres": d.q.net_l}, "L/h", "practice")
        for end, times in zip(("low", "high"), CIRCULATION_PER_HOUR, strict=True)
    ]
    return SizingRule(
        rule="circulation",
        title="Moving water in the tank",
        asks="10 to 20 times the tank, from pumps in the tank, apart from the filter",
        basis="delivered flow",
        low_lph=around[0],
        high_lph=around[1],
        why=(
            "Salt-water keepers move the water with pumps of its own; the filter turns the tank over slowly beside"
            " them."
        ),
    )


def _media(d: SizingDemand, w: Working) -> SizingRule:
    media = w.sum(
        "media",
        "kg per 100 L × litres / 100",
        {"kg per 100 L": 1 + d.demanding, "litres": d.q.net_l},
        "kg",
        "practice",
    )
    return SizingRule(
        rule="media",
        title="Media mass",
        asks=f"{formatting.kg(media, '.2g')} of sintered or ceramic media",
        basis="media",
        media_kg=media,
        why="Full-cycle canister keepers. It asks for no flow at all, only for room for the film.",
    )


def _by_load(d: SizingDemand, w: Working) -> SizingRule:
    load = d.load_mg_n_day
    through = w.sum("load", "P / 24 / (E × C)", {"P": load, "E": SINGLE_PASS, "C": TARGET_TAN}, "L/h", "timmons")
    film = w.sum("film", "P / areal rate", {"P": load, "areal rate": AREAL_RATE}, "m²", "memory")
    return SizingRule(
        rule="load",
        title="Load",
        asks=(
            f"{formatting.lph(through)} and {film:.2g} m² of film" if load > 0 else "nothing until animals are chosen"
        ),
        basis="delivered flow",
        low_lph=through,
        film_m2=film,
        why=(
            "Aquaculture engineering. For an ordinary tank it asks very little: strained dirt, flow and patience limit"
            " sooner."
        ),
    )


def _count(d: SizingDemand, w: Working) -> SizingRule | None:
    if d.q.water == "salt":
        return None
    count = w.line(
        "sponges",
        "one to 115 L, one more for each 115 L above",
        f"⌈{d.q.net_l:.0f} / {SPONGE_L:g}⌉",
        math.ceil(d.q.net_l / SPONGE_L),
        "pieces",
        "practice",
    )
    return SizingRule(
        rule="count",
        title="Sponges by count",
        asks="one sponge, whatever the turnover" if count <= 1 else f"{count:.0f} sponges, whatever the turnover",
        basis="count",
        count=int(count),
        why=(
            "Breeders and fish rooms: the film of one carries far more than most tanks make, and patience does the"
            " rest; it strains less and is squeezed sooner under messy fish. Shown beside: here every kind is judged"
            " alike."
        ),
    )


def _label(d: SizingDemand, w: Working) -> SizingRule:
    if d.sizing == "goldfish":
        return SizingRule(
            rule="label",
            title="Tank size on the box",
            asks="ignore the label for goldfish",
            basis="label",
            why="The label assumes a light tropical stock; goldfish keepers leave it out.",
        )
    # As printed for a moderate stock, reduced as it fills; turtles take it to a fifth or a third.
    full = min(d.load_mg_n_day / d.q.net_l / LABEL_FULL_MG_N_L_DAY, 1.0)
    share = 1 - LABEL_FALL * full
    share -= (share - LABEL_TURTLE) * d.pull.get("turtle", 0.0)
    label = w.sum("label", "net litres / share", {"net litres": d.q.net_l, "share": share}, "L", "practice")
    return SizingRule(
        rule="label",
        title="Tank size on the box",
        asks=f"a box that says up to {formatting.litres(label)} or more",
        basis="label",
        label_l=label,
        why=(
            "The label assumes a light tropical stock: as printed when moderate, 60 to 70 % of it when full, a fifth to"
            " a third for turtles."
        ),
    )


RULES: tuple[Callable[[SizingDemand, Working], SizingRule | None], ...] = (
    _rated,
    _canister_only,
    _delivered,
    _circulation,
    _media,
    _by_load,
    _count,
    _label,
)
"""In the order they are shown."""
