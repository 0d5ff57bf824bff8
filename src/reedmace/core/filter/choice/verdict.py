"""The ranking's verdict in a sentence, and the filter or set shown first."""

from collections.abc import Sequence

import numpy as np

from reedmace.core.filter.choice.candidates import Candidate, Pair
from reedmace.core.filter.choice.changes import Situation
from reedmace.core.filter.choice.limits import MOST_OF_ONE
from reedmace.core.filter.choice.margins import Margin
from reedmace.core.filter.choice.scores import weights_of
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting

LITTLE_SHORT = 0.85
"""Largest shortfall of flow, as a share, that is no reason to use two filters (a stated judgement)."""


def _trouble(margins_: list[Margin], *, by_film: bool = False) -> str:
    """What fails by the three margins; empty when all is well.

    margins_: of a filter or a pair; by_film: whether its film is enough, so that slow water is no trouble.
    """
    for m in margins_:
        if m.slow and by_film:
            continue
        short = m.level == "short" and m.about != "clarity" and not (m.about == "movement" and m.share >= LITTLE_SHORT)
        if short or m.level == "too-much":
            return f"{formatting.inside(m.words)}"
    return ""


def first_of(ranked: list[Candidate], pairs: list[Pair]) -> list[str]:
    """Ids shown first: the best single, or the best pair without fault where every single has some.

    ranked, pairs: best first.
    """
    if ranked and not _trouble(ranked[0].margins, by_film=ranked[0].enough_by_film):
        return [ranked[0].filter_id]
    well = [p for p in pairs if not _trouble(p.margins) and (not ranked or p.score > ranked[0].score)]
    if well:
        return well[0].filter_ids
    return [ranked[0].filter_id] if ranked else pairs[0].filter_ids if pairs else []


def several(s: Situation) -> list[str]:
    """Three or four of one filter that lacks only film or flow, where neither one nor a pair carries the tank.

    s: the ranking as it stands.
    """
    t = s.table
    more = [limit for limit in s.limits if limit.count is not None]
    other = [limit.broken for limit in s.limits if limit.count is None]
    short = np.logical_or.reduce([limit.broken for limit in more])
    at = np.flatnonzero(short & ~np.logical_or.reduce(other))
    count = np.full(len(t), MOST_OF_ONE + 1)
    for i in at.tolist():
        count[i] = max(limit.count(i) for limit in more if limit.count is not None and limit.broken[i])
    at = at[count[at] <= MOST_OF_ONE]
    if len(at) == 0:
        return []
    best = int(max(at, key=lambda i: (-count[i], float(s.parts[i] @ weights_of(s.priorities)), -t.price[i])))
    return [t.filters[best].id] * int(count[best])


def verdict_of(
    ranked: Sequence[Candidate],
    pairs: Sequence[Pair],
    first: list[str],
    site: Site,
    low_lph: float,
    names: dict[str, str],
) -> str:
    """The ranking in a sentence.

    ranked, pairs: best first; first: ids as from `first_of`; site: the tank's; low_lph: flow asked, L/h; names: of the
    filters, by id.
    """
    two = next((p for p in pairs if p.filter_ids == first), None)
    asked = f"where {formatting.lph.bare(low_lph)} is asked"
    if ranked and two is not None:
        best = ranked[0]
        return (
            f"Two do what no single one does here: {two.name} would move {formatting.lph(two.dirty_lph)} in service"
            f" {asked}. The best single, {best.name}: {_trouble(best.margins)}"
        )
    if ranked:
        best = ranked[0]
        return (
            f"{best.name} comes first: it would move {formatting.lph(best.delivered_lph)} here, not the"
            f" {formatting.lph.bare(best.box_lph)} on its box ({best.reason})."
        )
    if two is not None:
        return (
            f"No single filter carries this tank; together {two.name} would move {formatting.lph(two.delivered_lph)}"
            f" {asked}."
        )
    if first:
        sockets = f" They want {len(first)} sockets." if len(first) > site.sockets else ""
        return (
            f"Neither one filter nor two carry this tank: {len(first)} × {names[first[0]]} would, or fewer animals, or"
            f" more room under the tank for a larger one.{sockets}"
        )
    return "No filter here fits this tank as it stands. Each is listed with what would let it in."
