"""Where the parts of a chosen filter go on this tank, in centimetres of the front view.

x runs from the tank's left outer face to the right, y up from the floor. Hoses hang behind the tank; their runs are
drawn flat, since what is cut is their length.
"""

import math
from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.filter.catalogue import Filter
from reedmace.core.filter.room import Plumbing, Room
from reedmace.core.working import Answer, Part, Question, Working, number, whole

BEND_BORES = {"plain": 6.0, "ribbed": 3.0}
"""Tightest bend of a hose, in bores, before it kinks (memory)."""
SLACK_SHARE, SLACK_CM = 0.05, 10.0
"""Cut this much longer than the drawn run: a hose can be cut shorter, never longer (common practice)."""
OVER_RIM_CM = 6.0
FROM_BED_CM = 5.0
EVAPORATION_CM = 2.0
APART_SHARE = 0.3
AIR_LOOP_CM = 15.0
CLAMPS_PER_HOSE = 2


class Place(Part):
    """A point of the front view."""

    x_cm: Annotated[float, number("cm", -500, 2000)]
    y_cm: Annotated[float, number("cm", -100, 1000)]


class Layout(Part):
    """Where the keeper puts the parts. What is left out goes where it usually does."""

    intake_x_cm: Annotated[float, number("cm", 0, 1000)] | None = None
    outlet_x_cm: Annotated[float, number("cm", 0, 1000)] | None = None
    body_x_cm: Annotated[float, number("cm", -200, 1200)] | None = None
    intake_depth_cm: Annotated[float, number("cm", 0, 300, "Strainer below the water line")] | None = None
    outlet_depth_cm: Annotated[float, number("cm", -100, 300, "Outlet below the water line; under 0 above it")] = 2
    tap_above_water_cm: Annotated[float, number("cm", -200, 200, "Flow tap or valve of the outlet")] = 6
    air_pump_above_water_cm: Annotated[float, number("cm", -200, 200)] = 10
    check_valve: bool = True
    drip_loop: bool = True
    socket_x_cm: Annotated[float, number("cm", -500, 1500)] | None = None
    socket_height_cm: Annotated[float, number("cm", 0, 300)] = 30
    hose: Literal["plain", "ribbed"] = "plain"
    siphon_break: bool = Field(default=False, description="A small hole in the return just under the surface")


class FittingPlanQuestion(Question):
    """The filter, its plumbing, the room, and where things are put."""

    filter: Filter
    room: Room
    plumbing: Plumbing = Field(default_factory=Plumbing)
    stand_height_cm: Annotated[float, number("cm", 0, 200)] = 70
    tank_height_cm: Annotated[float, number("cm", 5, 300)] = 45
    canister_at_cm: Annotated[float, number("cm", 0, 200)] = 0
    substrate_depth_cm: Annotated[float, number("cm", 0, 60)] = 0
    layout: Layout = Field(default_factory=Layout)


class Run(Part):
    """One hose or line: its corners, its drawn length and the length to cut."""

    name: str
    points: list[Place]
    drawn_cm: Annotated[float, number("cm", 0, 1e5)]
    cut_cm: Annotated[float, number("cm", 0, 1e5)]
    bend_radius_cm: Annotated[float, number("cm", 0, 100, "The tightest bend it takes")]
    bends_count: Annotated[int, whole(0, 50)]


class PartPlace(Part):
    """One part on the section."""

    name: str
    at: Place


class FitFault(Part):
    """One thing wrong with a plan, where it is, and the remedy."""

    part: str
    at: Place
    what: str
    remedy: str


class CutLine(Part):
    """One line of the cut list."""

    item: str
    amount: Annotated[float, number("unit", 0, 1e5)]
    unit: Literal["cm", "piece"]
    how: str


class FittingPlanAnswer(Answer):
    """Parts, runs, faults and the cut list."""

    parts: list[PartPlace]
    runs: list[Run]
    faults: list[FitFault]
    cuts: list[CutLine]
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


class _Plan:
    """The question with its defaults worked out; y from the floor, in cm."""

    def __init__(self, q: FittingPlanQuestion) -> None:
        f, room, lay = q.filter, q.room, q.layout
        self.q, self.f, self.lay = q, f, lay
        self.bottom = q.stand_height_cm
        self.rim = self.bottom + q.tank_height_cm
        self.water = self.rim - room.rim_to_water_cm
        self.bed = self.water - room.water_depth_cm + q.substrate_depth_cm
        length = room.length_cm
        self.outlet_x = length * 0.08 if lay.outlet_x_cm is None else lay.outlet_x_cm
        self.body_x = (length * 0.72 if f.kind != "sump" else length * 0.5) if lay.body_x_cm is None else lay.body_x_cm
        # A hang-on's stem goes down from its own box.
        own = self.body_x if f.kind == "hang-on" else length * 0.92
        self.intake_x = own if lay.intake_x_cm is None else lay.intake_x_cm
        usual = min(room.water_depth_cm * 0.75, self.water - self.bed - FROM_BED_CM)
        self.intake_depth = max(usual, 1.0) if lay.intake_depth_cm is None else lay.intake_depth_cm
        self.socket_x = length + 15 if lay.socket_x_cm is None else lay.socket_x_cm
        self.foot = q.canister_at_cm + 3
        self.top = self.foot + f.height_cm
        bore_mm = q.plumbing.hose_bore_mm or f.hose_bore_mm or 16.0
        self.bend = BEND_BORES[lay.hose] * bore_mm / 10


def _runs(p: _Plan, w: Working) -> list[Run]:
    f = p.f
    found: list[Run] = []

    def run(name: str, points: list[tuple[float, float]], bend: float) -> None:
        places = [Place(x_cm=x, y_cm=y) for x, y in points]
        drawn = run_length_cm(places, bend)
        cut = drawn * (1 + SLACK_SHARE) + SLACK_CM
        w.line(name, "legs less rounded corners", f"{len(points)} corners, r {bend:g} cm", drawn, "cm", "geometry")
        w.line(f"{name}, cut", "drawn × 1.05 + 10", f"{drawn:.0f} × 1.05 + 10", cut, "cm", "practice")
        found.append(
            Run(name=name, points=places, drawn_cm=drawn, cut_cm=cut, bend_radius_cm=bend, bends_count=len(points) - 2)
        )

    if f.kind == "canister":
        level = max(p.top + p.bend, min(p.bottom - 6, p.top + 14))
        over = p.rim + OVER_RIM_CM
        for name, x, nozzle in (
            ("intake hose", p.intake_x, p.body_x + f.width_cm * 0.2),
            ("return hose", p.outlet_x, p.body_x - f.width_cm * 0.2),
        ):
            run(name, [(x, over), (x, level), (nozzle, level), (nozzle, p.top)], p.bend)
    if f.kind == "sump":
        over = p.rim + OVER_RIM_CM
        run(
            "return hose",
            [(p.outlet_x, over), (p.outlet_x, p.bottom - 6), (p.body_x, p.bottom - 6), (p.body_x, 25)],
            p.bend,
        )
        run(
            "drain",
            [
                (p.intake_x, p.water - 10),
                (p.intake_x, p.bottom - 8),
                (p.body_x + 10, p.bottom - 8),
                (p.body_x + 10, 30),
            ],
            p.bend,
        )
    if f.air:
        pump_y = p.water + p.lay.air_pump_above_water_cm
        edge = p.q.room.length_cm + 8
        foot = p.bed + 3
        run(
            "air line",
            [
                (p.intake_x, foot),
                (p.intake_x, p.rim + 4),
                (edge, p.rim + 4),
                (edge, min(p.rim + 4, pump_y) - AIR_LOOP_CM),
                (edge + 6, min(p.rim + 4, pump_y) - AIR_LOOP_CM),
                (edge + 6, pump_y),
            ],
            1.5,
        )
    return found


def _faults(p: _Plan) -> list[FitFault]:
    f, lay, room = p.f, p.lay, p.q.room
    found: list[FitFault] = []

    def fault(part: str, x: float, y: float, what: str, remedy: str) -> None:
        found.append(FitFault(part=part, at=Place(x_cm=x, y_cm=y), what=what, remedy=remedy))

    hosed = f.kind in ("canister", "sump")
    intake_y, outlet_y = p.water - p.intake_depth, p.water - lay.outlet_depth_cm
    if f.kind == "canister" and abs(p.intake_x - p.outlet_x) < APART_SHARE * room.length_cm:
        fault(
            "outlet",
            p.outlet_x,
            outlet_y,
            f"The outlet stands {abs(p.intake_x - p.outlet_x):.0f} cm from the intake: water goes round in a corner.",
            "Put them at opposite ends.",
        )
    if hosed and lay.tap_above_water_cm < 0:
        fault(
            "tap",
            p.outlet_x,
            p.water + lay.tap_above_water_cm,
            f"The flow tap lies {-lay.tap_above_water_cm:g} cm under the water line: a drip there empties the tank.",
            "Keep taps and bends above the water line.",
        )
    if f.kind == "canister" and p.top > p.water:
        fault(
            "body",
            p.body_x,
            p.top,
            f"The canister's lid stands {p.top - p.water:.0f} cm above the water line: it will not prime and sucks air.",
            "Stand it lower.",
        )
    if f.kind == "canister" and p.top + p.bend > p.bottom and abs(p.body_x - room.length_cm / 2) < room.length_cm / 2:
        fault(
            "return hose",
            p.body_x,
            p.top,
            f"{max(p.bottom - p.top, 0):.0f} cm over the canister are too few for a bend of {p.bend:.0f} cm: the hose kinks.",
            "Use ribbed hose, stand it lower, or beside the stand.",
        )
    if not lay.drip_loop and lay.socket_height_cm < p.rim:
        fault(
            "socket",
            p.socket_x,
            lay.socket_height_cm,
            "The cable runs down to the socket: a drip follows it into the plug.",
            "Hang the cable in a loop below the socket; residual-current protection decides the rest.",
        )
    if f.air and lay.air_pump_above_water_cm < 0 and not lay.check_valve:
        fault(
            "air pump",
            room.length_cm + 14,
            p.water + lay.air_pump_above_water_cm,
            f"The air pump stands {-lay.air_pump_above_water_cm:g} cm below the water line and has no check valve: a power cut siphons the tank through it.",
            "Fit a check valve, or hang the pump above the water.",
        )
    if hosed and lay.outlet_depth_cm < -1 and f.kind == "canister":
        fault(
            "outlet",
            p.outlet_x,
            outlet_y,
            f"The outlet stands {-lay.outlet_depth_cm:g} cm above the water: it splashes, and the pump lifts that much.",
            "Lower it to about 5 cm under the surface, or just at it.",
        )
    if f.kind in ("canister", "hang-on") and p.intake_depth < EVAPORATION_CM + 3:
        fault(
            "intake",
            p.intake_x,
            intake_y,
            f"The strainer lies {p.intake_depth:g} cm deep: after evaporation it draws air.",
            "Push it deeper.",
        )
    if f.kind in ("canister", "hang-on") and intake_y < p.bed + 2:
        fault(
            "intake",
            p.intake_x,
            intake_y,
            "The strainer stands in the bed: it takes sand into the pump.",
            f"Lift it {FROM_BED_CM:g} cm off the bed.",
        )
    if f.kind == "hang-on" and room.behind_cm < f.behind_cm:
        fault(
            "body",
            p.body_x,
            p.rim,
            f"It needs {f.behind_cm:g} cm behind the tank and has {room.behind_cm:g}.",
            f"Move the tank {f.behind_cm - room.behind_cm:g} cm further off the wall.",
        )
    if f.air and p.bed + f.height_cm > p.water - EVAPORATION_CM and f.kind in ("sponge", "box"):
        fault(
            "uplift",
            p.intake_x,
            p.bed + f.height_cm,
            "The lift tube's outlet stands in the air once some water has evaporated: the lift falls off sharply.",
            f"Cut the tube to {max(p.water - EVAPORATION_CM - 1 - p.bed, 1):.0f} cm above the bed.",
        )
    return found


def _parts(p: _Plan) -> list[PartPlace]:
    f, lay = p.f, p.lay

    def part(name: str, x: float, y: float) -> PartPlace:
        return PartPlace(name=name, at=Place(x_cm=x, y_cm=y))

    socket = part("socket", p.socket_x, lay.socket_height_cm)
    if f.kind == "canister":
        return [
            part("intake", p.intake_x, p.water - p.intake_depth),
            part("outlet", p.outlet_x, p.water - lay.outlet_depth_cm),
            part("tap", p.outlet_x, p.water + lay.tap_above_water_cm),
            part("body", p.body_x, p.top),
            socket,
        ]
    if f.kind == "sump":
        return [
            part("overflow", p.intake_x, p.water),
            part("outlet", p.outlet_x, p.water - lay.outlet_depth_cm),
            part("sump", p.body_x, p.foot + f.height_cm),
            socket,
        ]
    if f.air:
        return [
            part("filter", p.intake_x, p.bed),
            part("air pump", p.q.room.length_cm + 14, p.water + lay.air_pump_above_water_cm),
            socket,
        ]
    if f.kind == "hang-on":
        return [part("intake", p.intake_x, p.water - p.intake_depth), part("body", p.body_x, p.rim), socket]
    return [part("filter", p.intake_x, p.water - 3), socket]


def _cuts(p: _Plan, runs: list[Run], w: Working) -> list[CutLine]:
    f = p.f
    found = [
        CutLine(
            item=r.name,
            amount=math.ceil(r.cut_cm),
            unit="cm",
            how=f"drawn {r.drawn_cm:.0f} cm, and slack: place first, measure, then cut",
        )
        for r in runs
        if r.name != "drain"
    ]
    hoses = sum(r.name.endswith("hose") for r in runs)
    if hoses:
        found.append(
            CutLine(
                item="hose clamps",
                amount=CLAMPS_PER_HOSE * hoses,
                unit="piece",
                how="on the hose before the hose is pushed past the ridges",
            )
        )
        valves = sum(x.count for x in p.q.plumbing.fittings if x.kind == "quick-valve")
        found.append(
            CutLine(
                item="valves with quick release",
                amount=max(2 * valves, hoses),
                unit="piece",
                how="both shut while half fitted",
            )
        )
        elbows = sum(x.count for x in p.q.plumbing.fittings if x.kind == "elbow")
        if elbows:
            found.append(CutLine(item="elbows", amount=elbows, unit="piece", how="as planned"))
    if f.air:
        found.append(CutLine(item="check valve", amount=1, unit="piece", how="outside the tank, arrow towards it"))
    if f.kind in ("sponge", "box"):
        tube = w.line(
            "uplift",
            "water − evaporation − 1 − bed",
            f"{p.water:.0f} − {EVAPORATION_CM:g} − 1 − {p.bed:.0f}",
            max(p.water - EVAPORATION_CM - 1 - p.bed, 1),
            "cm",
            "practice",
        )
        found.append(
            CutLine(
                item="uplift tube",
                amount=math.floor(tube),
                unit="cm",
                how="at most, from the bed, so that it stays under after evaporation",
            )
        )
    if f.kind == "hang-on":
        wanted = w.line(
            "stem",
            "rim gap + intake depth + 4",
            f"{p.q.room.rim_to_water_cm:g} + {p.intake_depth:.0f} + 4",
            p.q.room.rim_to_water_cm + p.intake_depth + 4,
            "cm",
            "geometry",
        )
        extra = wanted - f.height_cm
        if extra > 1:
            found.append(
                CutLine(
                    item="intake extension",
                    amount=math.ceil(extra),
                    unit="cm",
                    how=f"the stem reaches about {f.height_cm:g} cm; cut to depth",
                )
            )
    return found


def fitting_plan(question: FittingPlanQuestion) -> FittingPlanAnswer:
    """Where everything goes, what to cut, and what is wrong with the plan.

    question: sizes in cm; y is counted from the floor.
    Source: plane geometry; clearances, slack and bends common practice and memory, as marked.
    """
    w, p = Working(), _Plan(question)
    w.line(
        "water line",
        "stand + tank − gap to the rim",
        f"{p.bottom:g} + {question.tank_height_cm:g} − {question.room.rim_to_water_cm:g}",
        p.water,
        "cm over the floor",
        "geometry",
    )
    runs, faults = _runs(p, w), _faults(p)
    cuts = _cuts(p, runs, w)
    if faults:
        verdict = f"{faults[0].what} {faults[0].remedy}"
        if len(faults) > 1:
            verdict += f" And {len(faults) - 1} more."
    elif cuts:
        verdict = (
            "Nothing stands in its way: "
            + ", ".join(f"{c.item} {c.amount:.0f} {c.unit if c.unit == 'cm' else ''}".strip() for c in cuts[:3])
            + "."
        )
    else:
        verdict = "Nothing stands in its way, and nothing is to be cut."
    return FittingPlanAnswer(
        verdict=verdict,
        working=w.lines,
        parts=_parts(p),
        runs=runs,
        faults=faults,
        cuts=cuts,
        water_y_cm=p.water,
        evaporated_y_cm=max(p.water - EVAPORATION_CM, 0),
    )
