"""Sensitivity of the ranking: for each runner-up and excluded kind, the smallest single change that puts it first."""

from dataclasses import dataclass
from typing import Annotated

import numpy as np

from reedmace.core.contract import Name, Part, number
from reedmace.core.filter.choice.limits import Requirement, limits_of
from reedmace.core.filter.choice.scores import NAMES, weights_of
from reedmace.core.filter.filter_table import Bools, FilterTable, Floats, Ints
from reedmace.core.filter.kind_parts.limit import Limit
from reedmace.core.filter.kinds import KINDS
from reedmace.core.filter.site.site import Plumbing, Priorities, Site
from reedmace.core.quantity import formatting

RUNNERS_UP = 4
CM_PER_STEP = 5.0
"""Centimetres of movement taken to weigh as much as one step of a slider (a stated judgement)."""
YES_COST = 6.0
"""Steps that an overflow box or a new socket weighs (a stated judgement)."""
_SAY = {
    "price": "cheap to buy",
    "running_cost": "cheap to run",
    "quiet": "quiet",
    "easy_clean": "easy to clean",
    "clear_water": "clear water",
    "hidden": "out of sight",
    "room_in_tank": "leaves the tank free",
    "flood_safety": "little that can flood",
    "power_cut": "rides out a power cut",
    "chemical": "chemical media",
    "expandable": "room to grow",
    "redundant": "a spare if one fails",
    "young_safe": "safe for young and shrimp",
}


class Change(Part):
    """One input changed by the least amount that puts a filter first."""

    filter_id: Name
    name: Name
    input: str
    now: Annotated[float, number("see input", -1e6, 1e6)]
    then: Annotated[float, number("see input", -1e6, 1e6)]
    text: str


@dataclass(frozen=True)
class Situation:
    """A ranking: n filters, their partial scores (n, k), flows (n,) in L/h, and its limits."""

    table: FilterTable
    site: Site
    plumbing: Plumbing
    asked: Requirement
    priorities: Priorities
    parts: Floats
    clean: Floats
    dirty: Floats
    film: Floats
    limits: list[Limit]
    high_lph: float

    def first(self, fits: Bools, weights: Floats) -> int | None:
        """Index of the first filter. fits: (n,); weights: in the order of NAMES."""
        where = np.flatnonzero(fits)
        if len(where) == 0:
            return None
        scores = self.parts[where] @ weights
        best = where[scores >= scores.max() - 1e-12 * abs(scores.max())]
        return int(min(best, key=lambda i: (self.table.price[i], self.table.filters[i].id)))

    def fits(self, site: Site) -> Bools:
        """Which filters fit a site that differs in one distance. room: the changed site."""
        limits = limits_of(self.table, site, self.asked, self.clean, self.dirty, self.film)
        return np.asarray(~np.column_stack([limit.broken for limit in limits]).any(axis=1))


def _targets(s: Situation, order: Ints) -> list[int]:
    """The runners-up, then the best of every kind of which none fits."""
    found = [int(i) for i in order[1 : 1 + RUNNERS_UP]]
    inside = set(s.table.kind[order].tolist())
    scores = s.parts @ weights_of(s.priorities)
    for kind in range(len(KINDS)):
        if kind not in inside:
            of_kind = np.flatnonzero(s.table.kind == kind)
            if len(of_kind):
                found.append(int(of_kind[np.argmax(scores[of_kind])]))
    return found


def _room_changes(s: Situation) -> list[tuple[float, str, float, float, Bools]]:
    """Every distance worth trying: (cost, input, now, then, which filters fit then)."""
    tried: list[tuple[float, str, float, float, Bools]] = []
    # Nobody moves a full tank, or its stand.
    movable = ("rim_to_water_cm",) if s.site.filled else ("behind_cm", "beneath_cm", "rim_to_water_cm")
    for key in movable:
        now = float(getattr(s.site, key))
        needs = {
            float(v)
            for limit in s.limits
            if limit.key == key and limit.need is not None
            for v in np.unique(limit.need[limit.broken])
        }
        for then in sorted(needs):
            if then < (0 if key == "rim_to_water_cm" else now) or then > 300:
                continue
            fits = s.fits(s.site.model_copy(update={key: then}))
            tried.append((abs(then - now) / CM_PER_STEP, key, now, then, fits))
    if not s.site.overflow_box and not s.site.drilled:
        tried.append((YES_COST, "overflow_box", 0.0, 1.0, s.fits(s.site.model_copy(update={"overflow_box": True}))))
    if s.site.sockets < 1:
        tried.append((YES_COST, "sockets", 0.0, 1.0, s.fits(s.site.model_copy(update={"sockets": 1}))))
    return tried


def _text(s: Situation, key: str, now: float, then: float, name: str) -> str:
    if key == "behind_cm":
        return f"Move the tank {formatting.cm(then - now, 'g')} further off the wall and the {name} comes first."
    if key == "beneath_cm":
        return f"Find {formatting.cm(then - now, 'g')} more height under the tank and the {name} comes first."
    if key == "rim_to_water_cm":
        return f"Fill the tank {formatting.cm(now - then, 'g')} higher and the {name} comes first."
    if key == "overflow_box":
        return f"Hang an overflow box and the {name} comes first."
    if key == "sockets":
        return f"Have a socket fitted and the {name} comes first."
    return f"Set “{_SAY[key]}” to {then:g} instead of {now:g} and the {name} comes first."


def smallest_changes(situation: Situation, order: Ints) -> list[Change]:
    """For each runner-up and the best of each excluded kind, the smallest single change that puts it first.

    situation: the ranking as it stands; order: indices of the fitting filters, best first. A filter that no single
    change brings first is left out. Distances are tried at the places where a limit gives way, priorities at every
    step.
    """
    s = situation
    if len(order) == 0:
        order = np.array([], dtype=np.int64)
    targets = _targets(s, order)
    weights, fits = weights_of(s.priorities), np.zeros(len(s.table), dtype=bool)
    fits[order] = True
    best: dict[int, tuple[float, str, float, float]] = {}

    def offer(first: int | None, cost: float, key: str, now: float, then: float) -> None:
        if first is not None and (first not in best or cost < best[first][0]):
            best[first] = (cost, key, now, then)

    for k, key in enumerate(NAMES):
        if key == "flow" or key == "redundant":
            continue
        now = int(weights[k])
        for then in range(6):
            if then != now:
                changed = weights.copy()
                changed[k] = then
                offer(s.first(fits, changed), abs(then - now), key, now, then)
    for cost, key, before, after, who in _room_changes(s):
        offer(s.first(who, weights), cost, key, before, after)
    # An excluded kind may come first through another of its filters than the one that scores highest.
    kinds = {s.table.kind[i] for i in targets if not fits[i]}
    wanted = {*targets, *(i for i in best if s.table.kind[i] in kinds and not fits[i])}
    standing = int(order[0]) if len(order) else None
    found = []
    for i in wanted & best.keys() - {standing}:
        cost, key, was, becomes = best[i]
        f = s.table.filters[i]
        text = _text(s, key, was, becomes, f.name)
        found.append((cost, Change(filter_id=f.id, name=f.name, input=key, now=was, then=becomes, text=text)))
    found.sort(key=lambda c: (c[0], c[1].filter_id))
    return [c for _, c in found]


__all__ = ["Change", "Situation", "smallest_changes"]
