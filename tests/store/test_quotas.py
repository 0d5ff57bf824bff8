"""Refusals say how many are allowed and what to do."""

import pytest

from reedmace.store import quotas


@pytest.mark.parametrize(
    ("refusal", "most"),
    [
        (quotas.too_many_rooms, quotas.MOST_ROOMS),
        (quotas.too_many_tanks, quotas.MOST_TANKS),
        (quotas.too_many_devices, quotas.MOST_DEVICES),
        (quotas.too_many_read_tokens, quotas.MOST_READ_TOKENS),
        (quotas.too_many_photos, quotas.MOST_PHOTOS),
    ],
)
def test_each_names_its_number_and_a_remedy(refusal, most: int) -> None:
    refused = refusal()
    assert str(most) in refused.remedy
    assert refused.wait_s is None


def test_entries_are_let_through_again_after_a_while() -> None:
    refused = quotas.too_many_entries(90)
    assert refused.wait_s == 90
    assert f"{quotas.ENTRIES_A_DAY:,}" in refused.remedy
