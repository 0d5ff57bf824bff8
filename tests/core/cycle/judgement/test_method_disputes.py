"""Where keepers disagree, both sides are told and the one followed is named."""

from reedmace.core.cycle.judgement.method_disputes import DISPUTES


def test_each_has_two_sides_and_what_is_done_here() -> None:
    assert len({d.about for d in DISPUTES}) == len(DISPUTES)
    for dispute in DISPUTES:
        assert len({dispute.one_side, dispute.other_side, dispute.followed}) == 3, dispute.about
        assert all(text.endswith(".") for text in (dispute.one_side, dispute.other_side, dispute.followed))
