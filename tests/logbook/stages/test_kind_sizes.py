"""Kinds and sizes on a tank, whatever boxes there are."""

from reedmace.logbook.replay.rank_question import rank_question
from reedmace.logbook.stages.kind_sizes import ask_for_kind, types_for
from tests.support.fitting import BY_ID, CHOSEN, state_of

STOCK = (9, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 8}]})


def test_a_box_that_hangs_or_is_typed_changes_no_kind() -> None:
    bare = types_for(rank_question(state_of(STOCK)))
    typed = types_for(rank_question(state_of(STOCK), [BY_ID["burreed-20"]]))
    assert [k.kind for k in typed.kinds] == [k.kind for k in bare.kinds]
    assert types_for(rank_question(state_of(STOCK, CHOSEN))).kinds[0].ask_for


def test_a_shop_is_asked_for_one_kind_without_a_full_stop() -> None:
    words = ask_for_kind(state_of(STOCK), "sponge")
    assert not words.endswith(".")
    assert "sponge" in words.lower()
