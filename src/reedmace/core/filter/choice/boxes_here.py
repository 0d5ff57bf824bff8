"""Whether boxes of a table do on a tank, one by one or several of one, and why not."""

from dataclasses import dataclass, field
from enum import IntEnum
from functools import lru_cache
from typing import Annotated

import numpy as np
from pydantic import Field

from reedmace.core.contract import Lph, Name, Part, number
from reedmace.core.filter.choice.candidates import RankFiltersQuestion
from reedmace.core.filter.choice.flows import flows_here
from reedmace.core.filter.choice.limits import MOST_OF_ONE, limits_of
from reedmace.core.filter.choice.ranking_columns import RankingColumns, ranking_columns, stirred
from reedmace.core.filter.choice.reasons import reason_of
from reedmace.core.filter.choice.requirement import TankRequirement, tank_requirement, water_of
from reedmace.core.filter.choice.scores import weights_of
from reedmace.core.filter.filter_table import Bools, FilterTable, Ints
from reedmace.core.filter.kind_parts.limit import Limit, one_remedy
from reedmace.core.filter.kind_parts.traits import KindName
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.site.noise import DISTURBS_DB, HEARD_FROM_DB
from reedmace.core.filter.site.site import RoomKind, default_priorities
from reedmace.core.filter.sizing_schools import AS_ASKED_SHARE, ENOUGH_SHARE
from reedmace.core.filter.water_path import Delivered
from reedmace.core.quantity import formatting

FAR_MORE = 3.0
"""Multiple of the most that is asked from which a size only costs (a stated judgement)."""
SLOW_SHARE = 0.5
"""Share of the flow asked that does where film is enough (a stated judgement)."""
CLOGS_DAYS = 4.0
"""Days between cleanings under which nobody keeps a filter (memory)."""
LARGE_TABLE = 500
"""Boxes from which the flows of a table are kept."""
MOST_LETTERS = 26
"""Longest reason that is written at the end of a bar."""
_ROOMS: dict[RoomKind, str] = {
    "bedroom": "bedroom", "living": "living room", "workshop": "workshop", "shop": "shop", "fish-room": "fish room",
}  # fmt: skip
_BY_KEY = {"behind_cm": "no room behind", "beneath_cm": "no room under the tank", "sockets": "no socket"}


def too_loud_db(q: RankFiltersQuestion) -> float:
    """Sound from which a filter disturbs here, dB. q: with the site."""
    return HEARD_FROM_DB[q.site.kind] + DISTURBS_DB


class _Fault(IntEnum):
    """What keeps a box from doing, in the order in which it is said."""

    BROKEN = 1
    FILM = 2
    FLOW = 3
    CLOGS = 4
    FAR_MORE = 5
    ROOM = 6
    LOUD = 7


@dataclass
class SameWater:
    """What was worked out for one tank's water, kept while only wishes change, which move no water."""

    faults: dict[tuple[str, float, int], str] = field(default_factory=dict)
    """Faults of oxygen and calm, by box, flow and count."""
    flows: tuple[FilterTable, tuple[float | None, ...], Delivered] | None = None
    """Flows of the last table that was large, with the hoses it had, m."""


@dataclass(frozen=True)
class BoxesHere:
    """Boxes on a tank as columns (n,), with what the tank asks and its hard limits."""

    q: RankFiltersQuestion
    table: FilterTable
    r: RankingColumns
    asked: TankRequirement
    limits: list[Limit]
    same_water: SameWater
    """What was worked out before for the same water."""
    faults_by_count: dict[int, Ints] = field(default_factory=dict)
    """Results of `faults`."""

    def broken(self, i: int, count: int = 1) -> list[Limit]:
        """Hard limits that so many of a box break. i: its row."""
        return [limit for limit in self.limits if limit.broken[i] and (count == 1 or limit.count is None)]

    def faults(self, count: int = 1) -> Ints:
        """What keeps so many of each box from doing (n,): 0 for nothing, else the first `_Fault` that holds."""
        kept = self.faults_by_count
        if count not in kept:
            q, r, asked = self.q, self.r, self.asked
            broken = [limit.broken for limit in self.limits if count == 1 or limit.count is None]
            film, service = count * r.film + q.site.film_here_m2, count * r.service
            slow = r.slow | (count > 1 and not asked.coarse)
            none = np.zeros(len(self.table), dtype=bool)
            holds = [
                np.logical_or.reduce(broken) if broken else none,
                film < asked.film_m2,
                service < np.where(slow, SLOW_SHARE, ENOUGH_SHARE) * asked.low,
                r.days < CLOGS_DAYS,
                service > FAR_MORE * asked.high,
                ~self._stand_together(count) if count > 1 else none,
                r.sound > too_loud_db(q),
            ]
            kept[count] = np.select(holds, [one.value for one in _Fault], default=0)
        return kept[count]

    def why_not(self, i: int, count: int = 1) -> str:
        """Why so many of a box do not do, in a few words; empty where they do, but for currents. i: its row."""
        found = int(self.faults(count)[i])
        if not found:
            return ""
        match _Fault(found):
            case _Fault.BROKEN:
                return self._short(self.broken(i, count), i)
            case _Fault.FILM:
                return "film"
            case _Fault.FLOW:
                return "too little flow"
            case _Fault.CLOGS:
                return f"clogs every {max(self.r.days[i], 1):.0f} days"
            case _Fault.FAR_MORE:
                return "far too much"
            case _Fault.ROOM:
                return "no room for so many"
            case _Fault.LOUD:
                return f"too loud for a {_ROOMS[self.q.site.kind]}"

    def do(self, count: int = 1) -> Bools:
        """Which boxes do (n,), so many of each, but for currents."""
        able: Bools = self.faults(count) == 0
        return able

    def carries_alone(self) -> Bools:
        """Of which boxes one alone still carries the load, if slowly (n,)."""
        q, r, asked = self.q, self.r, self.asked
        able: Bools = (r.film + q.site.film_here_m2 >= asked.film_m2) & (r.service >= asked.load_lph)
        return able

    def _stand_together(self, count: int) -> Bools:
        """Which boxes stand side by side, so many of each (n,)."""
        t, site = self.table, self.q.site
        apart = ~t.where(lambda k: k.on_rim or k.hosed or k.in_tank) | (count * t.width_cm <= site.length_cm)
        able: Bools = t.where(lambda k: k.may_pair) & apart
        return able

    def _short(self, broken: list[Limit], i: int) -> str:
        for limit in broken:
            if limit.key in _BY_KEY:
                return _BY_KEY[limit.key]
        own = [limit for limit in broken if limit.count is None]
        if not own:
            short_of_film = self.r.film[i] + self.q.site.film_here_m2 < self.asked.film_m2
            return "film" if short_of_film else "too little flow"
        reason = own[0].reason(i)
        return reason if len(reason) <= MOST_LETTERS else "too large for this tank"

    def stirring_fault(self, i: int, count: int = 1) -> str:
        """Whether so many of a box leave too little oxygen or calm, in a few words; empty where not. i: its row."""
        f = self.table.filters[i]
        faults = self.same_water.faults
        key = (f.model_dump_json(exclude={"id", "name", "price"}), float(self.r.clean[i]), count)
        if key not in faults:
            faults[key] = self._stirring_fault(i, count)
        return faults[key]

    def _stirring_fault(self, i: int, count: int) -> str:
        f = self.table.filters[i]
        made, kept = stirred(self.q, self.asked.low, [(f, float(self.r.clean[i]))] * count)
        kind = kind_of(f.kind)
        # Canisters and hang-ons are throttled; what cannot be is too strong for good.
        if made.troubled and not (kind.hosed or kind.on_rim):
            return f"too strong for {formatting.inside(made.troubled[0])}"
        return "" if kept.enough else "too little oxygen"


def boxes_here(q: RankFiltersQuestion, table: FilterTable) -> BoxesHere:
    """A table of boxes on a tank. q: the tank's question; table: n boxes. Raises CannotAnswer for unknown animals."""
    asked, same = tank_requirement(q), same_water(water_of(q), formatting.chosen())
    priorities = q.priorities or default_priorities(q.site, has_young=asked.has_young)
    r = ranking_columns(q, table, asked, weights_of(priorities), _flows(q, table, asked.feed, same))
    limits = limits_of(table, q.site, asked.for_limits(), r.clean, r.service, r.film)
    return BoxesHere(q, table, r, asked, limits, same)


def _flows(q: RankFiltersQuestion, table: FilterTable, feed: float, same: SameWater) -> Delivered:
    """Flows of a table on a tank, from before where only wishes changed."""
    if q.installed or len(table) < LARGE_TABLE:
        return flows_here(q, table, feed)
    hoses = tuple(q.hose_m.get(f.id) for f in table.filters)
    if same.flows is None or same.flows[0] is not table or same.flows[1] != hoses:
        same.flows = (table, hoses, flows_here(q, table, feed))
    return same.flows[2]


@lru_cache(maxsize=64)
def same_water(_water: str, _units: formatting.Units) -> SameWater:
    """What is kept for one tank's water. _water: from `water_of`; _units: of its words."""
    return SameWater()


class JudgedBox(Part):
    """One box on a tank: whether it does, why not, and what it would be like."""

    filter_id: Name
    name: Name
    kind: KindName
    box_lph: Lph
    does: bool
    short: str = Field(description="Why it does not do, in a few words; empty where it does")
    words: str
    service_lph: Lph
    service_days: Annotated[float, number("days", 0, 4000, "Between cleanings here")]
    noise_db: Annotated[float, number("dB", 0, 140, "At a metre, here")]
    watts: Annotated[float, number("W", 0, 5000)]
    score: Annotated[float, number("points of 100", 0, 100)]
    speaks: str


def judged_box(here: BoxesHere, i: int) -> JudgedBox:
    """Whether one box of a table does on a tank, in sentences. here: the table on the tank; i: its row."""
    f, r = here.table.filters[i], here.r
    short = here.why_not(i) or here.stirring_fault(i)
    return JudgedBox(
        filter_id=f.id,
        name=f.name,
        kind=f.kind,
        box_lph=f.box_lph,
        does=not short,
        short=short,
        words=_sentence(here, i, short),
        service_lph=float(r.service[i]),
        service_days=float(r.days[i]),
        noise_db=float(r.sound[i]),
        watts=float(r.watts[i]),
        score=float(r.scores[i]),
        speaks=reason_of(r.weights, r.parts[i]),
    )


def _sentence(here: BoxesHere, i: int, short: str) -> str:
    """The verdict on one box with its figures. short: why it does not do, empty where it does."""
    r, asked = here.r, here.asked
    moves = f"{formatting.lph(r.service[i])} in service where {formatting.lph.bare(asked.low)} is asked"
    if not short:
        if r.service[i] >= AS_ASKED_SHARE * asked.low:
            return f"Moves {moves}."
        slow = "a little slow" if r.service[i] >= ENOUGH_SHARE * asked.low else "slow"
        return f"Moves {moves}: {f'{slow}, but with film enough' if r.slow[i] else 'a little under'}."
    if broken := here.broken(i):
        said = [limit for limit in broken if limit.final] or broken
        reason = formatting.opening("; ".join(limit.reason(i) for limit in said))
        remedy = one_remedy(broken, i, MOST_OF_ONE)
        return f"{reason}." + (f" To let it in: {remedy}." if remedy else "")
    if short == "film":
        share = (r.film[i] + here.q.site.film_here_m2) / max(asked.film_m2, 1e-9)
        return f"Its media hold filter bacteria for {share:.0%} of what these animals give off."
    if short == "too little flow":
        return f"Moves only {moves}."
    if short == "far too much":
        return f"Moves {moves}, {r.service[i] / max(asked.high, 1e-9):.0f} times the most that is asked."
    if r.days[i] < CLOGS_DAYS:
        return f"It {short} under this load."
    if r.sound[i] > too_loud_db(here.q):
        return f"{formatting.opening(short)}: about {r.sound[i]:.0f} dB at a metre."
    return f"{formatting.opening(short)}."
