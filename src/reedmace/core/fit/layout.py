"""Layout of a filter's parts on the tank, in centimetres of the front view.

x runs from the tank's left outer face to the right, y up from the floor. Hoses hang behind the tank; their runs are
drawn flat, since what is cut is their length.
"""

import math
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Answer, Part, Question, Working, computation, number, whole
from reedmace.core.filter.filter_box import Filter
from reedmace.core.filter.kind_parts.fitting import Purchase
from reedmace.core.filter.kind_parts.placement import (
    FROM_BED_CM,
    Layout,
    PartMark,
    PartRole,
    Place,
    PlacedIssue,
    ResolvedLayout,
    RunDraft,
    RunRole,
    issue_at,
)
from reedmace.core.filter.kinds import kind_of
from reedmace.core.filter.site.site import Plumbing, Site
from reedmace.core.filter.water_path import USUAL_HOSE_MM
from reedmace.core.flow.overflow import run_back_l
from reedmace.core.quantity import formatting
from reedmace.core.tank import Sump, sump_of_body
from reedmace.core.tank.evaporation import TANK_DROP_CM

BEND_BORES = {"plain": 6.0, "ribbed": 3.0}
"""Tightest bend of a hose, in bores, before it kinks (memory)."""
SLACK_SHARE, SLACK_CM = 0.05, 10.0
"""Extra length to cut beyond the drawn run: a hose can be cut shorter, never longer (common practice)."""
AIR_LINE_MM = 4.0
HOSES: tuple[RunRole, ...] = ("intake-hose", "return-hose")
SHORTEST_HOSE_M, LONGEST_HOSE_M = 0.2, 50.0
HAND_CM = 8.0
"""Space between the hoses of two filters at the rim (memory)."""
LEVEL_CM = 0.5
"""Distance from the water line within which a part counts as at it."""
FEET_CM = 3.0
"""Height of a body over its support (memory)."""


class FittingPlanQuestion(Question):
    """The filter, its plumbing, the site, and the layout."""

    filter: Filter
    site: Site
    plumbing: Plumbing = Field(default_factory=Plumbing)
    stand_height_cm: Annotated[float, number("cm", 0, 200)] = 70
    tank_height_cm: Annotated[float, number("cm", 5, 300)] = 45
    canister_at_cm: Annotated[float, number("cm", 0, 200)] = 0
    substrate_depth_cm: Annotated[float, number("cm", 0, 60)] = 0
    surface_cm2: (
        Annotated[float, number("cm²", 10, 1e6, "Surface of the water; left out, length times width")] | None
    ) = None
    return_lph: Annotated[float, number("L/h", 0, 1e5, "Flow, for how high a sump's edge stands")] = 0
    sump: Sump | None = Field(default=None, description="As measured; left out, the filter's own body")
    beside_cm: Annotated[
        float, number("cm", 0, 1000, "Taken by others of its kind, whose usual place it cannot have as well")
    ] = 0
    layout: Layout = Field(default_factory=Layout)


class Run(Part):
    """One hose or line: its corners, its drawn length and the length to cut."""

    role: RunRole
    name: str
    points: list[Place]
    drawn_cm: Annotated[float, number("cm", 0, 1e5)]
    cut_cm: Annotated[float, number("cm", 0, 1e5)]
    bore_mm: Annotated[float, number("mm", 1, 200)]
    bend_radius_cm: Annotated[float, number("cm", 0, 100, "The tightest bend it takes")]
    bends_count: Annotated[int, whole(0, 50)]


class PartPlace(Part):
    """One part in the front view."""

    role: PartRole
    name: str
    at: Place
    stands: str = Field(
        description="Where, from the level a fitter measures from: “30 cm deep”, “6 cm above”, a socket “40 cm up”"
    )


class CutLine(Part):
    """One line of the cut list."""

    item: str
    amount: Annotated[float, number("unit", 0, 1e5)]
    unit: Literal["cm", "piece"]
    how: str
    need: Literal["needed", "wise", "spare"] = "needed"


class FittingPlanAnswer(Answer):
    """Parts, runs, faults and the cut list."""

    parts: list[PartPlace]
    runs: list[Run]
    faults: list[PlacedIssue]
    cuts: list[CutLine]
    hose_m: Annotated[float, number("m", 0, 1000, "Hoses as drawn, together: what the flow as laid out counts with")]
    intake_depth_cm: Annotated[float, number("cm", 0, 300)]
    uplift_cm: Annotated[float, number("cm", 0, 300, "Longest uplift from the bed that stays under")]
    run_back_l: Annotated[float, number("L", 0, 1e6, "Into a sump when its pump stops")]
    sump_free_l: Annotated[float, number("L", 0, 1e6, "Room in it aboves running level")]
    water_y_cm: Annotated[float, number("cm", 0, 1000)]
    evaporated_y_cm: Annotated[float, number("cm", 0, 1000, "The water line when some has evaporated")]


def run_length_cm(points: list[Place], radius_cm: float) -> float:
    """Length along a run whose corners are rounded, cm.

    points: its corners in order; radius_cm: of each rounding, as far as the legs allow.
    Source: a corner turning by φ rounded at radius r is shorter by 2 r tan(φ/2) − r φ.
    """
    legs = [math.dist((a.x_cm, a.y_cm), (b.x_cm, b.y_cm)) for a, b in pairwise(points)]
    total = sum(legs)
    for i in range(1, len(points) - 1):
        a, b, c = points[i - 1], points[i], points[i + 1]
        one = math.atan2(b.y_cm - a.y_cm, b.x_cm - a.x_cm)
        two = math.atan2(c.y_cm - b.y_cm, c.x_cm - b.x_cm)
        turn = abs((two - one + math.pi) % (2 * math.pi) - math.pi)
        if turn < 1e-9 or turn > math.pi - 1e-6:
            continue
        cut = math.tan(turn / 2)
        radius = min(radius_cm, legs[i - 1] / 2 / cut, legs[i] / 2 / cut)
        total -= 2 * radius * cut - radius * turn
    return total


def sump_of_plan(question: FittingPlanQuestion) -> Sump:
    """The sump of this plan: the tank's own, or the filter's body at the usual level. question: the plan's."""
    f = question.filter
    return question.sump or sump_of_body(f.width_cm, f.depth_cm, f.height_cm)


def resolve_layout(q: FittingPlanQuestion) -> ResolvedLayout:
    """The plan with all defaults resolved; y from the floor, in cm. q: the plan's question."""
    f, site, lay, kind = q.filter, q.site, q.layout, kind_of(q.filter.kind)
    rim = q.stand_height_cm + q.tank_height_cm
    water = rim - site.rim_to_water_cm
    bed = water - site.water_depth_cm + q.substrate_depth_cm
    length = site.length_cm
    # The next filter of a kind stands towards the other end, as far as there is space.
    most = max(length * kind.body_x_share - f.width_cm / 2, 0.0)
    aside = min(q.beside_cm, most)
    body_x = length * kind.body_x_share - aside if lay.body_x_cm is None else lay.body_x_cm
    # A stem goes down from its own box; hoses of the next filter keep a hand's breadth from the first's.
    # A plate covers the bottom; its lift stands at the end whatever its width.
    half = 0.0 if kind.hosed or f.width_cm > length / 2 else f.width_cm / 2 + 1
    hosed = min(aside, HAND_CM) if kind.hosed else aside
    own = body_x if kind.stemmed else max(min(length * 0.92, length - half) - hosed, min(length * 0.92, half))
    usual = max(min(site.water_depth_cm * 0.75, water - bed - FROM_BED_CM), 1.0)
    foot = q.canister_at_cm + FEET_CM
    bore_mm = q.plumbing.hose_bore_mm or f.hose_bore_mm or USUAL_HOSE_MM
    sump = sump_of_plan(q)
    returned = 1.0 if lay.siphon_break else max(lay.outlet_depth_cm, 0.0)
    surface = q.surface_cm2 or site.length_cm * site.width_cm
    return ResolvedLayout(
        filter=f,
        site=site,
        plumbing=q.plumbing,
        lay=lay,
        bottom=q.stand_height_cm,
        rim=rim,
        water=water,
        bed=bed,
        outlet_x=length * 0.08 + (hosed if kind.hosed else 0.0) if lay.outlet_x_cm is None else lay.outlet_x_cm,
        body_x=body_x,
        intake_x=own if lay.intake_x_cm is None else lay.intake_x_cm,
        intake_depth=usual if lay.intake_depth_cm is None else lay.intake_depth_cm,
        socket_x=length + 15 if lay.socket_x_cm is None else lay.socket_x_cm,
        foot=foot,
        top=foot + f.height_cm,
        bend=BEND_BORES[lay.hose] * bore_mm / 10,
        run_back_l=run_back_l(surface, q.return_lph, sump.weir_cm, returned) if kind.rise == "return" else 0.0,
        sump_free_l=sump.free_l if kind.rise == "return" else 0.0,
    )


def _run(draft: RunDraft, bore_mm: float, w: Working) -> Run:
    places = [Place(x_cm=x, y_cm=y) for x, y in draft.points]
    drawn = run_length_cm(places, draft.bend)
    cut = drawn * (1 + SLACK_SHARE) + SLACK_CM
    w.line(
        draft.name, "legs less rounded corners", f"{len(places)} corners, r {draft.bend:g} cm", drawn, "cm", "geometry"
    )
    w.line(f"{draft.name}, cut", "drawn × 1.05 + 10", f"{drawn:.0f} × 1.05 + 10", cut, "cm", "practice")
    return Run(
        role=draft.role,
        name=draft.name,
        points=places,
        drawn_cm=drawn,
        cut_cm=cut,
        bore_mm=bore_mm,
        bend_radius_cm=draft.bend,
        bends_count=len(places) - 2,
    )


def _drawn_m(question: FittingPlanQuestion) -> dict[RunRole, float]:
    """Length of each hose as drawn on the tank, m."""
    g = resolve_layout(question)
    return {
        r.role: run_length_cm([Place(x_cm=x, y_cm=y) for x, y in r.points], r.bend) / 100
        for r in kind_of(question.filter.kind).runs(g)
        if r.role in HOSES
    }


def drawn_hose_m(question: FittingPlanQuestion) -> float:
    """Both hoses of a filter as drawn on its tank, m, within the allowed range. question: the plan's."""
    return min(max(sum(_drawn_m(question).values()), SHORTEST_HOSE_M), LONGEST_HOSE_M)


def drawn_intake_share(question: FittingPlanQuestion) -> float:
    """Share of both hoses that leads to the filter, as drawn; half where nothing is drawn. question: the plan's."""
    drawn = _drawn_m(question)
    total = sum(drawn.values())
    return drawn.get("intake-hose", 0.0) / total if total > 0 else question.plumbing.intake_share


def _cuts(runs: list[Run], bought: list[Purchase]) -> list[CutLine]:
    found = [
        CutLine(
            item=r.name,
            amount=math.ceil(r.cut_cm),
            unit="cm",
            how=f"drawn {formatting.cm(r.drawn_cm)}, and slack: place first, measure, then cut",
        )
        for r in runs
        if r.role != "drain"
    ]
    return found + [CutLine(item=b.item, amount=b.amount, unit=b.unit, how=b.how, need=b.need) for b in bought]


def _verdict(faults: list[PlacedIssue], cuts: list[CutLine]) -> str:
    if faults:
        more = f" And {len(faults) - 1} more." if len(faults) > 1 else ""
        return f"{faults[0].what} {faults[0].remedy}{more}"
    needed = [c for c in cuts if c.need == "needed"]
    if not needed:
        return "Nothing stands in its way, and nothing is to be cut."
    words = (f"{c.item} {formatting.cm(c.amount) if c.unit == 'cm' else f'{c.amount:.0f}'}" for c in needed[:3])
    return f"Nothing stands in its way: {', '.join(words)}."


@computation("fitting-plan", "Where everything goes, what to cut, what is wrong with the plan")
def fitting_plan(question: FittingPlanQuestion) -> FittingPlanAnswer:
    """Positions of all parts, the cut list, and the plan's faults.

    question: sizes in cm; y is counted from the floor.
    Source: plane geometry; clearances, slack and bends common practice and memory, as marked.
    """
    w, g, kind = Working(), resolve_layout(question), kind_of(question.filter.kind)
    w.line(
        "water line",
        "stand + tank − gap to the rim",
        f"{g.bottom:g} + {question.tank_height_cm:g} − {question.site.rim_to_water_cm:g}",
        g.water,
        "cm over the floor",
        "geometry",
    )
    if question.filter.air:
        w.line(
            "uplift",
            "water − evaporation − 1 − bed",
            f"{g.water:.0f} − {TANK_DROP_CM:g} − 1 − {g.bed:.0f}",
            g.uplift_cm,
            "cm",
            "practice",
        )
    hose_mm = question.plumbing.hose_bore_mm or question.filter.hose_bore_mm or USUAL_HOSE_MM
    runs = [_run(r, AIR_LINE_MM if r.role == "air-line" else hose_mm, w) for r in _drafts(g)]
    faults = kind.faults(g) + _crowded(question, g)
    cuts = _cuts(runs, kind.fittings(g))
    return FittingPlanAnswer(
        verdict=_verdict(faults, cuts),
        working=w.lines,
        parts=[
            PartPlace(role=m.role, name=m.name, at=Place(x_cm=m.x, y_cm=m.y), stands=_stands(m, g))
            for m in kind.marks(g)
        ],
        runs=runs,
        faults=faults,
        cuts=cuts,
        hose_m=sum(r.drawn_cm for r in runs if r.role in HOSES) / 100,
        intake_depth_cm=g.intake_depth,
        uplift_cm=g.uplift_cm,
        run_back_l=g.run_back_l,
        sump_free_l=g.sump_free_l,
        water_y_cm=g.water,
        evaporated_y_cm=max(g.water - TANK_DROP_CM, 0),
    )


def _stands(mark: PartMark, g: ResolvedLayout) -> str:
    """Height of a part in words: those at the water from its line, a socket from the floor."""
    if mark.role in ("body", "sump", "filter"):
        return ""
    if mark.role == "socket":
        return f"{formatting.cm(mark.y)} up"
    above = mark.y - g.water
    if abs(above) < LEVEL_CM:
        return "at the water line"
    return f"{formatting.cm(abs(above))} {'above' if above > 0 else 'deep'}"


def _crowded(q: FittingPlanQuestion, g: ResolvedLayout) -> list[PlacedIssue]:
    """Fault where this filter and those present are wider than the tank, unless the keeper has moved it."""
    wide = q.beside_cm + q.filter.width_cm
    if q.beside_cm <= 0 or wide <= g.length or q.layout.body_x_cm is not None:
        return []
    return [
        issue_at(
            "body" if kind_of(q.filter.kind).hosed else "filter",
            g.body_x,
            g.top if kind_of(q.filter.kind).hosed else g.bed,
            f"With what stands there already it takes {formatting.cm(wide)} of a tank {formatting.cm(g.length)} long.",
            "Stand one beside the tank, or choose a narrower one.",
        )
    ]


def _drafts(g: ResolvedLayout) -> list[RunDraft]:
    """A kind's runs, without an air line where a pump drives it."""
    kind = kind_of(g.filter.kind)
    return [r for r in kind.runs(g) if r.role != "air-line" or g.filter.air]
