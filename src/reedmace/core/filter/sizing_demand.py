"""What sizing asks for: the load, the stock and the pull of each."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import (
    Celsius,
    NetLitres,
    Question,
    Working,
    number,
)
from reedmace.core.film import film_needed_m2
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


AMPLE_TURNOVER = 1.5
"""Multiple of the turnover asked from which more only costs (a stated judgement)."""


LIGHT_MG_N_L_DAY = 0.15
"""Ammonia nitrogen a day up to which a planted tank counts as lightly stocked, mg N/L (memory)."""


LIGHT_FILM = 2.0
"""Multiple of that load the tank's own glass, gravel and decor must carry."""


class FlowRequirementQuestion(Question):
    """This water and these animals."""

    net_l: NetLitres
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    own_species: Annotated[list[Species], Field(max_length=40)] = Field(default_factory=list)
    water: Water = "fresh"
    planted: bool = False
    film_here_m2: Annotated[float, number("m²", 0, 1e5, "Of the tank itself")] = 0
    temperature_c: Celsius = 25


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


def _lightly_stocked(q: FlowRequirementQuestion, load_mg_n_day: float) -> bool:
    """Whether planted and so lightly stocked that the tank itself carries it.

    q: the question; load_mg_n_day: grown, mg N.
    """
    need = film_needed_m2(load_mg_n_day, q.temperature_c)
    few = bool(q.animals) and load_mg_n_day <= LIGHT_MG_N_L_DAY * q.net_l
    return q.planted and few and q.film_here_m2 >= LIGHT_FILM * need
