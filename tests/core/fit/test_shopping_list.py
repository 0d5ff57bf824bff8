"""Shopping list for the chosen filters, with the lengths and pieces of their fitting plans."""

import pytest

from reedmace.core.computations import compute
from tests.support.boxes import BY_ID, PACKED


def shopping(filter_id: str, **more):
    one = {"filter": BY_ID[filter_id].model_dump(), "site": {**PACKED["site"], "behind_cm": 12}}
    one |= {k: more.pop(k) for k in ("plumbing", "media", "layout") if k in more}
    answer = compute("shopping-list", {"filters": [one], "net_l": 131, **more})
    return {i.item: i for i in answer.items}


def test_a_canister_brings_hose_cut_long_clamps_valves_and_a_spare_seal() -> None:
    items = shopping("sweetflag-800")
    plan = compute("fitting-plan", {"filter": BY_ID["sweetflag-800"].model_dump(), "site": PACKED["site"]})
    cut_m = sum(c.amount for c in plan.cuts if c.unit == "cm") / 100
    assert cut_m <= items["Hose, 16 mm bore"].amount < cut_m + 0.5
    pieces = {c.item.capitalize(): c.amount for c in plan.cuts if c.unit == "piece"}
    assert pieces["Valves with quick release"] == items["Valves with quick release"].amount
    assert items["Hose clamps"].amount == 4
    assert items["Spare O-ring or seal"].need == "spare"
    assert "Check valve" not in items


def test_air_brings_a_check_valve_and_small_animals_a_guard() -> None:
    assert "Check valve" in shopping("burreed-20", needs_guard=True)
    assert "Guard sponge for the intake" not in shopping("burreed-20", needs_guard=True)
    assert shopping("millrace-60", needs_guard=True)["Guard sponge for the intake"].amount == 2


def test_the_ammonia_is_eight_doses_for_this_water() -> None:
    dose = compute("ammonia-dose", {"net_l": 131, "product": {"form": "ammonium-chloride"}, "target_ppm": 2}).grams
    assert shopping("millrace-60")["Ammonia source, aquarium grade"].amount == pytest.approx(8 * dose, rel=0.01)


def test_media_are_bought_by_weight_or_by_volume() -> None:
    items = shopping(
        "sweetflag-800", media=[{"media": "foam-10", "litres": 1}, {"media": "ceramic-rings", "litres": 3}]
    )
    assert (items["Coarse foam, 10 ppi"].amount, items["Coarse foam, 10 ppi"].unit) == (1, "L")
    assert (items["Ceramic rings"].amount, items["Ceramic rings"].unit) == (pytest.approx(1.65), "kg")
