"""What a shopping list asks for the water: salt, ammonia, kits, conditioner."""

from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import AmmoniaDoseQuestion, AmmoniaProduct, ammonia_dose
from reedmace.core.chemistry.ammonia_dose import PowderProduct
from reedmace.core.chemistry.salinity import SEA_G_KG
from reedmace.core.contract import Name, NetLitres, Part, Question, Working, number, whole
from reedmace.core.filter.media.basket import Basket
from reedmace.core.filter.sizing_schools import CIRCULATION_PER_HOUR
from reedmace.core.fit.layout import FittingPlanQuestion
from reedmace.core.quantity import formatting
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.tank import SkimmerSizeQuestion, skimmer_size
from reedmace.core.upkeep.care_plan import CHANGE_SHARE

CYCLE_DOSES = 8


CHANGES_A_YEAR = 52


CONDITIONER_ML_PER_100L = 5.0
"""Liquid conditioner for 100 L of tap water, a usual label (memory); the bottle's own label decides."""


class Bought(FittingPlanQuestion):
    """One filter with its plan and media; what is owned already is not bought again."""

    media: Annotated[list[Basket], Field(max_length=12)] = Field(default_factory=list)
    owned: bool = False
    asked_as: Annotated[str, Field(max_length=80)] = Field(
        default="", description="What a shop is asked for, where no box was chosen yet"
    )
    packed_as_usual: bool = Field(default=False, description="Whether the media are those usual for its kind")


class ShoppingListQuestion(Question):
    """The filters to be fitted, the water, and the cycling method."""

    filters: Annotated[list[Bought], Field(min_length=1, max_length=12)]
    net_l: NetLitres
    needs_guard: bool = False
    begins: bool = Field(default=True, description="Whether a cycle is still to come; false with animals in")
    product: AmmoniaProduct = Field(default_factory=lambda: PowderProduct(form="ammonium-chloride"))
    target_ppm: Annotated[float, number("ppm", 0.1, 8)] = 2
    air_from: Literal["bought", "hand", "room"] = "bought"
    heater_w: Annotated[float, number("W", 0, 1e6, "All heaters to be bought together")] = 0
    heaters_count: Annotated[int, whole(1, 1000)] = 1
    feed_g_day: Annotated[float, number("g/day", 0, 5000, "Dry food of the animals planned")] = 0
    skimmer_owned: bool = False


class ShoppingItem(Part):
    """One line of the list."""

    item: Name
    amount: Annotated[float, number("unit", 0, 1e7)]
    unit: Literal["piece", "m", "L", "kg", "g", "mL", "drops"]
    why: str
    need: Literal["needed", "wise", "spare"]


SALT_WASTE = 1.1
"""Salt bought relative to salt dissolved: it is damp and some is spilt (memory)."""


def salt_water(q: ShoppingListQuestion, w: Working) -> list[ShoppingItem]:
    """Items for sea water; none where the tank is fresh. q: the list's question; w: gets the lines.

    Source: common practice of salt-water keepers.
    """
    if all(f.site.water != "salt" for f in q.filters):
        return []
    salt = w.sum(
        "salt",
        "salinity × litres × spare / 1000",
        {"salinity": SEA_G_KG, "litres": q.net_l, "spare": SALT_WASTE},
        "kg",
        "practice",
    )
    around = w.sum("circulation", "10 × litres", {"10": CIRCULATION_PER_HOUR[0], "litres": q.net_l}, "L/h", "practice")
    found = [
        (
            "Sea salt mix",
            salt,
            "kg",
            "For the first fill; as much again for every whole tank of changes. Mix it before it goes in.",
            "needed",
        ),
        (
            "Salinity meter",
            1.0,
            "piece",
            "A refractometer or a good hydrometer: every mix and every change is measured.",
            "needed",
        ),
        (
            "Can of purified water for top-ups",
            1.0,
            "piece",
            "What evaporates leaves its salt behind: top up with fresh water, never with salt.",
            "needed",
        ),
        (
            "Circulation pump in the tank",
            1.0,
            "piece",
            f"{formatting.lph(around)} or more in all, apart from the filter.",
            "needed",
        ),
    ]
    if not q.skimmer_owned and not any(f.filter.skimmer for f in q.filters):
        sized = skimmer_size(SkimmerSizeQuestion(net_l=q.net_l, feed_g_day=q.feed_g_day))
        w.lines.extend(sized.working)
        found.append(
            (
                f"Foam skimmer for about {formatting.litres(sized.label_l)}",
                1.0,
                "piece",
                f"That is what its box should say for this load; about {formatting.lph(sized.water_lph)} through it."
                " Left off until the first animals are in: it strips what the film would feed on.",
                "wise",
            )
        )
    return [ShoppingItem(item=item, amount=n, unit=unit, why=why, need=need) for item, n, unit, why, need in found]


def _ammonia(q: ShoppingListQuestion, w: Working) -> ShoppingItem:
    """Ammonia for the doses of a cycle."""
    dose = ammonia_dose(
        AmmoniaDoseQuestion(
            net_l=q.net_l, target_ppm=q.target_ppm * NITROGEN_SHARE["NH4"], basis="N", product=q.product
        )
    )
    w.lines.extend(dose.working)
    amount, unit = next(
        (a, u) for a, u in ((dose.grams, "g"), (dose.millilitres, "mL"), (dose.drops, "drops")) if a is not None
    )
    ammonia = w.sum("ammonia", "dose × 8", {"dose": amount, "8": CYCLE_DOSES}, unit, "practice")
    return ShoppingItem(
        item="Ammonia source, aquarium grade",
        amount=ammonia,
        unit=unit,
        why=f"About {CYCLE_DOSES} doses of {amount:.2g} {unit}. Never household cleaner, never with bleach.",
        need="needed",
    )


def to_begin(q: ShoppingListQuestion, w: Working) -> list[ShoppingItem]:
    """What a cycle and its first year need. q: the list's question; w: gets the lines."""
    water = w.sum(
        "tap water",
        "litres × (1 + 52 × 0.25)",
        {"litres": q.net_l, "52": CHANGES_A_YEAR, "0.25": CHANGE_SHARE},
        "L in the first year",
        "practice",
    )
    return [
        _ammonia(q, w),
        ShoppingItem(
            item="Test kit: ammonia, nitrite, nitrate, pH, KH",
            amount=1,
            unit="piece",
            why="Without a nitrite test nothing can be called ready.",
            need="needed",
        ),
        ShoppingItem(
            item="Conditioner for chlorine and chloramine",
            amount=w.sum(
                "conditioner", "tap water × 5 / 100", {"tap water": water, "5": CONDITIONER_ML_PER_100L}, "mL", "memory"
            ),
            unit="mL",
            why="For the first year's fills and changes; the bottle's label decides the dose.",
            need="needed",
        ),
        ShoppingItem(
            item="Baking soda, pure",
            amount=w.sum("bicarbonate", "3 × litres / 100 × 5", {"litres": q.net_l}, "g", "masses"),
            unit="g",
            why="Held ready for soft water: a cycle eats alkalinity.",
            need="wise",
        ),
        ShoppingItem(
            item="Bucket, used for nothing else",
            amount=1,
            unit="piece",
            why="For changes, and to time the flow.",
            need="wise",
        ),
        ShoppingItem(
            item="Spare sponge to seed",
            amount=1,
            unit="piece",
            why="In a running filter from the start, it can start the next tank.",
            need="spare",
        ),
    ]
