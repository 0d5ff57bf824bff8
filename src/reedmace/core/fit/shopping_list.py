"""Shopping list for the chosen filters, with the lengths and pieces of their fitting plans."""

import math
from typing import Annotated

from reedmace.core.contract import Answer, Working, computation, number
from reedmace.core.fit.layout import FittingPlanAnswer, FittingPlanQuestion, fitting_plan
from reedmace.core.fit.shopping_water import Bought, ShoppingItem, ShoppingListQuestion, salt_water, to_begin
from reedmace.core.flow.materials import MEDIA_KG_L, MEDIA_NAMES, MediaKind
from reedmace.core.quantity import formatting


class ShoppingListAnswer(Answer):
    """Everything to buy, needed first."""

    items: list[ShoppingItem]
    money: Annotated[float, number("money", 0, 1e7, "The filters alone; the rest has no price here")]


def _half_metres(cm: float) -> float:
    return math.ceil(cm / 50 - 1e-9) / 2


def _lines(plans: list[FittingPlanAnswer], w: Working) -> list[ShoppingItem]:
    """Hose and air line by bore, from the lengths the fitting plans cut, up to the half metre."""
    by_bore: dict[tuple[bool, float], float] = {}
    for run in (r for plan in plans for r in plan.runs if r.role != "drain"):
        key = (run.role == "air-line", run.bore_mm)
        by_bore[key] = by_bore.get(key, 0.0) + math.ceil(run.cut_cm)
    found = []
    for (air, bore), cm in sorted(by_bore.items()):
        name = "air line" if air else "hose"
        metres = w.line(name, "Σ cut, up to the half metre", f"{cm:.0f} cm", _half_metres(cm), "m", "practice")
        why = (
            "From the pump over the rim to the base, with a low loop outside."
            if air
            else "Cut long: it cannot be cut longer."
        )
        found.append(
            ShoppingItem(
                item=f"{name.capitalize()}, {formatting.mm(bore)} bore", amount=metres, unit="m", why=why, need="needed"
            )
        )
    return found


def _pieces(plans: list[FittingPlanAnswer]) -> list[ShoppingItem]:
    """Other items of the plans, equal ones summed; parts cut from a supplied tube are not bought."""
    found: dict[str, ShoppingItem] = {}
    for cut in (c for plan in plans for c in plan.cuts if c.unit == "piece"):
        before = found[cut.item].amount if cut.item in found else 0.0
        found[cut.item] = ShoppingItem(
            item=formatting.opening(cut.item),
            amount=before + cut.amount,
            unit="piece",
            why=f"{formatting.opening(cut.how)}.",
            need=cut.need,
        )
    return list(found.values())


def _needed(item: str, amount: float, why: str) -> ShoppingItem:
    """Pieces without which it does not run. amount: how many."""
    return ShoppingItem(item=item, amount=amount, unit="piece", why=why, need="needed")


def _air(driven: list[Bought], q: ShoppingListQuestion, w: Working) -> list[ShoppingItem]:
    """What moves the air of filters driven by it: a pump, or an outlet of the one there is."""
    if not driven:
        return []
    if q.air_from != "bought":
        pump = "From the room's pump" if q.air_from == "room" else "From the pump at hand"
        why = f"{pump}: each outlet with a valve of its own."
        return [_needed("T-piece and valve for the air line", float(len(driven)), why)]
    wanted = w.line(
        "air", "Σ L/min", f"{len(driven)} filters", sum(f.filter.air_l_min or 0 for f in driven), "L/min", "label"
    )
    depth = max(f.site.water_depth_cm for f in driven)
    return [_needed("Air pump", 1, f"{wanted:.2g} L/min at {formatting.cm(depth)} of water or more.")]


def _plumbing(q: ShoppingListQuestion, w: Working) -> list[ShoppingItem]:
    new = [f for f in q.filters if not f.owned]
    plans = [
        fitting_plan(FittingPlanQuestion(**{k: getattr(f, k) for k in FittingPlanQuestion.model_fields})) for f in new
    ]
    found = [*_lines(plans, w), *_pieces(plans)]
    found += _air([f for f in new if f.filter.air], q, w)
    bare = [f for f in new if not f.filter.air]
    if q.needs_guard and bare:
        found.append(
            _needed(
                "Guard sponge for the intake", 2.0 * len(bare), "One on, one to swap: for shrimp, fry and small fish."
            )
        )
    if q.heater_w:
        each = q.heater_w / q.heaters_count
        found.append(
            ShoppingItem(
                item=f"Heater, {each:g} W",
                amount=float(q.heaters_count),
                unit="piece",
                why="Holds the water at the animals' warmth in this room; with a thermometer beside it.",
                need="needed",
            )
        )
    found.append(
        ShoppingItem(
            item="Drip loop ties and a plug cover",
            amount=1,
            unit="piece",
            why="Residual-current protection decides the rest; a licensed electrician fits it.",
            need="wise",
        )
    )
    return found


def _filters(q: ShoppingListQuestion) -> list[ShoppingItem]:
    found: dict[str, ShoppingItem] = {}
    for bought in (f for f in q.filters if not f.owned):
        name = bought.asked_as or bought.filter.name
        count = found[name].amount + 1 if name in found else 1
        why = "Any make of it; your box's own figures then replace the usual ones." if bought.asked_as else ""
        found[name] = ShoppingItem(
            item=name, amount=count, unit="piece", why=why or "The filter chosen.", need="needed"
        )
    return list(found.values())


def _media(q: ShoppingListQuestion, w: Working) -> list[ShoppingItem]:
    litres: dict[MediaKind, float] = {}
    new = [f for f in q.filters if not f.owned]
    for b in (b for f in new for b in f.media):
        litres[b.media] = litres.get(b.media, 0.0) + b.litres
    usual = " As usual for its kind; what came in the box need not be bought." if _all_usual(new) else ""
    found = []
    for media, volume in litres.items():
        heavy = media in ("ceramic-rings", "sintered", "lava", "carbon", "zeolite")
        amount = w.line(
            media,
            "litres × kg/L" if heavy else "litres",
            f"{volume:g} L",
            volume * (MEDIA_KG_L[media] if heavy else 1.0),
            "kg" if heavy else "L",
            "memory",
        )
        found.append(
            ShoppingItem(
                item=MEDIA_NAMES[media].capitalize(),
                amount=amount,
                unit="kg" if heavy else "L",
                why=f"{formatting.litres(volume, 'g')} in its place in the stack.{usual}",
                need="needed",
            )
        )
    return found


def _all_usual(filters: list[Bought]) -> bool:
    return all(f.packed_as_usual for f in filters if f.media)


def _to_go_on() -> list[ShoppingItem]:
    """What a tank that runs may have run out of."""
    return [
        ShoppingItem(
            item="Test kit, if its date has passed",
            amount=1,
            unit="piece",
            why="A new filter on a running tank is followed by tests for a month.",
            need="wise",
        )
    ]


def _verdict(needed: int, wise: int, *, begins: bool) -> str:
    if not needed:
        return f"Nothing is needed; {wise} {'thing is' if wise == 1 else 'things are'} wise to have."
    things = "thing" if needed == 1 else "things"
    return f"{needed} {things} to buy{' before you begin' if begins else ''}, {wise} that are wise to have."


@computation("shopping-list", "What to buy, with quantities")
def shopping_list(question: ShoppingListQuestion) -> ShoppingListAnswer:
    """What to buy for these filters on this tank.

    question: the filters with their fitting plans, media in L, water in L.
    Source: quantities from the plans and the sums; spares and eight doses for a cycle common practice.
    """
    q, w = question, Working()
    items = [*_filters(q), *_plumbing(q, w), *_media(q, w), *salt_water(q, w)]
    items += to_begin(q, w) if q.begins else _to_go_on()
    rank = {"needed": 0, "wise": 1, "spare": 2}
    items.sort(key=lambda i: rank[i.need])
    prices = [f.filter.price for f in q.filters if not f.owned and f.filter.price_known]
    money = w.line("money", "Σ price", f"{len(prices)} filters", sum(prices), "money", "label")
    needed = sum(i.need == "needed" for i in items)
    return ShoppingListAnswer(
        verdict=_verdict(needed, len(items) - needed, begins=q.begins),
        working=w.lines,
        items=items,
        money=money,
    )
