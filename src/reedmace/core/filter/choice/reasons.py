"""Reasons for a filter's rank and caveats before buying it, in words."""

from reedmace.core.filter.choice.scores import NAMES
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.filter_table import Floats
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting

_SAYS = {
    "price": ("cheap to buy", "dear"),
    "running_cost": ("cheap to run", "dear to run"),
    "quiet": ("quiet", "heard in the room"),
    "easy_clean": ("easy to clean", "a chore to clean"),
    "clear_water": ("strains well", "strains little"),
    "hidden": ("out of sight", "in plain view"),
    "room_in_tank": ("leaves the tank free", "takes room in the tank"),
    "flood_safety": ("little that can flood", "can empty on the floor"),
    "power_cut": ("rides out a power cut", "suffers in a power cut"),
    "chemical": ("takes chemical media", "no chemical media"),
    "young_safe": ("safe for young and shrimp", "draws in young and shrimp"),
    "expandable": ("grows with the tank", "cannot grow"),
    "flow": ("flow fits", "flow fits poorly"),
}


def reason_of(weights: Floats, parts: Floats) -> str:
    """Two strengths and two weaknesses among the keeper's priorities; lacking a twin is no weakness of a single filter.

    weights, parts: by priority, in the order of NAMES; unitless.
    """
    named = [k for k in range(1, len(NAMES)) if weights[k] > 0 and NAMES[k] != "redundant"]
    good = sorted((k for k in named if parts[k] >= 0.6), key=lambda k: -weights[k] * parts[k])[:2]
    bad = sorted((k for k in [0, *named] if parts[k] < 0.4), key=lambda k: -weights[k] * (1 - parts[k]))[:2]
    words = [", ".join(_SAYS[NAMES[k]][0] for k in good), ", ".join(_SAYS[NAMES[k]][1] for k in bad)]
    return "; ".join(filter(None, words)) or "middling in everything you asked for"


def caveats_of(
    f: Filter,
    site: Site,
    *,
    guard: list[str],
    low_lph: float,
    dirty_lph: float,
    days: float,
    slow: bool,
    count: int = 1,
) -> list[str]:
    """What to know of a filter before buying it.

    f: the filter; site: the tank's; guard: who gets into a bare intake; low_lph: flow asked, L/h; dirty_lph: of all in
    service, L/h; days: between cleanings; slow: slow by the turnover rules alone; count: how many of it.
    Source: common practice.
    """
    found = []
    if not f.air and count > max(site.sockets, 1):
        found.append(
            f"They want {count} sockets where you have {site.sockets}: a licensed electrician fits more; never a chain"
            " of strips near water."
        )
    if days < kind_of(f.kind).service_days:
        found.append(f"With this much food it wants cleaning about every {days:.0f} days.")
    if guard and not f.air:
        found.append(f"Put a guard sponge on the intake for {', '.join(guard)}.")
    if slow:
        found.append(
            f"Slow by the turnover rules, {formatting.lph(dirty_lph)} where {formatting.lph.bare(low_lph)} is asked;"
            " its film is enough all the same, as breeders find. It strains less and is squeezed sooner."
        )
    elif dirty_lph < low_lph:
        falls, them = ("it falls", "it") if count == 1 else ("they fall", "them")
        found.append(
            f"When dirty {falls} to {formatting.lph(dirty_lph)}, under the {formatting.lph.bare(low_lph)} asked: clean"
            f" {them} sooner."
        )
    if site.co2 != "none" and kind_of(f.kind).outlet in ("lip", "bubbles"):
        found.append("Its falling water drives the CO2 out: under CO2 the outlet stays under water.")
    return found + kind_of(f.kind).caveats(f, site)
