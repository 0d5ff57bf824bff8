"""A stack of media: order, fit, surface, and its effect on the flow."""

import pytest

from reedmace.core.computations import compute
from tests.support.boxes import BY_ID, PACKED


def stack(*media: str, **more):
    baskets = [{"media": m, "litres": 1.4} for m in media]
    return compute("media-stack", {**PACKED, "baskets": baskets, **more})


def test_coarse_to_fine_then_film_is_in_order() -> None:
    assert stack("foam-10", "foam-30", "ceramic-rings").faults == []


@pytest.mark.parametrize(
    ("media", "words"),
    [
        (("floss", "foam-10", "ceramic-rings"), "before a coarser one"),
        (("ceramic-rings", "foam-10", "foam-20"), "meets the dirt before the foam"),
        (("carbon", "foam-10", "ceramic-rings"), "comes early"),
    ],
    ids=["fine first", "film first", "chemistry first"],
)
def test_each_order_fault_is_named_with_its_remedy(media, words) -> None:
    faults = stack(*media).faults
    assert any(words in f.what and f.remedy and f.where == "basket 1" for f in faults)


def test_bags_loose_trays_cramming_and_gaps_are_faults() -> None:
    one = {"media": "foam-20", "litres": 4.4}
    bagged = compute("media-stack", {**PACKED, "baskets": [{**one, "bagged": True}]})
    loose = compute("media-stack", {**PACKED, "baskets": [{**one, "seated": False}]})
    assert "plastic bag" in bagged.faults[0].what
    assert "20%" in loose.faults[0].what
    assert any("way round" in f.what for f in stack("foam-20").faults)
    # What fits a canister to the brim is crammed in a hang-on.
    full = {**PACKED, "baskets": [{**one, "litres": 4.2}]}
    installed = BY_ID["millrace-60"].model_copy(update={"media_l": 4.4}).model_dump()
    assert compute("media-stack", full).faults == []
    assert "spills over the back" in compute("media-stack", {**full, "filter": installed}).faults[0].what


def test_a_finer_first_medium_wants_cleaning_sooner_and_never_passes_more() -> None:
    heavy = {"feed_g_day": 20}
    coarse, fine = (
        stack("foam-10", "ceramic-rings", "sintered", **heavy),
        stack("floss", "ceramic-rings", "sintered", **heavy),
    )
    assert fine.service_days < coarse.service_days
    assert fine.clean_lph <= coarse.clean_lph
    # One limit: 70 % of the clean flow, or the kind's usual interval where that comes first.
    assert fine.dirty_lph == pytest.approx(0.7 * fine.clean_lph, rel=1e-3)
    assert stack("foam-10", "ceramic-rings", "sintered", feed_g_day=0.3).service_days == 60


def test_the_media_school_counts_ceramic_and_asks_twice_for_heavy_stock() -> None:
    big = {**PACKED["site"], "net_l": 150}
    answer, heavy = (
        stack("foam-10", "ceramic-rings", "sintered", site=big),
        stack("foam-10", site=big, animals=[{"species_id": "oscar", "count": 1}]),
    )
    assert answer.asked_kg == pytest.approx(1.5)
    assert heavy.asked_kg == pytest.approx(3.0)
    assert answer.has_kg == pytest.approx(1.4 * 0.55 + 1.4 * 0.5)


def test_a_cartridge_gets_both_sides() -> None:
    advice = " ".join(stack("cartridge").advice)
    assert "shops and some beginners like it" in advice
    assert "takes the film with it" in advice
