"""Flood risk: litres on the floor in each mishap, where the level stops, and the cheapest prevention."""

import math
from collections.abc import Callable
from typing import Annotated

from pydantic import Field

from reedmace.core.contract import Answer, Litres, Name, Part, Working, computation, number
from reedmace.core.filter.kind_parts.fitting import MishapDraft, PowerCut
from reedmace.core.filter.kinds import kind_of
from reedmace.core.fit.layout import FittingPlanQuestion, resolve_layout
from reedmace.core.flow.hydraulic_kernel import friction_factor
from reedmace.core.flow.materials import viscosity_m2_s
from reedmace.core.quantity import formatting
from reedmace.core.quantity.constants import G
from reedmace.core.tank.heater import StandsIn, bare

ENTRANCE_AND_EXIT_K = 3.0
HOSE_M = 1.4
"""Length of hose from the tank to the floor, where it comes off (memory)."""


class TankHeater(Part):
    """The tank's heater, and where it is."""

    watts: Annotated[float, number("W", 1, 5000, "Of one heater")]
    stands_in: StandsIn = "tank"


class FloodRiskQuestion(FittingPlanQuestion):
    """A filter as laid out on its tank, and the heater it may leave dry."""

    heater: TankHeater | None = None


class Mishap(Part):
    """A possible mishap. `code` identifies it whatever its words."""

    code: Name
    what: str
    litres: Litres
    stops_below_rim_cm: Annotated[float, number("cm", 0, 400, "Where the level stops on the section")]
    minutes: Annotated[float, number("min", 0, 1e6, "Until it has run out")] | None
    why: str
    prevention: str
    heater: str | None = Field(description="What it does to the heater, where it would stand dry")


class FloodRiskAnswer(Answer):
    """Every mishap of this kind, worst first, and the power cut."""

    mishaps: list[Mishap]
    worst_l: Litres
    power_cut: PowerCut


def empty_minutes(
    area_m2: float, top_m: float, stop_m: float, bore_m: float, length_m: float, temperature_c: float = 25.0
) -> float:
    """Minutes a siphon takes from one level to another, in a hundred steps of level.

    area_m2: water surface, m²; top_m, stop_m: level at start and end over the hose's low end, m; bore_m, length_m: of
    the hose; temperature_c: °C. Source: Bernoulli with losses, level by level.
    """
    nu, area = viscosity_m2_s(temperature_c), math.pi / 4 * bore_m**2
    seconds, steps = 0.0, 100
    drop = (top_m - stop_m) / steps
    speed = 1.0
    for i in range(steps):
        head = max(top_m - (i + 0.5) * drop, 1e-4)
        for _ in range(20):
            factor = float(friction_factor(max(speed * bore_m / nu, 1e-6), 1.5e-6 / bore_m))
            speed = math.sqrt(2 * G * head / (1 + ENTRANCE_AND_EXIT_K + factor * length_m / bore_m))
        seconds += area_m2 * drop / (speed * area)
    return seconds / 60


DRY_HEATER = (
    "The heater is left dry: cut its power first of all, and let it cool for a quarter of an hour before water meets"
    " it, or its glass bursts."
)
_DRY: dict[StandsIn, Callable[[TankHeater, float, float, FloodRiskQuestion], bool]] = {
    "tank": lambda h, depth, litres, q: bare(q.site.water_depth_cm - depth, q.site.water_depth_cm, h.watts),
    # Water on the floor left the sump, or the closed body, before it left the tank.
    "sump": lambda h, depth, litres, q: litres > 0,
    "filter": lambda h, depth, litres, q: litres > 0,
}


def _dry_heater(q: FloodRiskQuestion, depth_cm: float, litres: float) -> str | None:
    """Sentence on a heater that a mishap leaves dry."""
    dry = q.heater is not None and _DRY[q.heater.stands_in](q.heater, depth_cm, litres, q)
    return DRY_HEATER if dry else None


def _mishap(draft: MishapDraft, q: FloodRiskQuestion, surface_cm2: float, w: Working) -> Mishap:
    depth = min(max(draft.depth_cm, 0.0), q.site.water_depth_cm)
    spilt = w.sum(draft.what, "surface × depth / 1000", {"surface": surface_cm2, "depth": depth}, "L", "geometry")
    litres = max(spilt - draft.keeps_l, 0.0)
    minutes = None
    if draft.bore_mm and litres > 0:
        top = (q.stand_height_cm + q.site.water_depth_cm) / 100
        minutes = w.line(
            "time",
            "level by level, √(2 g h / (1 + ΣK + f L/D))",
            f"{draft.bore_mm:g} mm",
            empty_minutes(surface_cm2 / 1e4, top, top - depth / 100, draft.bore_mm / 1000, HOSE_M),
            "min",
            "bernoulli",
        )
    unit_cm = 1 / formatting.cm.unit().factor
    return Mishap(
        code=draft.code,
        what=draft.what,
        litres=litres,
        stops_below_rim_cm=q.site.rim_to_water_cm + depth,
        minutes=minutes,
        why=draft.why,
        heater=_dry_heater(q, depth, litres),
        prevention=draft.prevention.format(
            cm=formatting.cm(unit_cm), per_cm=formatting.litres(surface_cm2 * unit_cm / 1000, ".1f")
        ),
    )


@computation("flood-risk", "How many litres reach the floor if something gives way")
def flood_risk(question: FloodRiskQuestion) -> FloodRiskAnswer:
    """Litres on the floor in each mishap of this kind of filter.

    question: the fitting plan's: sizes in cm, hose in mm and m, surface in cm².
    Source: volumes by geometry (surface × depth to where air gets in); times by Bernoulli with losses.
    """
    q, w, kind = question, Working(), kind_of(question.filter.kind)
    surface = q.surface_cm2 or q.site.length_cm * q.site.width_cm
    found = [_mishap(draft, q, surface, w) for draft in kind.mishaps(resolve_layout(q))]
    found.sort(key=lambda m: -m.litres)
    worst = found[0]
    if worst.litres > 0.5:
        times = f" within {worst.minutes:.0f} minutes" if worst.minutes else ""
        verdict = (
            f"At worst {formatting.litres(worst.litres)} reach the floor{times}:"
            f" {formatting.inside(worst.what)}. {worst.prevention}"
        )
    else:
        verdict = "Nothing to speak of reaches the floor in any mishap of this plan."
    return FloodRiskAnswer(
        verdict=verdict, working=w.lines, mishaps=found, worst_l=worst.litres, power_cut=kind.power_cut
    )
