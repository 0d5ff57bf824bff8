"""Ammonia doses for fishless cycling."""

from typing import Annotated, Literal, NamedTuple

from pydantic import Field

from reedmace.core.chemistry.doubt import DROPS_SHARE, LITRES_SHARE, Doubt, DoubtBy, doubt_of
from reedmace.core.chemistry.stoichiometry import ALKALINITY_PER_N, BASE_PER_N, N_IN_NH4CL
from reedmace.core.contract import (
    Answer,
    MgNPerL,
    NetLitres,
    Part,
    Question,
    Working,
    computation,
    number,
)
from reedmace.core.quantity import CACO3_PER_DKH, L_PER_IMP_GAL, L_PER_US_GAL, NITROGEN_SHARE, formatting
from reedmace.core.quantity.units import Basis, as_nitrogen


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


STRENGTH_SHARE = {"ammonium-chloride": 0.02, "ammonia-solution": 0.1, "label": 0.1}
"""Doubt of a product's strength, as a share (memory): powder is weighed, a bottle loses gas, a label rounds."""


class AmmoniaDoseQuestion(Question):
    """A target concentration in this water, from this product, on top of what is already there."""

    net_l: NetLitres
    target_ppm: Annotated[float, number("ppm", 0, 20)] = 2
    basis: Basis = "ion"
    current_ppm: Annotated[float, number("ppm", 0, 100, "Already in the water, same basis")] = 0
    half_ppm: Annotated[float, number("ppm", 0, 50, "Half a step of the test that read it, same basis")] = 0.125
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
    low_ppm: Annotated[float, number("ppm", 0, 200, "It may come to, on the basis asked")]
    high_ppm: Annotated[float, number("ppm", 0, 200)]
    doubt_by: DoubtBy = Field(description="What most of that range comes from")


class _Amount(NamedTuple):
    """How much of a product a dose takes; None in a unit it is not measured in."""

    words: str
    grams: float | None = None
    millilitres: float | None = None
    drops: float | None = None


def _amount(p: AmmoniaProduct, nitrogen_mg: float, w: Working) -> _Amount:
    """Amount of a product that holds some nitrogen. nitrogen_mg: mg N; w: gets the lines."""
    if isinstance(p, PowderProduct):
        return _powder(p, nitrogen_mg, w)
    return _solution(p, nitrogen_mg, w) if isinstance(p, SolutionProduct) else _by_label(p, nitrogen_mg, w)


def _powder(p: PowderProduct, nitrogen_mg: float, w: Working) -> _Amount:
    grams = w.sum(
        "m",
        "mN / (N share of NH4Cl × purity) / 1000",
        {"mN": nitrogen_mg, "N share of NH4Cl": N_IN_NH4CL, "purity": p.purity_percent / 100},
        "g",
        "masses",
    )
    return _Amount(f"{grams:.2f} g of ammonium chloride", grams=grams)


def _solution(p: SolutionProduct, nitrogen_mg: float, w: Working) -> _Amount:
    per_ml = w.sum(
        "s",
        "strength × 10 × N share of NH3",
        {"strength": p.strength_percent_w_v, "N share of NH3": NITROGEN_SHARE["NH3"]},
        "mg N/mL",
        "masses",
    )
    millilitres = w.sum("V", "mN / s", {"mN": nitrogen_mg, "s": per_ml}, "mL", "arithmetic")
    drops = w.sum("n", "V × drops per mL", {"V": millilitres, "drops per mL": p.drops_per_ml}, "drops", "keeper")
    words = f"{millilitres:.2f} mL of ammonia solution (about {drops:.0f} drops)"
    return _Amount(words, millilitres=millilitres, drops=drops)


def _by_label(p: LabelProduct, nitrogen_mg: float, w: Working) -> _Amount:
    water_l = p.water * {"L": 1.0, "US gal": L_PER_US_GAL, "imp gal": L_PER_IMP_GAL}[p.water_unit]
    rises = as_nitrogen(p.raises_ppm, "ammonia", p.basis)
    label_n = w.line(
        "s",
        "label rise × N share × label water",
        f"{rises:.4f} × {water_l:.3f}",
        rises * water_l,
        f"mg N in {p.amount:g} {p.amount_unit}",
        "label",
    )
    needed = w.sum(
        "x",
        "amount on label × mN / s",
        {"amount on label": p.amount, "mN": nitrogen_mg, "s": label_n},
        p.amount_unit,
        "label",
    )
    words = f"{needed:.3g} {p.amount_unit} of the product"
    if p.amount_unit == "g":
        return _Amount(words, grams=needed)
    if p.amount_unit == "mL":
        return _Amount(words, millilitres=needed, drops=needed * p.drops_per_ml)
    return _Amount(words, millilitres=needed / p.drops_per_ml, drops=needed)


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
    p = q.product
    amount = _amount(p, nitrogen, w)
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
        f"Add {amount.words} to bring {formatting.litres(q.net_l)} from {q.current_ppm:g} to {q.target_ppm:g} ppm."
        if gap_ppm > 0
        else f"Add none: the water is already at {q.current_ppm:g} ppm, the target is {q.target_ppm:g}."
    )
    comes = _comes_to(q, gap_ppm, w)
    if gap_ppm > 0:
        verdict += f" It comes to {comes.low:.2g} to {comes.high:.2g} ppm, mostly by {comes.by}."
    return AmmoniaDoseAnswer(
        verdict=verdict,
        working=w.lines,
        raise_mg_n_l=rise,
        nitrogen_mg=nitrogen,
        grams=amount.grams,
        millilitres=amount.millilitres,
        drops=amount.drops,
        alkalinity_used_dkh=alkalinity,
        nitrate_made_ppm_ion=nitrate,
        low_ppm=comes.low,
        high_ppm=comes.high,
        doubt_by=comes.by,
    )


def _comes_to(q: AmmoniaDoseQuestion, gap_ppm: float, w: Working) -> Doubt:
    """What the water may come to, ppm. gap_ppm: what the dose is meant to add."""
    product = STRENGTH_SHARE[q.product.form]
    counted = isinstance(q.product, SolutionProduct) or (
        isinstance(q.product, LabelProduct) and q.product.amount_unit == "drops"
    )
    comes = doubt_of(
        q.current_ppm + gap_ppm,
        {
            # New water holds none, whatever a kit could see.
            "the test": q.half_ppm if q.current_ppm > 0 else 0.0,
            "the litres": gap_ppm * LITRES_SHARE,
            "the product": gap_ppm * product,
            "the drops": gap_ppm * DROPS_SHARE if counted else 0.0,
        },
    )
    w.line("±", "√(test² + litres² + product² + drops²)", f"mostly {comes.by}", comes.high - comes.low, "ppm", "memory")
    return comes
