"""Hard limits: conditions that exclude a filter from this tank, each with reason and remedy."""

import math
from dataclasses import dataclass

import numpy as np

from reedmace.core.filter.filter_table import Bools, FilterTable, Floats
from reedmace.core.filter.kind_parts.limit import Limit
from reedmace.core.filter.kinds import KINDS, kind_of
from reedmace.core.filter.site.site import Site
from reedmace.core.filter.sizing_schools import ENOUGH_SHARE
from reedmace.core.quantity import formatting
from reedmace.core.stock.flow_demand import DEMANDING, SLOWEST_PER_HOUR
from reedmace.core.stock.species import Sizing

MOST_OF_ONE = 4
SLOWEST_MESSY_PER_HOUR = 1.25
"""The same under large messy animals, whose dirt must reach the foam at all: the largest sponges turn 170 L over so
often in service, and breeders keep sixty half-grown cichlids on one (common practice; the turnover is ours).
"""
STRICT: tuple[Sizing, ...] = ("goldfish", "turtle")
"""Stock classes whose keepers use a sponge only as an extra (common practice)."""


_WHO = {"goldfish": "goldfish", "turtle": "turtles", "cichlid": "African cichlids"}


def _own(t: FilterTable, site: Site) -> list[Limit]:
    """The limits each kind brings itself, for the kinds in the table."""
    found: list[Limit] = []
    for kind in KINDS:
        mine = t.where(lambda k, kind=kind: k is kind)  # type: ignore[misc]
        if mine.any():
            found += kind.limits(t, mine, site)
    return found


def _messy(t: FilterTable, sizing: Sizing, slow: Bools) -> list[Limit]:
    if sizing not in DEMANDING:
        return []
    who = _WHO.get(sizing, "large messy fish")
    broken = t.where(lambda k: k.messy) & (t.air | t.where(lambda k: not k.messy_only_air))
    # A sponge with enough film is admitted; an under-gravel plate is not, whatever its film.
    broken &= ~(slow & t.where(lambda k: k.in_tank))

    def says(i: int, part: int) -> str:
        words = kind_of(t.filters[i].kind).messy
        return words[part].format(who=who) if words else ""

    found = [Limit(broken, lambda i: says(i, 0), lambda i: says(i, 1), final=True)]
    if sizing == "turtle":
        # Turtles climb on what stands in their water and bite its foam to pieces (common practice).
        inside = t.where(lambda k: k.in_tank and k.messy is not None) & ~broken
        found.append(
            Limit(
                inside,
                lambda _: "stands in the water, where turtles climb on it and bite its foam",
                lambda _: "choose a canister or a hang-on outside",
                final=True,
            )
        )
    return found


def _everyone(t: FilterTable, site: Site) -> list[Limit]:
    return [
        Limit(
            ~t.salt & (site.water != "fresh"),
            lambda _: "is not made for salt water",
            lambda _: "choose one that is",
        ),
        Limit(
            np.full(len(t), site.sockets < 1),
            lambda _: "there is no socket near the tank",
            lambda _: "have a socket fitted by a licensed electrician",
            "sockets",
            np.ones(len(t)),
        ),
        Limit(
            ~t.restarts & site.often_away,
            lambda _: "does not restart by itself after a power cut, and you asked for that",
            lambda _: "choose one that does, or a second filter beside it",
        ),
    ]


@dataclass(frozen=True)
class Requirement:
    """Requirement of a tank: its stock class, least flow in L/h, and film in m² for the animals at today's size.

    `coarse`: whether an animal grows so large that its dirt must be strained, not only digested.
    """

    sizing: Sizing
    low_lph: float
    film_m2: float
    coarse: bool = False


def enough_by_film(site: Site, dirty: Floats, film: Floats, asked: Requirement) -> Bools:
    """Which filters, or sets of them, of any kind, are admitted by film although slow by turnover (n,).

    site: the tank's; dirty: flow in service (n,), L/h; film: (n,), m²; asked: of them. Source: common practice of
    breeders with sponges and of keepers of canisters: film enough, and water that moves at all; never under large messy
    animals, whose dirt must be strained. A volume an hour from memory.
    """
    carries = film + site.film_here_m2 >= asked.film_m2
    least = _slowest(asked) * site.net_l
    # In salt water rock carries the film and the filter is there to move, strain and skim.
    open_here = site.water != "salt" and asked.sizing not in STRICT and not asked.coarse
    return np.asarray(carries & (dirty >= least) & open_here)


def _slowest(asked: Requirement) -> float:
    return SLOWEST_MESSY_PER_HOUR if asked.sizing in DEMANDING else SLOWEST_PER_HOUR


def limits_of(
    t: FilterTable, site: Site, asked: Requirement, clean: Floats, dirty: Floats, film: Floats
) -> list[Limit]:
    """Every hard limit over the table.

    t: n filters; site: the tank's; asked: of every filter; clean, dirty: flows (n,), L/h; film: (n,), m².
    Source: common practice; 70 % of the asked flow is let pass.
    """
    low_lph, has = asked.low_lph, film + site.film_here_m2
    slow = enough_by_film(site, dirty, film, asked)

    return [
        *_own(t, site),
        *_messy(t, asked.sizing, slow),
        *_everyone(t, site),
        Limit(clean <= 0, lambda _: "its pump cannot reach the outlet", lambda _: "bring the outlet down to the water"),
        Limit(
            has < asked.film_m2,
            lambda i: f"with the tank's own film it carries {has[i] / asked.film_m2:.0%} of what these animals make",
            lambda _: "choose one with more room for media",
            count=lambda i: _count(film[i], site, asked),
        ),
        # Last: what a pair may fall short of, each filter alone.
        Limit(
            (clean > 0) & (dirty < ENOUGH_SHARE * low_lph) & ~slow,
            lambda i: f"moves only {formatting.lph(dirty[i])} in service where {formatting.lph.bare(low_lph)} is asked",
            lambda _: "choose a larger one",
            count=lambda i: math.ceil(low_lph / max(dirty[i], 1e-9)),
        ),
    ]


def _count(film_m2: float, site: Site, asked: Requirement) -> int:
    return math.ceil(max(asked.film_m2 - site.film_here_m2, 0) / max(film_m2, 1e-9))
