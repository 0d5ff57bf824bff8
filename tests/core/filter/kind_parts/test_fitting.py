"""What fitting each kind takes, and what can go wrong."""

import pytest

from reedmace.core.filter.kind_parts.fitting import MishapDraft, Purchase
from reedmace.core.filter.kinds import KINDS


@pytest.mark.parametrize("kind", KINDS, ids=lambda kind: kind.name)
def test_every_kind_says_what_a_power_cut_does_at_each_length(kind) -> None:
    cut = kind.power_cut
    told = [cut.minute, cut.hour, cut.night, cut.on_return]
    assert all(told)
    assert len(set(told)) == 4


def test_a_purchase_is_needed_and_a_mishap_drains_nothing_unless_said() -> None:
    assert Purchase("Hose", 120, "cm", "cut to length").need == "needed"
    mishap = MishapDraft("drip", "A joint drips", 0.0, "An o-ring is dry", "Grease it")
    assert (mishap.bore_mm, mishap.keeps_l) == (None, 0.0)
