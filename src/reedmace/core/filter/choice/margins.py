"""The three margins of a filter: biological capacity, mechanical straining, water movement."""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Part, number
from reedmace.core.film import carried_times, film_needed_m2
from reedmace.core.filter.sizing_schools import AS_ASKED_SHARE, ENOUGH_SHARE
from reedmace.core.flow import CurrentsAnswer, OxygenBalanceAnswer
from reedmace.core.quantity import formatting

AMPLE = 2.0
STRAINS_WELL, STRAINS = 0.6, 0.35
OFTEN_DAYS = 7.0
DAILY_BELOW, MONTHS_FROM_DAYS = 1.5, 75.0
"""Intervals said as a day, and in months."""


class Margin(Part):
    """One verdict with its margin: available over required."""

    about: Literal["biology", "clarity", "movement"]
    level: Literal["ample", "enough", "short", "too-much"]
    share: Annotated[float, number("has / asked", 0, 1e6)]
    words: str
    slow: bool = Field(default=False, description="Short of flow alone, by the turnover asked; oxygen is enough")


@dataclass(frozen=True)
class Available:
    """What is installed or considered. Film in m², flows in L/h, straining as a share, cleaning in days."""

    film_m2: float
    clean_lph: float
    service_lph: float
    strains: float
    service_days: float
    currents: CurrentsAnswer
    oxygen: OxygenBalanceAnswer
    socks_days: float | None = None
    """Between washes of a sump's socks, besides the cleaning of its foam."""

    @property
    def cleaned(self) -> str:
        """How often what is cleaned, in words."""
        return cleaned_words(self.service_days, self.socks_days)


def cleaned_words(service_days: float, socks_days: float | None = None) -> str:
    """How often a filter is cleaned, and its socks besides, in words.

    service_days: between cleanings; socks_days: between washes, None without socks.
    """
    often = f"{service_days:.0f} days" if service_days < MONTHS_FROM_DAYS else formatting.long_time(service_days)
    often = "day" if service_days < DAILY_BELOW else often
    if socks_days is None:
        return f"cleaned about every {often}"
    return f"foam cleaned about every {often}, socks washed every {max(math.floor(socks_days), 1)} days"


@dataclass(frozen=True)
class Required:
    """What the tank requires.

    Loads in mg N a day, grown and at today's lengths; the tank's own film in m², flows in L/h.
    """

    grown_mg_n_day: float
    today_mg_n_day: float
    tank_film_m2: float
    temperature_c: float
    low_lph: float


def _biology(has: Available, asks: Required) -> Margin:
    if asks.grown_mg_n_day <= 0:
        return Margin(
            about="biology", level="ample", share=1e6, words="No animals yet, so nothing for the film to carry."
        )
    grown, today = (
        carried_times(has.film_m2, asks.tank_film_m2, film_needed_m2(mg, asks.temperature_c))
        for mg in (asks.grown_mg_n_day, min(asks.today_mg_n_day, asks.grown_mg_n_day))
    )
    young = f", {times_words(today)} at today's size" if today > grown * 1.05 else ""
    size = " once grown" if young else ""
    if grown < 1:
        # Young animals live in it for months: it is enough until they outgrow it.
        return Margin(
            about="biology", level="short" if today < 1 else "enough", share=grown,
            words=f"Its film would carry {grown:.0%} of what these animals make{size}{young}.",
        )  # fmt: skip
    media = has.film_m2 / max(film_needed_m2(asks.grown_mg_n_day, asks.temperature_c), 1e-6)
    level: Literal["ample", "enough"] = "ample" if grown >= AMPLE else "enough"
    words = (
        f"Carries these animals {times_words(grown)} over{size}{young}."
        if media >= 1
        else f"Its media carry {media:.0%} of what these animals make{size}, glass and gravel the rest{young}."
    )
    return Margin(about="biology", level=level, share=min(grown, 1e6), words=words)


def times_words(ratio: float) -> str:
    """A ratio in words, "1.4 times". ratio: 0 or more."""
    if ratio >= 100:
        return "over 100 times"
    return f"{ratio:.0f} times" if ratio >= 9.5 else f"{ratio:.1f} times"


def _clarity(has: Available) -> Margin:
    often = f"; {has.cleaned}"
    if has.strains >= STRAINS_WELL and has.service_days >= OFTEN_DAYS:
        return Margin(about="clarity", level="ample", share=has.strains, words=f"Strains well{often}.")
    if has.strains >= STRAINS and has.service_days >= OFTEN_DAYS / 2:
        return Margin(about="clarity", level="enough", share=has.strains, words=f"Strains the coarse dirt{often}.")
    return Margin(about="clarity", level="short", share=has.strains, words=f"Strains little, or clogs soon{often}.")


def _movement(has: Available, asks: Required) -> Margin:
    share = has.service_lph / max(asks.low_lph, 1e-6)
    flow = f"{formatting.lph(has.service_lph)} in service where {formatting.lph.bare(asks.low_lph)} is asked"
    if not has.oxygen.enough:
        return Margin(about="movement", level="short", share=min(share, 0.99), words=has.oxygen.verdict)
    if has.currents.troubled:
        return Margin(
            about="movement", level="too-much", share=share, words=has.currents.verdict
        )  # fmt: skip
    if share >= AS_ASKED_SHARE:
        breath = f" Oxygen stays at about {has.oxygen.running_mg_l:.1f} mg/L." if has.oxygen.taken_mg_l_day else ""
        return Margin(
            about="movement", level="ample" if share >= AMPLE else "enough", share=share, words=f"{flow}.{breath}"
        )
    slow = "A little slow" if share >= ENOUGH_SHARE else "Slow"
    return Margin(about="movement", level="short", share=share, words=f"{slow}: {flow}.", slow=True)


def margins(has: Available, asks: Required) -> list[Margin]:
    """Biology, clarity and movement, each on its own.

    has: what hangs or would hang; asks: what the tank asks. More film, a lower load or more flow never worsens its own
    verdict, but where it leaves too little of the water calm. Source: the film's areal rate and its warmth from memory;
    straining by kind and turnover common practice.
    """
    return [_biology(has, asks), _clarity(has), _movement(has, asks)]
