"""Every filter that fits this tank, in the order of this keeper's priorities, with reasons and exclusions."""

import math
from typing import Annotated, Literal

import numpy as np
from numpy.typing import NDArray
from pydantic import Field

from reedmace.core.filter.catalogue import CATALOGUE, Filter, FilterKind
from reedmace.core.filter.schools import FlowRequirementQuestion, flow_requirement
from reedmace.core.flow.airlift import MINOR_K
from reedmace.core.flow.kernel import airlift_many, meet_many
from reedmace.core.flow.materials import FITTING_K, dirt_resistance, media_coefficients, viscosity_m2_s
from reedmace.core.flow.operating import Fitting, minor_coefficient
from reedmace.core.quantity import lph_to_m3s
from reedmace.core.stock import Animals, WasteLoadQuestion, waste_load
from reedmace.core.stock.species import find_species
from reedmace.core.working import (
    Answer,
    CannotAnswer,
    Celsius,
    Lph,
    Name,
    NetLitres,
    Part,
    Question,
    Working,
    number,
    whole,
)

Floats = NDArray[np.float64]

STEM_K = 5.0
"""Intake strainer, bends and weir of a hang-on together, on its stem (memory)."""

Priority = Literal[
    "price",
    "running_cost",
    "quiet",
    "easy_clean",
    "clear_water",
    "hidden",
    "room_in_tank",
    "flood_safety",
    "power_cut",
    "chemical",
]


class Room(Part):
    """The tank and what stands round it."""

    net_l: NetLitres
    water_depth_cm: Annotated[float, number("cm", 1, 300)]
    length_cm: Annotated[float, number("cm", 5, 1000)]
    width_cm: Annotated[float, number("cm", 5, 500)]
    rim_to_water_cm: Annotated[float, number("cm", 0, 100)] = 3
    behind_cm: Annotated[float, number("cm", 0, 300, "From the back glass to the wall")] = 10
    beneath_cm: Annotated[float, number("cm", 0, 300, "Free height under the tank")] = 60
    sockets: Annotated[int, whole(0, 40)] = 2
    salt_water: bool = False


class Plumbing(Part):
    """Hoses of a canister, as planned. A bore left out takes each filter's own."""

    hose_bore_mm: Annotated[float, number("mm", 6, 110)] | None = None
    hose_length_m: Annotated[float, number("m", 0.2, 50, "Both hoses together")] = 2.8
    rise_to_open_air_m: Annotated[float, number("m", 0, 10)] = 0
    fittings: Annotated[list[Fitting], Field(max_length=30)] = Field(
        default_factory=lambda: [
            Fitting(kind="strainer"),
            Fitting(kind="entrance"),
            Fitting(kind="u-bend", count=2),
            Fitting(kind="quick-valve"),
            Fitting(kind="spray-bar"),
            Fitting(kind="exit"),
        ]
    )


Weight = Annotated[int, whole(0, 5, "0 does not matter, 5 matters most")]


class Priorities(Part):
    """How much each thing matters, 0 to 5."""

    price: Weight = 3
    running_cost: Weight = 1
    quiet: Weight = 3
    easy_clean: Weight = 3
    clear_water: Weight = 2
    hidden: Weight = 2
    room_in_tank: Weight = 1
    flood_safety: Weight = 2
    power_cut: Weight = 2
    chemical: Weight = 0


class RankFiltersQuestion(Question):
    """Room, animals, plumbing, priorities; the keeper's own filters besides the catalogue."""

    room: Room
    animals: Annotated[list[Animals], Field(max_length=60)] = Field(default_factory=list)
    plumbing: Plumbing = Field(default_factory=Plumbing)
    priorities: Priorities = Field(default_factory=Priorities)
    own_filters: Annotated[list[Filter], Field(max_length=5000)] = Field(default_factory=list)
    with_catalogue: bool = True
    days_since_cleaning: (
        Annotated[float, number("days", 0, 1000, "For the flow in service; left out, each kind's usual interval")]
        | None
    ) = None
    price_per_kwh: Annotated[float, number("money/kWh", 0, 100)] = 0.30
    temperature_c: Celsius = 25


class Contribution(Part):
    """What one priority gave: weight (share of all weights) times score."""

    priority: str
    score: Annotated[float, number("share", 0, 1)]
    points: Annotated[float, number("points of 100", 0, 100)]


class Candidate(Part):
    """One filter on this tank."""

    filter_id: Name
    name: Name
    kind: FilterKind
    box_lph: Lph
    delivered_lph: Lph
    dirty_lph: Lph
    turnovers_per_hour: Annotated[float, number("tank volumes per hour", 0, 1e6)]
    watts: Annotated[float, number("W", 0, 5000)]
    price: Annotated[float, number("money", 0, 1e6)]
    money_three_years: Annotated[float, number("money", 0, 1e9)]
    media_kg: Annotated[float, number("kg", 0, 1e4, "If its media space held ceramic, about 0.55 kg/L")]
    score: Annotated[float, number("points of 100", 0, 100)]
    reason: str
    caveats: list[str]
    contributions: list[Contribution]


class Excluded(Part):
    """One filter left out, why, and what would bring it back."""

    filter_id: Name
    name: Name
    kind: FilterKind
    box_lph: Lph
    delivered_lph: Lph
    reason: str
    remedy: str
    would_rank: Annotated[int, whole(1, 10000, "The place it would take if this one thing were changed")] | None


MOST_SHOWN = 60
"""Of each list. A long catalogue is scored whole; what nobody would read is counted, not written out."""


class RankFiltersAnswer(Answer):
    """The best in order, the left out, and the single change that would alter the first place."""

    fitting_count: Annotated[int, whole(0, 10000, "How many fit, of which the first 60 are listed")]
    excluded_count: Annotated[int, whole(0, 10000, "How many were left out, of which the nearest 60 are listed")]

    ranked: list[Candidate]
    excluded: list[Excluded]
    single_change: str | None
    asked_low_lph: Lph
    asked_high_lph: Lph


_JUDGED: dict[str, dict[str, float]] = {
    # Stated judgements where nothing can be computed (common practice).
    "easy_clean": {"sponge": 0.7, "hang-on": 0.95, "canister": 0.3},
    "clear_water": {"sponge": 0.35, "hang-on": 0.65, "canister": 0.85},
    "hidden": {"sponge": 0.1, "hang-on": 0.5, "canister": 0.95},
    "flood_safety": {"sponge": 1.0, "hang-on": 0.6, "canister": 0.35},
}
_SAYS = {
    "price": "cheap to buy",
    "running_cost": "cheap to run",
    "quiet": "quiet",
    "easy_clean": "easy to clean",
    "clear_water": "strains well",
    "hidden": "out of sight",
    "room_in_tank": "leaves the tank free",
    "flood_safety": "little that can flood",
    "power_cut": "rides out a power cut",
    "chemical": "takes chemical media",
    "flow": "flow fits",
}
_FAULTS = {
    "price": "dear",
    "running_cost": "dear to run",
    "quiet": "heard in the room",
    "easy_clean": "a chore to clean",
    "clear_water": "strains little",
    "hidden": "in plain view",
    "room_in_tank": "takes room in the tank",
    "flood_safety": "can empty on the floor",
    "power_cut": "suffers in a power cut",
    "chemical": "no chemical media",
    "flow": "flow fits poorly",
}
FLOW_WEIGHT = 5
SERVICE_DAYS: dict[str, float] = {"sponge": 30, "hang-on": 21, "canister": 60}
"""Usual days between cleanings, by kind (common practice)."""


def deliver(
    filters: list[Filter], room: Room, plumbing: Plumbing, feed_g_day: float, days: float | None, temperature_c: float
) -> tuple[Floats, Floats]:
    """Clean and dirty flow of every filter on this tank, L/h, each of shape (n,).

    filters: n of them; room, plumbing: the tank's; feed_g_day: food in g/day; days: since cleaning, None for each kind's
    usual interval; temperature_c: °C.
    Pumped filters meet their plumbing's curve, sponges their air lift. A hang-on lifts to its lip above the
    water line and, like a canister with both ends under water, over nothing else.
    """
    n = len(filters)
    nu = viscosity_m2_s(temperature_c)
    clean, dirty = np.zeros(n), np.zeros(n)
    kinds = np.array([f.kind for f in filters])
    face = np.array([f.face_cm2 for f in filters]) / 1e4
    depth = np.array([f.foam_depth_cm for f in filters]) / 100
    # The foam's coefficients are those of a unit layer, scaled: c1 with depth/area, c2 with depth/area².
    unit_c1, unit_c2 = media_coefficients("foam-20", 1.0, 1.0, nu)
    c1, c2 = unit_c1 * depth / face, unit_c2 * depth / face**2
    since = np.array([SERVICE_DAYS[k] for k in kinds.tolist()]) if days is None else np.full(n, days)
    dirt = dirt_resistance(feed_g_day, 1.0, 1.0) * since / face**2
    pumped = np.flatnonzero(kinds != "sponge")
    aired = np.flatnonzero(kinds == "sponge")
    if len(pumped):
        fs = [filters[i] for i in pumped]
        canister = kinds[pumped] == "canister"
        flow = np.array([lph_to_m3s(f.box_lph) for f in fs])
        head = np.array([f.max_head_m or 0.05 for f in fs])
        hose_bore = np.array([(plumbing.hose_bore_mm or f.hose_bore_mm or 16.0) / 1000 for f in fs])
        stem_bore = np.array([(f.tube_bore_mm or 18.0) / 1000 for f in fs])
        bore = np.where(canister, hose_bore, stem_bore)
        stem = np.array([min(room.water_depth_cm * 0.7, f.height_cm * 1.3) / 100 for f in fs])
        hoses = np.zeros((len(fs), 1, 3))
        hoses[:, 0, 0] = bore
        hoses[:, 0, 1] = np.where(canister, plumbing.hose_length_m, stem)
        hoses[:, 0, 2] = 1.5e-6
        lip = np.array([f.lip_cm for f in fs]) + max(room.rim_to_water_cm - 2, 0)
        static = np.where(canister, plumbing.rise_to_open_air_m, lip / 100)
        k_of = [(FITTING_K[f.kind] if f.k is None else f.k, f) for f in plumbing.fittings]
        k_all = sum(k * f.count for k, f in k_of if f.bore_mm is None)
        fixed = sum(minor_coefficient(k * f.count, f.bore_mm / 1000) for k, f in k_of if f.bore_mm)
        squares = c2[pumped] + np.where(canister, k_all, STEM_K) * minor_coefficient(1.0, 1.0) / bore**4
        squares = squares + np.where(canister, fixed, 0.0)
        clean[pumped] = meet_many(flow, head, static, c1[pumped], squares, hoses, nu)
        dirty[pumped] = meet_many(flow, head, static, c1[pumped] + dirt[pumped], squares, hoses, nu)
    if len(aired):
        fs = [filters[i] for i in aired]
        air = np.array([(f.air_l_min or 0.1) / 60000 for f in fs])
        tubes = np.array([(f.tube_bore_mm or 12.0) / 1000 for f in fs])
        under = np.array([min(max(room.water_depth_cm - 3, 1), f.height_cm * 0.95) / 100 for f in fs])
        zero, k = np.zeros(len(fs)), np.full(len(fs), MINOR_K)
        clean[aired] = airlift_many(air, tubes, under, zero, c1[aired], k, nu)
        dirty[aired] = airlift_many(air, tubes, under, zero, c1[aired] + dirt[aired], k, nu)
    return clean * 3.6e6, dirty * 3.6e6


def _unit(value: float) -> float:
    return min(max(value, 0.0), 1.0)


def _scores(f: Filter, room: Room, dirty_lph: float, low: float, high: float) -> dict[str, float]:
    if dirty_lph < low:
        flow = _unit(dirty_lph / low) ** 2 if low > 0 else 1.0
    else:
        # Too much can be throttled, so it costs less than too little.
        flow = 1.0 if dirty_lph <= high else _unit(1.0 - 0.35 * math.log2(dirty_lph / high))
    room_taken = f.width_cm * f.depth_cm * f.height_cm / 1000 / room.net_l if f.kind == "sponge" else 0.0
    scores = {
        "flow": flow,
        "price": _unit(1 - math.log(max(f.price, 5) / 5) / math.log(80)),
        "running_cost": _unit(1 - math.log(max(f.watts, 2) / 2) / math.log(30)),
        "quiet": (5 - f.noise) / 4,
        "room_in_tank": _unit(1 - 10 * room_taken),
        "power_cut": 1.0
        if f.kind == "sponge"
        else (0.7 if f.restarts_alone and f.kind == "hang-on" else 0.45 if f.restarts_alone else 0.15),
        "chemical": 1.0 if f.chemical_media else 0.0,
    }
    return scores | {name: by_kind[f.kind] for name, by_kind in _JUDGED.items()}


def _limits(f: Filter, room: Room, delivered: float, dirty: float, low: float) -> list[tuple[str, str]]:
    """Each hard limit this filter breaks: (reason, the single thing that would mend it)."""
    found: list[tuple[str, str]] = []
    if f.salt_water is False and room.salt_water:
        found.append(("not made for salt water", "choose one that is"))
    if room.sockets < 1:
        found.append(("there is no socket near the tank", "have a socket fitted by a licensed electrician"))
    if f.kind == "hang-on":
        if room.behind_cm < f.behind_cm:
            found.append(
                (
                    f"needs {f.behind_cm:g} cm behind the tank, you have {room.behind_cm:g}",
                    f"move the tank {f.behind_cm - room.behind_cm:g} cm further off the wall",
                )
            )
        if room.rim_to_water_cm > 6:
            found.append(
                (
                    f"wants the water near the rim, yours is {room.rim_to_water_cm:g} cm below",
                    f"fill the tank {room.rim_to_water_cm - 6:g} cm higher",
                )
            )
    if f.kind == "canister" and room.beneath_cm < f.height_cm + 8:
        found.append(
            (
                f"stands {f.height_cm:g} cm high and wants 8 cm over it for the hoses; there are {room.beneath_cm:g} cm under the tank",
                f"find {f.height_cm + 8 - room.beneath_cm:g} cm more height below or beside the tank",
            )
        )
    if f.kind == "sponge" and room.water_depth_cm < f.height_cm + 3:
        found.append(
            (
                f"stands {f.height_cm:g} cm high and its outlet must stay under water; yours is {room.water_depth_cm:.0f} cm deep",
                f"raise the water by {f.height_cm + 3 - room.water_depth_cm:.0f} cm",
            )
        )
    if delivered <= 0:
        found.append(("its pump cannot reach the outlet", "bring the outlet down to the water"))
    elif dirty < 0.7 * low:
        fewer = math.ceil(low / max(dirty, 1e-9))
        found.append(
            (
                f"moves only {dirty:.0f} L/h in service where {low:.0f} is asked",
                f"fit {fewer} of them" if fewer <= 4 else "choose a larger one",
            )
        )
    return found


def rank_filters(question: RankFiltersQuestion) -> RankFiltersAnswer:
    """Every feasible filter for this tank in the order of the keeper's priorities.

    question: sizes in cm, water in L, hoses in mm and m, weights 0 to 5.
    Raises CannotAnswer when there is no filter to rank or two share an id.
    Source: delivered flows by the operating point and air lift; the rest common practice, stated.
    """
    q, w = question, Working()
    filters = [*(CATALOGUE if q.with_catalogue else ()), *q.own_filters]
    if not filters:
        raise CannotAnswer("own_filters", "there is no filter to rank.", "Add one or set with_catalogue to true.")
    if len({f.id for f in filters}) != len(filters):
        raise CannotAnswer("own_filters", "two filters share an id.", "Give each its own.")
    asked = flow_requirement(FlowRequirementQuestion(net_l=q.room.net_l, animals=q.animals))
    followed = next(s for s in asked.schools if s.followed)
    low, high = followed.low_lph or 0.0, followed.high_lph or 0.0
    feed = waste_load(WasteLoadQuestion(net_l=q.room.net_l, animals=q.animals)).feed_g_day
    clean, dirty = deliver(filters, q.room, q.plumbing, max(feed, 0.2), q.days_since_cleaning, q.temperature_c)
    present = [find_species(a.species_id, "animals") for a in q.animals]
    guard = sorted({s.common_name for s in present if s.needs_guard})
    weights = {"flow": FLOW_WEIGHT, **q.priorities.model_dump()}
    total = sum(weights.values())
    in_order: list[Candidate] = []
    out: list[tuple[Filter, float, float, list[tuple[str, str]]]] = []
    for i, f in enumerate(filters):
        broken = _limits(f, q.room, float(clean[i]), float(dirty[i]), low)
        parts = _scores(f, q.room, float(dirty[i]), low, high)
        points = {name: 100 * weights[name] * parts[name] / total for name in weights}
        score = sum(points.values())
        if broken:
            out.append((f, float(clean[i]), score, broken))
            continue
        caveats = []
        if guard and f.kind != "sponge":
            caveats.append(f"Put a guard sponge on the intake for {', '.join(guard)}.")
        if asked.upper_limit_lph and clean[i] > asked.upper_limit_lph:
            caveats.append(
                f"Throttle or spread the outlet: above {asked.upper_limit_lph:.0f} L/h is too strong for these animals."
            )
        if dirty[i] < low:
            caveats.append(f"When dirty it falls to {dirty[i]:.0f} L/h, under the {low:.0f} asked: clean it sooner.")
        if f.kind == "canister":
            caveats.append("Heavy and wet to clean; test its flow monthly, since the dirt cannot be seen.")
        if f.kind == "hang-on" and not f.restarts_alone:
            caveats.append("After a power cut refill its box before it runs, or the motor may burn out.")
        heavy = sorted((name for name in weights if weights[name] > 0), key=lambda name: -weights[name] * parts[name])
        faults = [n for n in weights if weights[n] > 0 and parts[n] < 0.4]
        good = [_SAYS[n] for n in heavy if parts[n] >= 0.6 and n != "flow"][:2]
        bad = [_FAULTS[n] for n in sorted(faults, key=lambda n: -weights[n] * (1 - parts[n]))][:2]
        reason = "; ".join(filter(None, [", ".join(good), ", ".join(bad)])) or "middling in everything you asked for"
        in_order.append(
            Candidate(
                filter_id=f.id,
                name=f.name,
                kind=f.kind,
                box_lph=f.box_lph,
                delivered_lph=float(clean[i]),
                dirty_lph=float(dirty[i]),
                turnovers_per_hour=float(clean[i]) / q.room.net_l,
                watts=f.watts,
                price=f.price,
                money_three_years=f.price + 3 * f.watts * 24 * 365.25 / 1000 * q.price_per_kwh,
                media_kg=f.media_l * 0.55,
                score=score,
                reason=reason,
                caveats=caveats,
                contributions=[Contribution(priority=n, score=parts[n], points=points[n]) for n in weights],
            )
        )
    in_order.sort(key=lambda c: (-c.score, c.price, c.filter_id))
    excluded = [
        Excluded(
            filter_id=f.id,
            name=f.name,
            kind=f.kind,
            box_lph=f.box_lph,
            delivered_lph=flow,
            reason="; ".join(r for r, _ in broken),
            remedy=" and ".join(m for _, m in broken),
            would_rank=1 + sum(c.score > score for c in in_order)
            if len(broken) == 1 and not broken[0][1].startswith(("fit ", "choose"))
            else None,
        )
        for f, flow, score, broken in out
    ]
    excluded.sort(key=lambda e: (e.would_rank or 10000, e.name))
    change = None
    if excluded and excluded[0].would_rank == 1:
        first = excluded[0]
        change = f"{first.remedy[0].upper()}{first.remedy[1:]} and the {first.name} comes first."
    if in_order:
        best = in_order[0]
        w.line(
            "Q",
            "pump or air lift meets plumbing",
            f"{best.name}",
            best.delivered_lph,
            "L/h",
            "darcy" if best.kind != "sponge" else "nicklin1963",
        )
        for c in best.contributions:
            w.line(
                c.priority,
                "weight / all weights × score × 100",
                f"{weights[c.priority]} / {total} × {c.score:.2f} × 100",
                c.points,
                "points",
                "practice",
            )
        w.line("score", "sum", best.name, best.score, "points", "arithmetic")
        verdict = f"{best.name} comes first: it would move {best.delivered_lph:.0f} L/h here, not the {best.box_lph:.0f} on its box ({best.reason})."
    else:
        verdict = "No filter here fits this tank as it stands. Each is listed with what would let it in."
    return RankFiltersAnswer(
        verdict=verdict,
        working=w.lines,
        fitting_count=len(in_order),
        excluded_count=len(excluded),
        ranked=in_order[:MOST_SHOWN],
        excluded=excluded[:MOST_SHOWN],
        single_change=change,
        asked_low_lph=low,
        asked_high_lph=high,
    )
