"""Water speeds in a tank from its outlets, and the share of water calm enough for each animal.

A current is judged by the share of the water an animal can rest in, not by the speed at one point: a jet is fast in a
cone and the rest of the tank turns with it, faster the more impulse goes in. Flow that is asked, the most that suits
the animals and the figure to throttle to all come from here, so they cannot cross unseen.
"""

import math
from collections.abc import Sequence
from typing import Annotated, Literal, NamedTuple

from pydantic import Field

from reedmace.core.contract import Answer, Lph, Name, Part, Question, Share, Working, computation, number, whole
from reedmace.core.quantity import formatting
from reedmace.core.root_finding import root_between

Current = Literal["gentle", "moderate", "strong"]

LENGTHS_A_SECOND: dict[str, float] = {"gentle": 1.0, "moderate": 2.0, "strong": 4.0}
"""Comfortable speed of an animal, in body lengths a second, by the current it prefers (memory)."""
LEAST_BODY_CM = 2.0
"""Shortest length used; smaller animals hold on to something or live in slow layers (memory)."""
CALM_ASKED = 0.5
"""Share of calm water required for every species (memory)."""
ROUND, PLANE = 6.2, 2.28
"""Decay of the speed along a jet: U/U0 = 6.2 D/x round, 2.28 √(b/x) plane (Albertson et al. 1950)."""
ROUND_HALF, PLANE_HALF = 0.094, 0.10
"""Half-width over distance of the two jets, where the speed is half of the centre's (Pope 2000, memory)."""
DRAG = 0.1
"""Drag coefficient of a tank's wet walls against its circulation (form: Oca and Masalo 2007; the value from memory)."""
MOST_SHARE = 50.0
GLASS_SHARE = 0.5
"""Share of a jet's momentum left after it is turned against the glass (memory)."""
SETTLES_CM_S = 2.0
"""Speed near the bed below which dirt settles (memory)."""
BAR_HOLES, BAR_HOLE_MM = 20, 4.0
"""Smallest spray bar, used to spread a single outlet (memory)."""


class Opening(NamedTuple):
    """One outlet.

    Its flow in m³/s through `holes` round holes of `bore_m`, in a row of `row_m`; what its impulse is worth; how far a
    nozzle blows before it meets glass, 0 for the whole length.
    """

    flow_m3s: float
    bore_m: float
    holes: int = 1
    row_m: float = 0.0
    worth: float = 1.0
    way_m: float = 0.0

    @property
    def speed_m_s(self) -> float:
        """Speed in the opening, m/s."""
        return self.flow_m3s / (math.pi / 4 * self.bore_m**2 * self.holes)


class Basin(NamedTuple):
    """The water as a box, in m."""

    length_m: float
    width_m: float
    depth_m: float

    @property
    def volume_m3(self) -> float:
        """Volume, m³."""
        return self.length_m * self.width_m * self.depth_m

    @property
    def wet_m2(self) -> float:
        """Area of walls and bottom, m²."""
        return 2 * (self.length_m + self.width_m) * self.depth_m + self.length_m * self.width_m


def circulation_m_s(openings: Sequence[Opening], basin: Basin) -> float:
    """Mean speed of the circulation, m/s.

    openings: its outlets; basin: its water. Solves Σ Q (U0 − V) = Ct A V² / 2 for V.
    Source: Oca and Masalo 2007 for the form; Ct from memory.
    """
    flow = sum(o.flow_m3s for o in openings)
    impulse = sum(o.flow_m3s * o.speed_m_s * o.worth for o in openings)
    drag = DRAG * basin.wet_m2
    return (-flow + math.sqrt(flow**2 + 2 * drag * impulse)) / drag if impulse > 0 else 0.0


def jet_m3(opening: Opening, over_m_s: float, basin: Basin) -> float:
    """Water in an outlet's jets that moves faster than `over_m_s`, m³.

    opening: the outlet; over_m_s: m/s; basin: the jets end at its far glass. Speeds fall across a jet as a bell curve.
    Source: Albertson et al. 1950 for the speed along the middle, Pope 2000 for the widths (memory).
    """
    out = opening.speed_m_s * math.sqrt(opening.worth)
    if out <= over_m_s:
        return 0.0
    if opening.holes == 1 or opening.row_m <= 0:
        reach = ROUND * opening.bore_m * out / over_m_s
        way = min(reach, opening.way_m or basin.length_m)
        inside = way**3 / 3 * math.log(reach / way) + way**3 / 9
        return opening.holes * math.pi * ROUND_HALF**2 / math.log(2) * inside
    # Jets of holes in a row have merged into a plane jet long before the far glass.
    slot = math.pi / 4 * opening.bore_m**2 * opening.holes / opening.row_m
    reach = slot * (PLANE * out / over_m_s) ** 2
    way = min(reach, basin.width_m)
    least = math.log(reach / way)
    whole_jet = 2**-1.5 * math.gamma(1.5) * reach**2
    return 2 * PLANE_HALF * math.sqrt(0.5 / math.log(2)) * opening.row_m * whole_jet * _beyond(2 * least)


def _beyond(x: float) -> float:
    """The upper incomplete gamma function of 3/2 over the whole.

    x: from 0 up, dimensionless. Source: Abramowitz and Stegun 1964, 6.5.
    """
    return math.erfc(math.sqrt(x)) + 2 * math.sqrt(x / math.pi) * math.exp(-x)


def jet_cm(opening: Opening, over_m_s: float, basin: Basin) -> tuple[float, float]:
    """Distance an outlet's jet stays faster than `over_m_s`, and its half-width there, cm.

    opening: the outlet; over_m_s: m/s, over 0; basin: the jet ends at its far glass. Source: as `jet_m3`.
    """
    out = opening.speed_m_s * math.sqrt(opening.worth)
    if out <= over_m_s:
        return 0.0, 0.0
    if opening.holes == 1 or opening.row_m <= 0:
        way = min(ROUND * opening.bore_m * out / over_m_s, opening.way_m or basin.length_m)
        return 100 * way, 100 * ROUND_HALF * way
    slot = math.pi / 4 * opening.bore_m**2 * opening.holes / opening.row_m
    way = min(slot * (PLANE * out / over_m_s) ** 2, basin.width_m)
    return 100 * way, 100 * PLANE_HALF * way


def rest_share(turning_m_s: float, comfort_m_s: float) -> float:
    """Share of the circulating water, without jets, slower than `comfort_m_s`. turning_m_s, comfort_m_s: m/s.

    >>> round(rest_share(0.1, 0.05), 4)
    0.25
    """
    return min(comfort_m_s / (2 * turning_m_s), 1.0) if turning_m_s > 0 else 1.0


def calm_share(openings: Sequence[Opening], basin: Basin, comfort_m_s: float) -> float:
    """Share of the water slower than `comfort_m_s`.

    openings: its outlets; basin: its water; comfort_m_s: m/s. Outside the jets speeds lie evenly between nothing, in
    the middle of the turning water, and twice its mean (memory).
    """
    turning = circulation_m_s(openings, basin)
    rest = rest_share(turning, comfort_m_s)
    jets = min(sum(jet_m3(o, comfort_m_s, basin) for o in openings) / basin.volume_m3, 1.0)
    return rest * (1 - jets)


def largest_share(openings: Sequence[Opening], basin: Basin, comfort_m_s: float) -> float:
    """Largest multiple of these flows that leaves half of the water calm (0 to 50).

    openings: its outlets, throttled or opened alike; basin: its water; comfort_m_s: m/s. More flow is never calmer, so
    there is one such share, or none up to 50.
    """

    def spare(share: float) -> float:
        flows = [o._replace(flow_m3s=o.flow_m3s * share) for o in openings]
        return calm_share(flows, basin, comfort_m_s) - CALM_ASKED

    if spare(MOST_SHARE) >= 0:
        return MOST_SHARE
    found = root_between(spare, 1e-6, MOST_SHARE, xtol=1e-7, rtol=1e-9)
    # On the calm side of the root, or the limit itself would be too strong.
    return found * (1 - 1e-6)


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
