"""Water speeds in a tank from its outlets, and the share of water calm enough for each animal.

A current is judged by the share of the water an animal can rest in, not by the speed at one point: a jet is fast in a
cone and the rest of the tank turns with it, faster the more impulse goes in. Flow that is asked, the most that suits
the animals and the figure to throttle to all come from here, so they cannot cross unseen.
"""

import math
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Lph, Name, Part, Question, Share, Working, computation, number, whole
from reedmace.core.flow.jets import (
    CALM_ASKED,
    DRAG,
    GLASS_SHARE,
    LEAST_BODY_CM,
    SETTLES_CM_S,
    Basin,
    Opening,
    calm_share,
    circulation_m_s,
    jet_cm,
    largest_share,
    rest_share,
)
from reedmace.core.quantity import formatting

Current = Literal["gentle", "moderate", "strong"]

LENGTHS_A_SECOND: dict[str, float] = {"gentle": 1.0, "moderate": 2.0, "strong": 4.0}
"""Comfortable speed of an animal, in body lengths a second, by the current it prefers (memory)."""
BAR_HOLES, BAR_HOLE_MM = 20, 4.0
"""Smallest spray bar, used to spread a single outlet (memory)."""


def comfort_cm_s(length_cm: float, current: str) -> float:
    """Comfortable speed of an animal, cm/s. length_cm: its own, cm; current: what it prefers. Source: memory.

    >>> round(comfort_cm_s(4.0, "gentle"), 3)
    4.0
    """
    return LENGTHS_A_SECOND[current] * max(length_cm, LEAST_BODY_CM)


class CurrentPreference(Part):
    """An animal, its length and the current it prefers."""

    name: Name
    length_cm: Annotated[float, number("cm", 0.2, 300)]
    current: Current


class Outlet(Part):
    """An outlet into the tank."""

    flow_lph: Annotated[float, number("L/h", 0.1, 1e5)]
    bore_mm: Annotated[float, number("mm", 1, 200, "A nozzle's bore, or one hole of a spray bar")] = 14
    holes_count: Annotated[int, whole(1, 200)] = 1
    against_glass: bool = False
    way_cm: (
        Annotated[float, number("cm", 1, 1000, "A nozzle's, to the glass it faces; left out, the whole length")] | None
    ) = None

    def opening(self, row_cm: float) -> Opening:
        """The same in SI. row_cm: length of a row of its holes."""
        row = row_cm / 100 if self.holes_count > 1 else 0.0
        worth = GLASS_SHARE if self.against_glass else 1.0
        return Opening(
            self.flow_lph / 3.6e6, self.bore_mm / 1000, self.holes_count, row, worth, (self.way_cm or 0) / 100
        )

    def spread(self) -> "Outlet":
        """The same through a spray bar twice as open; a bar is unchanged."""
        if self.holes_count > 1:
            return self
        holes = max(BAR_HOLES, math.ceil(2 * (self.bore_mm / BAR_HOLE_MM) ** 2))
        return self.model_copy(update={"bore_mm": BAR_HOLE_MM, "holes_count": min(holes, 200)})

    def turned(self) -> "Outlet":
        """The same turned against the glass."""
        return self.model_copy(update={"against_glass": True})


class CurrentsQuestion(Question):
    """The water, its outlets and the animals."""

    length_cm: Annotated[float, number("cm", 5, 1000)]
    width_cm: Annotated[float, number("cm", 5, 500)]
    depth_cm: Annotated[float, number("cm", 1, 300)]
    outlets: Annotated[list[Outlet], Field(max_length=12)]
    animals: Annotated[list[CurrentPreference], Field(max_length=60)] = Field(default_factory=list)
    asked_lph: Annotated[float, number("L/h", 0, 1e6, "By the sizing rule that is followed")] = 0


class Calm(Part):
    """One species: its comfortable speed and the share of water slower than that."""

    name: str
    comfort_cm_s: Annotated[float, number("cm/s", 0, 1e4)]
    share: Share


class Jet(Part):
    """Reach of one outlet for the most sensitive animal: along the tank, or from a bar towards the front."""

    reach_cm: Annotated[float, number("cm", 0, 1000)]
    half_width_cm: Annotated[float, number("cm", 0, 1000)]
    row_cm: Annotated[float, number("cm", 0, 1000, "Length of a bar's row of holes, 0 of a nozzle")]


class CurrentsAnswer(Answer):
    """Circulation, calm water by species, and the largest flow that leaves half of it calm for all."""

    turning_cm_s: Annotated[float, number("cm/s", 0, 1e5)]
    outlet_cm_s: Annotated[float, number("cm/s", 0, 1e7)]
    calm: list[Calm]
    jets: list[Jet] = Field(description="Of each outlet, in its order, to where the most delicate can bear it")
    rest_share: Share = Field(description="Of the water outside the jets, in its middle, that is calm enough for all")
    settles_share: Share = Field(description="Of the bed, where dirt comes to rest")
    limit_lph: Lph | None = Field(description="Most flow through these outlets; None where nobody minds")
    troubled: list[str]
    conflict: bool = Field(description="Whether the flow asked is more than these outlets may give")
    remedies: list[str]


def _limit_lph(q: CurrentsQuestion, outlets: list[Outlet]) -> float | None:
    """Largest flow through these outlets with half the water calm for all, L/h."""
    if not q.animals or not outlets:
        return None
    least = min(comfort_cm_s(a.length_cm, a.current) for a in q.animals) / 100
    share = largest_share([o.opening(q.length_cm * 0.8) for o in outlets], _basin(q), least)
    return min(sum(o.flow_lph for o in outlets) * share, 1e6)


def _basin(q: CurrentsQuestion) -> Basin:
    return Basin(q.length_cm / 100, q.width_cm / 100, q.depth_cm / 100)


def _remedies(q: CurrentsQuestion, flow: float, limit: float) -> tuple[bool, list[str]]:
    """(whether throttling alone would fall short of the requirement, what to do)."""
    found = []
    conflict = limit < q.asked_lph
    if not conflict:
        found.append(f"Throttle the outlet to about {formatting.lph(limit)}, never the intake.")
    ways = {
        "Spread it with a spray bar: many small jets lose their speed sooner than one large one.": [
            o.spread() for o in q.outlets
        ],
        "Turn the outlet against the glass.": [o.turned() for o in q.outlets],
        "Spread it with a spray bar, and turn its holes to the glass.": [o.spread().turned() for o in q.outlets],
    }
    most = {way: _limit_lph(q, outlets) or 0.0 for way, outlets in ways.items() if outlets != q.outlets}
    wanted = max(q.asked_lph, 0.0) if conflict else flow
    enough = [way for way, lph in most.items() if lph >= wanted]
    if enough:
        found.append(f"Or {formatting.inside(enough[0])}" if found else enough[0])
    elif conflict and most:
        way = max(most, key=lambda w: most[w])
        found.append(
            f"{way} That is calm up to {formatting.lph(most[way])}; the rest of the {formatting.lph.bare(q.asked_lph)}"
            " asked needs a second outlet, or film in place of flow."
        )
    return conflict, found


@computation(
    "currents", "Speeds in the tank from its outlets, and how much of the water is calm enough for each animal"
)
def currents(question: CurrentsQuestion) -> CurrentsAnswer:
    """Water speeds from the outlets, and the share of the water calm enough for each animal.

    question: sizes in cm, flows in L/h, bores in mm, lengths of animals in cm.
    Source: jets by Albertson et al. 1950; turning water by Oca and Masalo 2007 (form); comfort by lengths from memory.
    """
    q, w = question, Working()
    basin = _basin(q)
    openings = [o.opening(q.length_cm * 0.8) for o in q.outlets]
    flow = sum(o.flow_lph for o in q.outlets)
    fastest = max((o.speed_m_s for o in openings), default=0.0) * 100
    if openings:
        w.line("U0", "Q / A, the fastest opening", f"{flow:.0f} L/h", fastest, "cm/s", "geometry")
    turning = circulation_m_s(openings, basin) * 100
    w.line("V", "Σ Q (U0 − V) = Ct A V² / 2", f"Ct {DRAG:g}, A {basin.wet_m2:.2f} m²", turning, "cm/s", "oca2007")
    calm = []
    for a in q.animals:
        most = comfort_cm_s(a.length_cm, a.current)
        share = calm_share(openings, basin, most / 100)
        w.line(
            a.name,
            "calm share: slower than its comfort, jets left out",
            f"{most:.1f} cm/s where the tank turns at {turning:.1f}",
            share,
            "share",
            "memory",
        )
        calm.append(Calm(name=a.name, comfort_cm_s=most, share=share))
    settles = rest_share(turning, SETTLES_CM_S)
    # Without a sensitive animal, a jet is drawn until it is no faster than the water at the glass.
    borne = min((c.comfort_cm_s for c in calm), default=max(2 * turning, SETTLES_CM_S)) / 100
    felt = [(o, *jet_cm(o, borne, basin)) for o in openings]
    limit = _limit_lph(q, q.outlets)
    if limit is not None:
        w.line(
            "limit",
            "most flow with half the water calm for all",
            f"{len(q.outlets)} outlets as they are",
            limit,
            "L/h",
            "memory",
        )
    troubled = list(dict.fromkeys(c.name for c in calm if c.share < CALM_ASKED))
    conflict, remedies = _remedies(q, flow, limit) if troubled and limit is not None else (False, [])
    return CurrentsAnswer(
        verdict=_verdict(q, calm, troubled, turning),
        working=w.lines,
        turning_cm_s=turning,
        outlet_cm_s=fastest,
        calm=calm,
        jets=[Jet(reach_cm=way, half_width_cm=half, row_cm=100 * o.row_m) for o, way, half in felt],
        rest_share=rest_share(turning / 100, borne),
        settles_share=settles,
        limit_lph=limit,
        troubled=troubled,
        conflict=conflict,
        remedies=remedies,
    )


def _verdict(q: CurrentsQuestion, calm: list[Calm], troubled: list[str], turning: float) -> str:
    if not q.outlets:
        return "Nothing drives this water: it stands still but for what rises."
    if not calm:
        return f"The tank turns at about {formatting.cm_s(turning)}."
    worst = min(calm, key=lambda c: c.share)
    if not troubled:
        return f"Calm enough for all: {100 * worst.share:.0f} % of the water suits {worst.name}."
    if len(troubled) == 1:
        return f"Too strong for {troubled[0]}: only {100 * worst.share:.0f} % of the water is calm enough."
    who = " and ".join(troubled) if len(troubled) < 3 else f"{', '.join(troubled[:-1])} and {troubled[-1]}"
    return f"Too strong for {who}: only {100 * worst.share:.0f} % of the water is calm enough for {worst.name}."
