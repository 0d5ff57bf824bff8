"""Hard limits: what keeps a filter off this tank, each with its reason and its remedy."""

import math

import numpy as np

from reedmace.core.filter.kinds import KINDS, kind_of
from reedmace.core.filter.kinds.record import Limit
from reedmace.core.filter.room import Room
from reedmace.core.filter.table import FilterTable, Floats
from reedmace.core.quantity import shown
from reedmace.core.stock.species import Sizing

ENOUGH_SHARE = 0.7
MOST_OF_ONE = 4
MESSY: tuple[Sizing, ...] = ("messy", "cichlid", "turtle", "goldfish")


_WHO = {"goldfish": "goldfish", "turtle": "turtles", "cichlid": "African cichlids"}


def _own(t: FilterTable, room: Room) -> list[Limit]:
    """The limits each kind brings itself, of the kinds that are on the table."""
    found: list[Limit] = []
    for kind in KINDS:
        mine = t.where(lambda k, kind=kind: k is kind)  # type: ignore[misc]
        if mine.any():
            found += kind.limits(t, mine, room)
    return found


def _messy(t: FilterTable, sizing: Sizing) -> list[Limit]:
    if sizing not in MESSY:
        return []
    who = _WHO.get(sizing, "large messy fish")
    broken = t.where(lambda k: k.messy) & (t.air | t.where(lambda k: not k.messy_only_air))

    def says(i: int, part: int) -> str:
        words = kind_of(t.filters[i].kind).messy
        return words[part].format(who=who) if words else ""

    return [Limit(broken, lambda i: says(i, 0), lambda i: says(i, 1))]


def _everyone(t: FilterTable, room: Room) -> list[Limit]:
    return [
        Limit(
            ~t.salt & (room.water != "fresh"),
            lambda _: "is not made for salt water",
            lambda _: "choose one that is",
        ),
        Limit(
            np.full(len(t), room.sockets < 1),
            lambda _: "there is no socket near the tank",
            lambda _: "have a socket fitted by a licensed electrician",
            "sockets",
            np.ones(len(t)),
        ),
        Limit(
            ~t.restarts & room.often_away,
            lambda _: "does not restart by itself after a power cut, and you asked for that",
            lambda _: "choose one that does, or a second filter beside it",
        ),
    ]


def limits_of(t: FilterTable, room: Room, sizing: Sizing, clean: Floats, dirty: Floats, low_lph: float) -> list[Limit]:
    """Every hard limit over the table.

    t: n filters; room: the tank's; sizing: the most demanding animal's class; clean, dirty: flows (n,), L/h;
    low_lph: the least flow the followed school asks, L/h. Source: common practice; 70 % of the asked flow is let pass.
    """

    def several(i: int) -> str:
        fewer = math.ceil(low_lph / max(dirty[i], 1e-9))
        return f"fit {fewer} of them" if fewer <= MOST_OF_ONE else "choose a larger one"

    return [
        *_own(t, room),
        *_messy(t, sizing),
        *_everyone(t, room),
        Limit(clean <= 0, lambda _: "its pump cannot reach the outlet", lambda _: "bring the outlet down to the water"),
        Limit(
            (clean > 0) & (dirty < ENOUGH_SHARE * low_lph),
            lambda i: f"moves only {shown.lph(dirty[i])} in service where {shown.lph.bare(low_lph)} is asked",
            several,
        ),
    ]
