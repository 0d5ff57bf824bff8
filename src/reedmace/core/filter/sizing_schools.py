"""The schools of filter sizing, a function each: what one rule asks of a tank and its stock."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import (
    Celsius,
    Lph,
    NetLitres,
    Part,
    Question,
    Working,
    number,
    whole,
)
from reedmace.core.film import AREAL_RATE, film_needed_m2
from reedmace.core.quantity import formatting
from reedmace.core.stock import Animals, WasteLoadQuestion, waste_load
from reedmace.core.stock.flow_demand import (
    DEMANDING,
    FULL_MG_N_L_DAY,
    blended_requirement,
    class_weights,
    dominant_class,
    required_turnover,
)
from reedmace.core.stock.species import Sizing, Species, Water, find_species

RATED_BAND: dict[Sizing, tuple[float, float, str]] = {
    # Tank volumes an hour on the box, by the most demanding animal. Common practice unless "memory".
    "gentle": (2, 4, "memory"),
    "community": (4, 6, "practice"),
    "messy": (8, 10, "practice"),
    "cichlid": (8, 12, "practice"),
    "turtle": (6, 8, "practice"),
    "goldfish": (10, 12, "practice"),
}
SPONGE_L = 115.0
"""Tank volume one sponge is used for, two or more above (common practice)."""
LABEL_FULL_MG_N_L_DAY = 0.12
"""Ammonia nitrogen a day of a full tropical community, for which labels are made (memory), mg N/L."""
AS_ASKED_SHARE = 0.95
"""Share of the required flow from which it counts as reached: no bucket shows a twentieth (a stated judgement)."""
ENOUGH_SHARE = 0.7
"""Share of the required flow from which a filter is admitted, a little slow (common practice)."""
AMPLE_TURNOVER = 1.5
"""Multiple of the turnover asked from which more only costs (a stated judgement)."""
LIGHT_MG_N_L_DAY = 0.15
"""Ammonia nitrogen a day up to which a planted tank counts as lightly stocked, mg N/L (memory)."""
LIGHT_FILM = 2.0
"""Multiple of that load the tank's own glass, gravel and decor must carry."""
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


class FlowRequirementQuestion(Question):
    """This water and these animals."""

    net_l: NetLitres
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    water: Water = "fresh"
    planted: bool = False
    film_here_m2: Annotated[float, number("m²", 0, 1e5, "Of the tank itself")] = 0
    temperature_c: Celsius = 25


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


@dataclass(frozen=True)
class SizingDemand:
    """What every rule starts from: load in mg N/day, pull of each class of animals, multiples of the tank an hour."""

    q: FlowRequirementQuestion
    load_mg_n_day: float
    pull: dict[Sizing, float]
    sizing: Sizing
    demanding: float
    """Pull of the most demanding class, 0 to 1."""
    light: bool
    low: float
    high: float
    rated_lph: tuple[float, float]
    delivered_lph: tuple[float, float]


def _write_pull(pull: Mapping[Sizing, float], w: Working) -> None:
    """A line for each demanding class. pull: share by class."""
    for c, share in pull.items():
        if c in DEMANDING:
            w.line(
                f"pull of {c}",
                "smooth step of load / full tank",
                f"full at {FULL_MG_N_L_DAY:g} mg N/(L day)",
                share,
                "share",
                "memory",
            )


def sizing_demand(q: FlowRequirementQuestion, w: Working) -> SizingDemand:
    """What every rule starts from. q: the tank and its animals; w: gets the lines."""
    present = [find_species(a.species_id, f"animals.{i}.species_id", q.own_species) for i, a in enumerate(q.animals)]
    waste = waste_load(WasteLoadQuestion(net_l=q.net_l, animals=q.animals, own_species=q.own_species))
    pull = class_weights(
        ((s.sizing, line.ammonia_mg_n_day) for s, line in zip(present, waste.lines, strict=True)), q.net_l
    )
    _write_pull(pull, w)
    sizing = dominant_class(pull)
    # In salt water circulation pumps move the water, so the filter's flow need not rise with the stock.
    turns: dict[Sizing, float] = {"community": 1.0} if q.water == "salt" else pull
    low = blended_requirement(turns, {c: row[0] for c, row in RATED_BAND.items()})
    high = blended_requirement(turns, {c: row[1] for c, row in RATED_BAND.items()})
    rated = [
        w.sum(
            f"rated, {end}",
            "multiple × net litres",
            {"multiple": times, "net litres": q.net_l},
            "L/h",
            RATED_BAND[sizing][2],
        )
        for end, times in (("low", low), ("high", high))
    ]
    made = (
        []
        if q.water == "salt"
        else [(s.sizing, line.ammonia_mg_n_day) for s, line in zip(present, waste.lines, strict=True)]
    )
    less = ", a seventh with plants" if q.planted else ""
    turnover = w.line(
        "turnover",
        "factor × 4.8 × dirt^0.27",
        f"dirt of {waste.ammonia_mg_n_l_day:.2g} mg N/(L day), messy animals' threefold{less}",
        required_turnover(made, q.net_l, planted=q.planted),
        "1/h",
        "practice",
    )
    delivered = [
        w.sum(f"in service, {end}", "turnover × litres", {"turnover": times, "litres": q.net_l}, "L/h", "practice")
        for end, times in (("low", turnover), ("high", turnover * AMPLE_TURNOVER))
    ]
    return SizingDemand(
        q=q,
        load_mg_n_day=waste.ammonia_mg_n_day,
        pull=pull,
        sizing=sizing,
        demanding=max((pull.get(c, 0.0) for c in DEMANDING), default=0.0),
        light=_lightly_stocked(q, waste.ammonia_mg_n_day),
        low=low,
        high=high,
        rated_lph=(rated[0], rated[1]),
        delivered_lph=(delivered[0], delivered[1]),
    )


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


def _lightly_stocked(q: FlowRequirementQuestion, load_mg_n_day: float) -> bool:
    """Whether planted and so lightly stocked that the tank itself carries it.

    q: the question; load_mg_n_day: grown, mg N.
    """
    need = film_needed_m2(load_mg_n_day, q.temperature_c)
    few = bool(q.animals) and load_mg_n_day <= LIGHT_MG_N_L_DAY * q.net_l
    return q.planted and few and q.film_here_m2 >= LIGHT_FILM * need
