"""What to buy for a chosen filter, with quantities from the sums."""

import math
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.chemistry import AmmoniaDoseQuestion, AmmoniaProduct, ammonia_dose
from reedmace.core.chemistry.dose import PowderProduct
from reedmace.core.filter.catalogue import Filter
from reedmace.core.filter.media import Basket
from reedmace.core.filter.room import Plumbing
from reedmace.core.flow.materials import MEDIA_KG_L
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.core.working import Answer, Name, NetLitres, Part, Question, Working, number, whole

HOSE_SPARE_SHARE = 0.15
"""Cut long: hose cannot be cut longer (common practice)."""
CYCLE_DOSES = 8
CHANGES_A_YEAR, CHANGE_SHARE = 52, 0.25
CONDITIONER_ML_PER_100L = 5.0
"""Liquid conditioner for 100 L of tap water, a usual label (memory); the bottle's own label decides."""


class ShoppingListQuestion(Question):
    """The filter, its plumbing and media, the water, and how it will be cycled."""

    filter: Filter
    plumbing: Plumbing = Field(default_factory=Plumbing)
    media: Annotated[list[Basket], Field(max_length=12)] = Field(default_factory=list)
    net_l: NetLitres
    depth_cm: Annotated[float, number("cm", 1, 300)] = 40
    needs_guard: bool = False
    product: AmmoniaProduct = Field(default_factory=lambda: PowderProduct(form="ammonium-chloride"))
    target_ppm: Annotated[float, number("ppm", 0.1, 8)] = 2
    filters_count: Annotated[int, whole(1, 4)] = 1


class ShoppingItem(Part):
    """One line of the list."""

    item: Name
    amount: Annotated[float, number("unit", 0, 1e7)]
    unit: Literal["piece", "m", "L", "kg", "g", "mL", "drops"]
    why: str
    need: Literal["needed", "wise", "spare"]


class ShoppingListAnswer(Answer):
    """Everything to buy, needed first."""

    items: list[ShoppingItem]
    money: Annotated[float, number("money", 0, 1e7, "The filters alone; the rest has no price here")]


_MEDIA = {
    "foam-10": "Coarse foam, 10 ppi",
    "foam-20": "Medium foam, 20 ppi",
    "foam-30": "Fine foam, 30 ppi",
    "floss": "Floss",
    "cartridge": "Cartridge",
    "ceramic-rings": "Ceramic rings",
    "sintered": "Sintered media",
    "plastic-balls": "Plastic balls",
    "lava": "Lava",
    "carbon": "Carbon",
    "zeolite": "Zeolite",
}


def _plumbing(q: ShoppingListQuestion, w: Working) -> list[ShoppingItem]:
    f = q.filter
    found: list[ShoppingItem] = []

    def item(
        name: str,
        amount: float,
        unit: Literal["piece", "m", "L"],
        why: str,
        need: Literal["needed", "wise", "spare"] = "needed",
    ) -> None:
        found.append(ShoppingItem(item=name, amount=amount, unit=unit, why=why, need=need))

    if f.kind in ("canister", "sump"):
        bore = q.plumbing.hose_bore_mm or f.hose_bore_mm or 16
        length = w.line(
            "hose",
            "planned × 1.15, up to the half metre",
            f"{q.plumbing.hose_length_m:g} × {1 + HOSE_SPARE_SHARE:g}",
            math.ceil(q.plumbing.hose_length_m * (1 + HOSE_SPARE_SHARE) * 2) / 2,
            "m",
            "practice",
        )
        item(f"Hose, {bore:g} mm bore", length * q.filters_count, "m", "Cut long: it cannot be cut longer.")
        item(
            "Hose clamps",
            4.0 * q.filters_count,
            "piece",
            "One at each end of both hoses; on before the hose is pushed on.",
        )
        item(
            "Valves with quick release",
            2.0 * q.filters_count,
            "piece",
            "Shut both and the body comes away without a flood.",
        )
    if f.kind in ("canister", "hang-on"):
        item(
            "Spare O-ring or seal",
            1,
            "piece",
            "A worn seal drips; the right one is never in stock on a Sunday.",
            "spare",
        )
    if f.air:
        run = w.line(
            "air line",
            "2 × depth + 1.5 m",
            f"2 × {q.depth_cm / 100:g} + 1.5",
            math.ceil((2 * q.depth_cm / 100 + 1.5) * 2) / 2,
            "m",
            "practice",
        )
        item(
            "Air pump",
            1,
            "piece",
            f"{(f.air_l_min or 0) * q.filters_count:.2g} L/min at {q.depth_cm:.0f} cm of water or more.",
        )
        item(
            "Air line, 4 mm bore",
            run * q.filters_count,
            "m",
            "From the pump over the rim to the base, with a low loop outside.",
        )
        item(
            "Check valve", 1.0 * q.filters_count, "piece", "Without it a stopped pump siphons the tank onto the floor."
        )
        item("Adjusting valve", 1.0 * q.filters_count, "piece", "To set the stream of bubbles.")
    if f.kind == "box":
        item("Ballast stone", 1, "piece", "An air-driven box floats without it.")
    if q.needs_guard and not f.air:
        item(
            "Guard sponge for the intake",
            2.0 * q.filters_count,
            "piece",
            "One on, one to swap: for shrimp, fry and small fish.",
        )
    if f.kind == "sump":
        item("Siphon break or drilled return", 1, "piece", "So that a power cut runs back only a little.")
    item(
        "Drip loop ties and a plug cover",
        1,
        "piece",
        "Residual-current protection decides the rest; a licensed electrician fits it.",
        "wise",
    )
    return found


def shopping_list(question: ShoppingListQuestion) -> ShoppingListAnswer:
    """What to buy for this filter on this tank.

    question: the filter and its plumbing, media in L, water in L.
    Source: quantities from the plan and the sums; spares and eight doses for a cycle common practice.
    """
    q, w = question, Working()
    f = q.filter
    items = [
        ShoppingItem(item=f.name, amount=q.filters_count, unit="piece", why="The filter chosen.", need="needed"),
        *_plumbing(q, w),
    ]
    for b in q.media:
        heavy = b.media in ("ceramic-rings", "sintered", "lava", "carbon", "zeolite")
        amount = w.line(
            b.media,
            "litres × kg/L" if heavy else "litres",
            f"{b.litres:g} L",
            b.litres * (MEDIA_KG_L[b.media] if heavy else 1.0),
            "kg" if heavy else "L",
            "memory",
        )
        items.append(
            ShoppingItem(
                item=_MEDIA[b.media],
                amount=amount * q.filters_count,
                unit="kg" if heavy else "L",
                why=f"{b.litres:g} L in its place in the stack.",
                need="needed",
            )
        )
    dose = ammonia_dose(
        AmmoniaDoseQuestion(
            net_l=q.net_l, target_ppm=q.target_ppm * NITROGEN_SHARE["NH4"], basis="N", product=q.product
        )
    )
    w.lines.extend(dose.working)
    amount, unit = next(
        (a, u) for a, u in ((dose.grams, "g"), (dose.millilitres, "mL"), (dose.drops, "drops")) if a is not None
    )
    ammonia = w.line("ammonia", "dose × 8", f"{amount:.3g} × {CYCLE_DOSES}", amount * CYCLE_DOSES, unit, "practice")
    items.append(
        ShoppingItem(
            item="Ammonia source, aquarium grade",
            amount=ammonia,
            unit=unit,
            why=f"About {CYCLE_DOSES} doses of {amount:.2g} {unit}. Never household cleaner, never with bleach.",
            need="needed",
        )
    )
    water = w.line(
        "tap water",
        "first fill + 52 × 25 %",
        f"{q.net_l:.0f} × (1 + 52 × 0.25)",
        q.net_l * (1 + CHANGES_A_YEAR * CHANGE_SHARE),
        "L in the first year",
        "practice",
    )
    items += [
        ShoppingItem(
            item="Test kit: ammonia, nitrite, nitrate, pH, KH",
            amount=1,
            unit="piece",
            why="Without a nitrite test nothing can be called ready.",
            need="needed",
        ),
        ShoppingItem(
            item="Conditioner for chlorine and chloramine",
            amount=w.line(
                "conditioner",
                "tap water × 5 mL per 100 L",
                f"{water:.0f} × 0.05",
                water * CONDITIONER_ML_PER_100L / 100,
                "mL",
                "memory",
            ),
            unit="mL",
            why="For the first year's fills and changes; the bottle's label decides the dose.",
            need="needed",
        ),
        ShoppingItem(
            item="Baking soda, pure",
            amount=w.line(
                "bicarbonate",
                "3 g per 100 L and dKH × 5 dKH",
                f"3 × {q.net_l / 100:.2f} × 5",
                15 * q.net_l / 100,
                "g",
                "masses",
            ),
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
    rank = {"needed": 0, "wise": 1, "spare": 2}
    items.sort(key=lambda i: rank[i.need])
    money = w.line(
        "money", "price × filters", f"{f.price:g} × {q.filters_count}", f.price * q.filters_count, "money", "label"
    )
    needed = sum(i.need == "needed" for i in items)
    return ShoppingListAnswer(
        verdict=f"{needed} things to buy before you begin, {len(items) - needed} that are wise to have.",
        working=w.lines,
        items=items,
        money=money,
    )
