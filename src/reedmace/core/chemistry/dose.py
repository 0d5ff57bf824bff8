"""Doses: ammonia for fishless cycling, and baking soda for alkalinity."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry.carbonate import Carbonate
from reedmace.core.chemistry.shock_limits import PH_SHIFT_ANIMALS, PH_SHIFT_EMPTY, Bounds, Water, largest_soda_dkh
from reedmace.core.contract import (
    PH,
    Answer,
    Celsius,
    MgNPerL,
    NetLitres,
    Part,
    Question,
    Working,
    computation,
    number,
    whole,
)
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import CACO3_PER_DKH, L_PER_IMP_GAL, L_PER_US_GAL, NITROGEN_SHARE, formatting
from reedmace.core.quantity.units import Basis, as_nitrogen

ALKALINITY_PER_N = 7.14
"""mg CaCO3 of alkalinity used for each mg N nitrified (US EPA 1993)."""
BASE_PER_N = 50.043 / 14.007
"""mg CaCO3 of alkalinity that comes with each mg N put in as NH3 rather than as a salt: ammonia solution, rotting food,
what animals give off. One equivalent a mole; plants take it away again with ammonium and give it back with nitrate."""

_N_IN_NH4CL = 14.007 / (14.007 + 4 * 1.008 + 35.45)
_NAHCO3_PER_CACO3 = 84.007 / 50.043
"""mg NaHCO3 that carries the alkalinity of one mg CaCO3 (equivalent masses)."""
SODA_G_PER_L_DKH = CACO3_PER_DKH * _NAHCO3_PER_CACO3 / 1000
MOST_PORTIONS, PORTION_H = 12, 12.0
"""Most portions baking soda is given in, and the hours between two (common practice)."""


class PowderProduct(Part):
    """Ammonium chloride powder."""

    form: Literal["ammonium-chloride"]
    purity_percent: Annotated[float, number("%", 1, 100)] = 99


class SolutionProduct(Part):
    """Ammonia solution, by mass of NH3 per volume: grams in 100 mL."""

    form: Literal["ammonia-solution"]
    strength_percent_w_v: Annotated[float, number("% w/v", 0.1, 35, "grams of NH3 in 100 mL")]
    drops_per_ml: Annotated[float, number("drops/mL", 10, 60)] = 20


class LabelProduct(Part):
    """A product described only by its label: an amount in a volume of water gives a concentration in ppm."""

    form: Literal["label"]
    amount: Annotated[float, number("amount_unit", 0.001, 10000)]
    amount_unit: Literal["mL", "g", "drops"]
    water: Annotated[float, number("water_unit", 0.1, 10000)]
    water_unit: Literal["L", "US gal", "imp gal"]
    raises_ppm: Annotated[float, number("ppm", 0.01, 1000)]
    basis: Basis
    drops_per_ml: Annotated[float, number("drops/mL", 10, 60)] = 20


AmmoniaProduct = Annotated[PowderProduct | SolutionProduct | LabelProduct, Field(discriminator="form")]


def base_per_n(product: AmmoniaProduct) -> float:
    """mg CaCO3 of alkalinity the product adds with each mg N.

    product: which. A label that does not say what is in the bottle is taken for a salt, which is the cautious way.
    Source: equivalent masses.
    """
    return BASE_PER_N if isinstance(product, SolutionProduct) else 0.0


class AmmoniaDoseQuestion(Question):
    """A target concentration in this water, from this product, on top of what is already there."""

    net_l: NetLitres
    target_ppm: Annotated[float, number("ppm", 0, 20)] = 2
    basis: Basis = "ion"
    current_ppm: Annotated[float, number("ppm", 0, 100, "Already in the water, same basis")] = 0
    product: AmmoniaProduct


class AmmoniaDoseAnswer(Answer):
    """Amount of the product; the unit that does not apply is null."""

    raise_mg_n_l: MgNPerL
    nitrogen_mg: Annotated[float, number("mg N", 0, 1e9)]
    grams: Annotated[float, number("g", 0, 1e7)] | None
    millilitres: Annotated[float, number("mL", 0, 1e7)] | None
    drops: Annotated[float, number("drops", 0, 1e9)] | None
    alkalinity_used_dkh: Annotated[float, number("dKH", 0, 1e4, "Once nitrified, less what the product itself brings")]
    nitrate_made_ppm_ion: Annotated[float, number("ppm", 0, 1e5, "Nitrate as the ion, if all of it is nitrified")]


@computation("ammonia-dose", "Grams, millilitres or drops for a target")
def ammonia_dose(question: AmmoniaDoseQuestion) -> AmmoniaDoseAnswer:
    """Grams, millilitres or drops of an ammonia product for a target concentration.

    question: water in L, target and current in ppm on one basis, product.
    Source: IUPAC atomic masses; the label; US EPA 1993 for alkalinity.
    """
    q, w = question, Working()
    gap_ppm = max(q.target_ppm - q.current_ppm, 0.0)
    factor = 1.0 if q.basis == "N" else NITROGEN_SHARE["NH4"]
    rise = w.sum(
        "ΔN",
        "max(target − current, 0) × N share",
        {"target": q.target_ppm, "current": q.current_ppm, "N share": factor},
        "mg N/L",
        "masses",
    )
    nitrogen = w.sum("mN", "ΔN × net litres", {"ΔN": rise, "net litres": q.net_l}, "mg N", "arithmetic")
    grams = millilitres = drops = None
    p = q.product
    if isinstance(p, PowderProduct):
        grams = w.sum(
            "m",
            "mN / (N share of NH4Cl × purity) / 1000",
            {"mN": nitrogen, "N share of NH4Cl": _N_IN_NH4CL, "purity": p.purity_percent / 100},
            "g",
            "masses",
        )
        amount = f"{grams:.2f} g of ammonium chloride"
    elif isinstance(p, SolutionProduct):
        per_ml = w.sum(
            "s",
            "strength × 10 × N share of NH3",
            {"strength": p.strength_percent_w_v, "N share of NH3": NITROGEN_SHARE["NH3"]},
            "mg N/mL",
            "masses",
        )
        millilitres = w.sum("V", "mN / s", {"mN": nitrogen, "s": per_ml}, "mL", "arithmetic")
        drops = w.sum("n", "V × drops per mL", {"V": millilitres, "drops per mL": p.drops_per_ml}, "drops", "keeper")
        amount = f"{millilitres:.2f} mL of ammonia solution (about {drops:.0f} drops)"
    else:
        water_l = p.water * {"L": 1.0, "US gal": L_PER_US_GAL, "imp gal": L_PER_IMP_GAL}[p.water_unit]
        label_n = w.line(
            "s",
            "label rise × N share × label water",
            f"{as_nitrogen(p.raises_ppm, 'ammonia', p.basis):.4f} × {water_l:.3f}",
            as_nitrogen(p.raises_ppm, "ammonia", p.basis) * water_l,
            f"mg N in {p.amount:g} {p.amount_unit}",
            "label",
        )
        needed = w.sum(
            "x",
            "amount on label × mN / s",
            {"amount on label": p.amount, "mN": nitrogen, "s": label_n},
            p.amount_unit,
            "label",
        )
        if p.amount_unit == "g":
            grams = needed
        elif p.amount_unit == "mL":
            millilitres, drops = needed, needed * p.drops_per_ml
        else:
            drops, millilitres = needed, needed / p.drops_per_ml
        amount = f"{needed:.3g} {p.amount_unit} of the product"
    net = w.line(
        "a",
        "7.14 − what the product brings",
        f"7.14 − {base_per_n(p):.2f}, {'as NH3, a base' if base_per_n(p) else 'as a salt'}",
        ALKALINITY_PER_N - base_per_n(p),
        "mg CaCO3/mg N",
        "epa1993",
    )
    alkalinity = w.sum("ΔKH", "a × ΔN / 17.85", {"a": net, "ΔN": rise, "17.85": CACO3_PER_DKH}, "dKH", "epa1993")
    nitrate = w.sum(
        "NO3", "ΔN / N share of NO3", {"ΔN": rise, "N share of NO3": NITROGEN_SHARE["NO3"]}, "ppm", "masses"
    )
    verdict = (
        f"Add {amount} to bring {formatting.litres(q.net_l)} from {q.current_ppm:g} to {q.target_ppm:g} ppm."
        if gap_ppm > 0
        else f"Add none: the water is already at {q.current_ppm:g} ppm, the target is {q.target_ppm:g}."
    )
    return AmmoniaDoseAnswer(
        verdict=verdict,
        working=w.lines,
        raise_mg_n_l=rise,
        nitrogen_mg=nitrogen,
        grams=grams,
        millilitres=millilitres,
        drops=drops,
        alkalinity_used_dkh=alkalinity,
        nitrate_made_ppm_ion=nitrate,
    )


def soda_g(raise_dkh: float, litres: float) -> float:
    """Sodium bicarbonate for a rise of KH, g: 3.0 g per 100 L and dKH. raise_dkh: dKH; litres: L. Source: equivalent
    masses.
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


@computation("alkalinity-dose", "Baking soda to hold KH, and what the doses burn")
def alkalinity_dose(question: AlkalinityDoseQuestion) -> AlkalinityDoseAnswer:
    """Baking soda to hold or raise KH, and the alkalinity the doses will use.

    question: L, dKH, mg N/L. Source: US EPA 1993; equivalent masses (3.0 g per 100 L and dKH).
    Raises CannotAnswer if the target lies below the current KH.
    """
    q, w = question, Working()
    if q.target_dkh < q.current_dkh and not q.planned_mg_n_l:
        raise CannotAnswer(
            "target_dkh",
            f"the target of {q.target_dkh:g} dKH is below the present {q.current_dkh:g}.",
            "Bicarbonate only raises KH; to lower it, change water for softer.",
        )
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
    rise = max(q.target_dkh - q.current_dkh, 0.0)
    grams = w.line(
        "m",
        "(target − current) × litres × k",
        f"{rise:.2f} × {q.net_l:.1f} × {per:.4f}",
        soda_g(rise, q.net_l),
        "g",
        "masses",
    )
    short = max(q.target_dkh - max(left, 0.0) - rise, 0.0) if q.planned_mg_n_l else 0.0
    hold = w.line(
        "m hold",
        "(target − KH left) × litres × k",
        f"{short:.2f} × {q.net_l:.1f} × {per:.4f}",
        soda_g(short, q.net_l),
        "g",
        "masses",
    )
    portions, after_ph, harms = _portions(q, rise, w)
    if harms:
        verdict = (
            f"No soda yet: at the pH it brings, the {q.ammonia_mg_n_l:.2g} mg N/L of ammonia would be over its limit."
            " Change water first."
        )
    elif not rise:
        verdict = f"Add none now: KH is {q.current_dkh:g} dKH."
    else:
        each = (
            "" if portions == 1 else f", in {portions} portions of {grams / portions:.2g} g, {PORTION_H:g} hours apart"
        )
        verdict = (
            f"Add {grams:.0f} g of sodium bicarbonate to go from {q.current_dkh:g} to {q.target_dkh:g} dKH, dissolved"
            f" first{each}."
        )
    if q.planned_mg_n_l:
        verdict += f" The doses to come will burn {burned:.1f} dKH: {hold:.0f} g more, spread over them, holds it."
    return AlkalinityDoseAnswer(
        verdict=verdict,
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
    if q.ph is None:
        # Portions halve as keepers do it; at a steady CO2 pH follows the logarithm of KH.
        return 2, None, False
    water = Water(Carbonate.of(q.ph, q.current_dkh, q.temperature_c, q.salinity_g_kg), q.ammonia_mg_n_l)
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
        f"pH {q.ph:g}, KH {q.current_dkh:g} + {given:.2f} dKH",
        water.carbonate.ph(),
        "pH",
        "carbonate",
    )
    harms = rise - given > 0.05
    return (0 if harms else portions), after, harms
