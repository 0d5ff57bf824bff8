"""Net water volume, depth and filled mass of a tank."""

from typing import Annotated, Literal

from reedmace.core.contract import Answer, Litres, Question, UsGallons, Working, computation, number, whole
from reedmace.core.errors import CannotAnswer
from reedmace.core.quantity import L_PER_IMP_GAL, formatting, us_gallons
from reedmace.core.tank.shapes import Plan, Shape, plan_of

GLASS_KG_L, STONE_KG_L, WOOD_KG_L, GRAIN_KG_L = 2.5, 2.6, 1.1, 2.65


class TankVolumeQuestion(Question):
    """A tank as a keeper measures it."""

    shape: Shape = "box"
    length_cm: Annotated[
        float,
        number("cm", 5, 1000, "Left to right; a cylinder's diameter; across a prism's flats; a corner tank's leg"),
    ]
    width_cm: Annotated[
        float,
        number("cm", 5, 500, "Front to back, at the ends of a bow front. Other shapes take theirs from the length"),
    ] = 30
    height_cm: Annotated[float, number("cm", 5, 300, "Outside: foot of the base glass to the rim. Inside: base to rim")]
    bow_cm: Annotated[float, number("cm", 0.5, 200, "How far a bow front bulges beyond its corners")] = 8
    sides_count: Annotated[int, whole(3, 12, "Sides of a prism")] = 6
    measured: Literal["outside", "inside"] = "outside"
    glass_mm: Annotated[float, number("mm", 2, 50, "Thickness of one pane")] = 6
    fill_below_rim_cm: Annotated[float, number("cm", 0, 100, "From the rim down to the water line")] = 3
    substrate_depth_cm: Annotated[float, number("cm", 0, 60)] = 0
    substrate_porosity_share: Annotated[float, number("share", 0, 0.95)] = 0.40
    stone_kg: Annotated[float, number("kg", 0, 5000)] = 0
    wood_kg: Annotated[float, number("kg", 0, 1000)] = 0
    counted_l: (
        Annotated[
            float, number("L", 0.5, 50000, "Litres counted while filling, everything in place; beats every estimate")
        ]
        | None
    ) = None
    water_outside_l: Annotated[float, number("L", 0, 5000, "Held in a canister or sump")] = 0


class TankVolumeAnswer(Answer):
    """Volumes in L and gallons, inside sizes in cm, mass in kg."""

    gross_l: Litres
    net_l: Litres
    net_us_gal: UsGallons
    net_imp_gal: Annotated[float, number("imp gal", 0, 1e7)]
    inside_length_cm: Annotated[float, number("cm", 0, 1000)]
    inside_width_cm: Annotated[float, number("cm", 0, 500)]
    inside_height_cm: Annotated[float, number("cm", 0, 300)]
    water_depth_cm: Annotated[float, number("cm", 0, 300, "From the base glass to the water line")]
    surface_cm2: Annotated[float, number("cm²", 0, 1e6)]
    filled_kg: Annotated[float, number("kg", 0, 1e7)]
    glass_m2: Annotated[float, number("m²", 0, 1e4, "Glass under water, where film grows as well")]
    footprint_cm2: Annotated[float, number("cm²", 0, 1e6)]
    floor_kpa: Annotated[float, number("kPa", 0, 1e4, "Filled mass over the tank's footprint, stand not counted")]


MOST_COUNTED = 1.1
"""Largest count while filling, relative to the glass: beyond it the count or the sizes are wrong."""


@computation("tank-volume", "How much water the tank really holds, how deep, how heavy")
def tank_volume(question: TankVolumeQuestion) -> TankVolumeAnswer:
    """Gross and net volume, depth, surface and filled mass.

    question: sizes in cm, glass in mm, masses in kg (see the schema for ranges).
    Raises CannotAnswer when the glass leaves no inside, or the fill line or the solids leave no water.
    Source: geometry; densities from memory.
    """
    q, w = question, Working()
    glass_cm = q.glass_mm / 10
    off = 1.0 if q.measured == "outside" else 0.0
    plan = _plan(q, glass_cm if off else 0.0)
    area = plan.inside_cm2
    inner_h = _inside_height(q, plan, glass_cm * off, w)
    depth = _water_depth(q, inner_h)
    gross = w.sum("V", "A × c / 1000", {"A": area, "c": inner_h}, "L", "geometry")
    w.line("d", "inside height − gap to the rim", f"{inner_h:g} − {q.fill_below_rim_cm:g}", depth, "cm", "geometry")
    inside, net = _net_water(q, area, depth, gross, w)
    gal = w.line("", "Vn / 3.785411784", f"{net:.2f} / 3.785411784", us_gallons(net), "US gal", "si")
    outside = plan.outside_cm2 if off else _plan_outside(q, glass_cm)
    filled = w.sum(
        "m",
        "water in the tank + grains × 2.65 + hardscape + glass × 2.5",
        {
            "water in the tank": inside,
            "grains": _grains_l(q, area),
            "hardscape": q.stone_kg + q.wood_kg,
            "glass": (outside * (inner_h + glass_cm) - area * inner_h) / 1000,
            "2.65": GRAIN_KG_L,
            "2.5": GLASS_KG_L,
        },
        "kg",
        "densities",
    )
    pressure = w.sum("p", "m × 9.81 / footprint / 1000", {"m": filled, "footprint": outside / 1e4}, "kPa", "geometry")
    return TankVolumeAnswer(
        verdict=(
            f"It holds {formatting.litres(net)} of water ({formatting.litres.twin(net, '.0f')}),"
            f" {formatting.cm(depth, '.1f')} deep, and weighs about {formatting.kg(filled)} full."
        ),
        working=w.lines,
        gross_l=gross,
        net_l=net,
        net_us_gal=gal,
        net_imp_gal=net / L_PER_IMP_GAL,
        inside_length_cm=plan.inside_length_cm,
        inside_width_cm=plan.inside_width_cm,
        inside_height_cm=inner_h,
        water_depth_cm=depth,
        surface_cm2=area,
        filled_kg=filled,
        glass_m2=(plan.inside_rim_cm * depth + area) / 1e4,
        footprint_cm2=outside,
        floor_kpa=pressure,
    )


def _inside_height(q: TankVolumeQuestion, plan: Plan, glass_off_cm: float, w: Working) -> float:
    """Inside height, cm, with the lines of the inside sizes; glass_off_cm: to be taken off, 0 where inside."""
    # The sides lose two panes but the height only one: there is no glass over the top.
    if q.shape == "box":
        sides = (("a", "length", q.length_cm, plan.inside_length_cm), ("b", "width", q.width_cm, plan.inside_width_cm))
        for symbol, name, size, inner in sides:
            formula = f"{name}, inside" if q.measured == "inside" else f"{name} − 2 × glass"
            w.line(symbol, formula, f"{size:g} − {2 * glass_off_cm:g}", inner, "cm", "geometry")
    height = w.line(
        "c",
        "height, inside" if q.measured == "inside" else "height − base glass",
        f"{q.height_cm:g} − {glass_off_cm:g}",
        q.height_cm - glass_off_cm,
        "cm",
        "geometry",
    )
    w.line("A", plan.formula, plan.with_numbers, plan.inside_cm2, "cm²", "geometry")
    return height


def _water_depth(q: TankVolumeQuestion, inside_height_cm: float) -> float:
    """Depth of the water, cm. Raises CannotAnswer where the fill line or the substrate leaves none."""
    depth = inside_height_cm - q.fill_below_rim_cm
    if depth <= 0:
        raise CannotAnswer(
            "fill_below_rim_cm",
            f"the water line is {formatting.cm(q.fill_below_rim_cm, 'g')} below a rim only"
            f" {formatting.cm(inside_height_cm, 'g')} above the base.",
            f"Give less than {formatting.cm(inside_height_cm, 'g')}.",
        )
    if q.substrate_depth_cm >= depth:
        raise CannotAnswer(
            "substrate_depth_cm",
            f"{formatting.cm(q.substrate_depth_cm, 'g')} of substrate stands above the water, which is"
            f" {formatting.cm(depth, 'g')} deep.",
            f"Give less than {formatting.cm(depth, 'g')}.",
        )
    return depth


def _grains_l(q: TankVolumeQuestion, area_cm2: float) -> float:
    return area_cm2 * q.substrate_depth_cm * (1 - q.substrate_porosity_share) / 1000


def _net_water(
    q: TankVolumeQuestion, area_cm2: float, depth_cm: float, gross_l: float, w: Working
) -> tuple[float, float]:
    """(water in the tank, net water with what stands outside), L, as computed or as counted while filling.

    Raises CannotAnswer where the solids leave no water, or more was counted than the glass holds.
    """
    water = w.sum("Vw", "A × d / 1000", {"A": area_cm2, "d": depth_cm}, "L", "geometry")
    grains = w.sum(
        "Vs",
        "A × substrate × (1 − porosity) / 1000",
        {"A": area_cm2, "substrate": q.substrate_depth_cm, "porosity": q.substrate_porosity_share},
        "L",
        "densities",
    )
    scape = w.sum(
        "Vh",
        "stone / 2.6 + wood / 1.1",
        {"stone": q.stone_kg, "wood": q.wood_kg, "2.6": STONE_KG_L, "1.1": WOOD_KG_L},
        "L",
        "densities",
    )
    if grains + scape >= water:
        raise CannotAnswer(
            "stone_kg",
            f"substrate and hardscape take {formatting.litres(grains + scape, '.1f')} of"
            f" {formatting.litres(water, '.1f')}.",
            "Check the masses; stone is counted in kg.",
        )
    if q.counted_l is None:
        inside = water - grains - scape
        formula, numbers = "Vw − Vs − Vh + water outside", f"{water:.1f} − {grains:.1f} − {scape:.1f}"
    else:
        if q.counted_l > MOST_COUNTED * gross_l:
            raise CannotAnswer(
                "counted_l",
                f"{formatting.litres(q.counted_l, 'g')} were counted, but the glass holds"
                f" {formatting.litres(gross_l)}.",
                "Check the count and its unit, or the sizes.",
            )
        inside = w.line("Vc", "counted while filling", "as counted", q.counted_l, "L", "keeper")
        formula, numbers = "Vc + water outside", f"{inside:.1f}"
    net = w.line(
        "Vn",
        formula,
        f"{numbers} + {q.water_outside_l:g}",
        inside + q.water_outside_l,
        "L",
        "geometry" if q.counted_l is None else "keeper",
    )
    return inside, net


def _plan(q: TankVolumeQuestion, glass_cm: float) -> Plan:
    """The plan, or the fault in its sizes."""
    smallest = q.length_cm if q.shape in ("cylinder", "prism", "corner") else min(q.length_cm, q.width_cm)
    if smallest <= 2 * glass_cm + 1:
        raise CannotAnswer(
            "glass_mm",
            "the panes leave no room inside.",
            f"Give glass thinner than {formatting.mm(max((smallest - 1) * 5, 2), '.0f')}.",
        )
    if q.shape == "bow-front" and q.bow_cm > q.length_cm / 2:
        raise CannotAnswer(
            "bow_cm",
            f"a front bulging {formatting.cm(q.bow_cm, 'g')} is more than half a circle over"
            f" {formatting.cm(q.length_cm, 'g')}.",
            f"Give at most {formatting.cm(q.length_cm / 2, 'g')}.",
        )
    return plan_of(q.shape, q.length_cm, q.width_cm, q.bow_cm, q.sides_count, glass_cm)


def _plan_outside(q: TankVolumeQuestion, glass_cm: float) -> float:
    """Footprint in cm² of a tank measured inside."""
    plan = plan_of(q.shape, q.length_cm + 2 * glass_cm, q.width_cm + 2 * glass_cm, q.bow_cm, q.sides_count, 0.0)
    return plan.outside_cm2
