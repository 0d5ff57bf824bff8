"""Baking soda: doses for alkalinity, and the alkalinity that nitrification uses."""

import math
from typing import Annotated

from pydantic import Field

from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.shock_limits import PH_SHIFT_ANIMALS, PH_SHIFT_EMPTY, Bounds, Water, largest_soda_dkh
from reedmace.core.chemistry.stoichiometry import ALKALINITY_PER_N
from reedmace.core.chemistry.tolerance import SOFT_PH, UNTESTED_PH
from reedmace.core.contract import (
    PH,
    Answer,
    Celsius,
    MgNPerL,
    NetLitres,
    Question,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import CACO3_PER_DKH

_NAHCO3_PER_CACO3 = 84.007 / 50.043
"""mg NaHCO3 that carries the alkalinity of one mg CaCO3 (equivalent masses)."""


SODA_G_PER_L_DKH = CACO3_PER_DKH * _NAHCO3_PER_CACO3 / 1000


MOST_PORTIONS, PORTION_H = 12, 12.0
"""Most portions baking soda is given in, and the hours between two (common practice)."""
PORTION_PH, LEAST_KH_DKH = 0.5, 0.3
"""Rise of pH by one portion where none was tested, and the KH computed from at least, dKH (common practice, memory)."""


def soda_g(raise_dkh: float, litres: float) -> float:
    """Sodium bicarbonate for a rise of KH, g: 3.0 g per 100 L and dKH.

    raise_dkh: dKH; litres: L. Source: equivalent masses.

    >>> round(soda_g(1.0, 100.0), 3)
    2.996
    """
    return raise_dkh * litres * SODA_G_PER_L_DKH


class AlkalinityDoseQuestion(Question):
    """Current and target KH, the nitrogen still to be nitrified, and the animals in the tank."""

    net_l: NetLitres
    current_dkh: Annotated[float, number("dKH", 0, 40)]
    target_dkh: Annotated[float, number("dKH", 0, 40)] = 4
    planned_mg_n_l: Annotated[float, number("mg N/L", 0, 200, "Nitrogen the doses still to come will bring")] = 0
    animals_in: bool = False
    ph: PH | None = Field(default=None, description="In the tank: then what soda does to pH is reckoned")
    ammonia_mg_n_l: MgNPerL = 0
    temperature_c: Celsius = 25
    salinity_g_kg: Annotated[float, number("g/kg", 0, 45)] = 0
    animals_ph_high: PH | None = Field(
        default=None, description="Highest pH the animals like; soft-water ones get none"
    )

    def stays_soft(self) -> bool:
        """Whether the animals want soft, acid water, so that soda is wrong for them."""
        return self.animals_ph_high is not None and self.animals_ph_high <= SOFT_PH


class AlkalinityDoseAnswer(Answer):
    """Baking soda in g; KH that the planned doses will use."""

    sodium_bicarbonate_g: Annotated[float, number("g", 0, 1e7)]
    consumed_dkh: Annotated[float, number("dKH", 0, 1e4)]
    left_without_dkh: Annotated[float, number("dKH", -1e4, 40, "KH left after the planned doses if none is added")]
    hold_g: Annotated[float, number("g", 0, 1e7, "More, spread over the doses, to hold the target through them")]
    portions_count: Annotated[int, whole(0, MOST_PORTIONS, "0 where none may be given")]
    portion_g: Annotated[float, number("g", 0, 1e7, "Each")]
    apart_hours: Annotated[float, number("h", 0, 48)]
    after_ph: Annotated[float, number("pH", 3, 11)] | None
    harms: bool = Field(description="Soda would free ammonia past its limit: change water first")


def _verdict(q: AlkalinityDoseQuestion, grams: float, portions: int, *, harms: bool) -> str:
    """Soda now, or why none. grams: in all; portions: of it; harms: whether ammonia would be over its limit."""
    if q.stays_soft():
        return (
            f"No soda: these animals live in soft, acid water, pH {q.animals_ph_high:g} at most. Small changes with the"
            " water they are kept in."
        )
    if harms:
        return (
            f"No soda yet: at the pH it brings, the {q.ammonia_mg_n_l:.2g} mg N/L of ammonia would be over its limit."
            " Change water first."
        )
    if not grams:
        return f"Add none now: KH is {q.current_dkh:g} dKH."
    each = "" if portions == 1 else f", in {portions} portions of {grams / portions:.2g} g, {PORTION_H:g} hours apart"
    return (
        f"Add {grams:.0f} g of sodium bicarbonate to go from {q.current_dkh:g} to {q.target_dkh:g} dKH, dissolved"
        f" first{each}."
    )


def _to_come(q: AlkalinityDoseQuestion, burned_dkh: float, hold_g: float) -> str:
    if not q.planned_mg_n_l or q.stays_soft():
        return ""
    return f" The doses to come will burn {burned_dkh:.1f} dKH: {hold_g:.0f} g more, spread over them, holds it."


def _check_target(q: AlkalinityDoseQuestion) -> None:
    if q.target_dkh < q.current_dkh and not q.planned_mg_n_l:
        raise CannotAnswer(
            "target_dkh",
            f"the target of {q.target_dkh:g} dKH is below the present {q.current_dkh:g}.",
            "Bicarbonate only raises KH; to lower it, change water for softer.",
        )


@computation("alkalinity-dose", "Baking soda to hold KH, and what the doses burn")
def alkalinity_dose(question: AlkalinityDoseQuestion) -> AlkalinityDoseAnswer:
    """Baking soda to hold or raise KH, and the alkalinity the doses will use.

    question: L, dKH, mg N/L. Source: US EPA 1993; equivalent masses (3.0 g per 100 L and dKH).
    Raises CannotAnswer if the target lies below the current KH.
    """
    q, w = question, Working()
    _check_target(q)
    burned = w.sum(
        "ΔKH",
        "7.14 × N / 17.85",
        {"N": q.planned_mg_n_l, "7.14": ALKALINITY_PER_N, "17.85": CACO3_PER_DKH},
        "dKH",
        "epa1993",
    )
    left = w.sum("KH left", "current − ΔKH", {"current": q.current_dkh, "ΔKH": burned}, "dKH", "arithmetic")
    per = w.line(
        "k",
        "17.85 × 84.007 / 50.043 / 1000",
        "one dKH in one litre",
        SODA_G_PER_L_DKH,
        "g/(L dKH)",
        "masses",
    )
    rise = 0.0 if q.stays_soft() else max(q.target_dkh - q.current_dkh, 0.0)
    grams = w.line(
        "m",
        "(target − current) × litres × k",
        f"{rise:.2f} × {q.net_l:.1f} × {per:.4f}",
        soda_g(rise, q.net_l),
        "g",
        "masses",
    )
    short = max(q.target_dkh - max(left, 0.0) - rise, 0.0) if q.planned_mg_n_l and not q.stays_soft() else 0.0
    hold = w.line(
        "m hold",
        "(target − KH left) × litres × k",
        f"{short:.2f} × {q.net_l:.1f} × {per:.4f}",
        soda_g(short, q.net_l),
        "g",
        "masses",
    )
    portions, after_ph, harms = _portions(q, rise, w)
    return AlkalinityDoseAnswer(
        verdict=_verdict(q, grams, portions, harms=harms) + _to_come(q, burned, hold),
        working=w.lines,
        sodium_bicarbonate_g=grams,
        consumed_dkh=burned,
        left_without_dkh=left,
        hold_g=hold,
        portions_count=portions,
        portion_g=grams / portions if portions else 0.0,
        apart_hours=PORTION_H if portions > 1 else 0.0,
        after_ph=after_ph,
        harms=harms,
    )


def _portions(q: AlkalinityDoseQuestion, rise: float, w: Working) -> tuple[int, float | None, bool]:
    """(portions, final pH, whether it would harm): each portion moves pH and ammonia no further than allowed."""
    if rise <= 0:
        return 1, q.ph, False
    blind = q.ph is None and not (q.animals_in and q.ammonia_mg_n_l > 0)
    if blind:
        # Portions halve as keepers do it; at a steady CO2 pH follows the logarithm of KH.
        steps = math.log10(q.target_dkh / max(q.current_dkh, LEAST_KH_DKH)) / PORTION_PH
        return min(max(2, math.ceil(steps)), MOST_PORTIONS), None, False
    # With animals in ammonia, an untested pH stands at the harmful end.
    ph = UNTESTED_PH if q.ph is None else q.ph
    water = Water(Carbonate.of(ph, q.current_dkh, q.temperature_c, q.salinity_g_kg), q.ammonia_mg_n_l)
    bounds = Bounds(
        PH_SHIFT_ANIMALS if q.animals_in else PH_SHIFT_EMPTY, water.carbonate.co2_mmol(), animals_in=q.animals_in
    )
    given, portions = 0.0, 0
    while rise - given > 1e-6 and portions < MOST_PORTIONS:
        step = largest_soda_dkh(water, rise - given, bounds)
        if step < 0.02:
            break
        water = water.with_soda(step).later(PORTION_H, bounds.co2_mmol, 0.0)
        given, portions = given + step, portions + 1
    after = w.line(
        "pH",
        "carbonate with soda in it, CO2 as this tank keeps it",
        f"pH {ph:g}, KH {q.current_dkh:g} + {given:.2f} dKH",
        water.carbonate.ph(),
        "pH",
        "carbonate",
    )
    harms = rise - given > 0.05
    # A rise too small to part is one portion.
    return (0 if harms else max(portions, 1)), after, harms
