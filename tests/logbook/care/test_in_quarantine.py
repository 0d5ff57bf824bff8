"""A tank's quarantine from its logbook."""

from datetime import timedelta

import pytest

from reedmace.logbook.care.in_quarantine import in_quarantine, usual_quarantine_days
from tests.support.fitting import CHOSEN, NOW, state_of

BEGUN = (10, {"kind": "quarantine", "days": 28})


def test_it_counts_from_its_entry_and_an_entry_of_no_days_ends_it() -> None:
    found = in_quarantine(state_of(CHOSEN, BEGUN), NOW)
    assert found is not None
    assert (found.words, found.until) == ("quarantine, day 11 of 28", NOW + timedelta(days=18))
    assert in_quarantine(state_of(CHOSEN, BEGUN, (1, {"kind": "quarantine", "days": 0})), NOW) is None
    assert in_quarantine(state_of(CHOSEN), NOW) is None
    later = in_quarantine(state_of(CHOSEN, BEGUN), NOW + timedelta(days=30))
    assert later is not None
    assert later.words == "quarantine over"


@pytest.mark.parametrize(
    ("event", "anew"),
    [
        ({"kind": "stocking", "species_id": "guppy", "count": 2}, "new animals came in"),
        ({"kind": "stocking", "species_id": "guppy", "count": -1}, "one was unwell or lost"),
        ({"kind": "ailing", "signs": ["gasping"], "count": 1}, "one was unwell or lost"),
        ({"kind": "ailing", "signs": []}, None),
        ({"kind": "stocking", "species_id": "guppy", "count": -1, "moved": True}, None),
    ],
)
def test_who_comes_falls_ill_or_dies_begins_it_anew(event: dict, anew: str | None) -> None:
    found = in_quarantine(state_of(CHOSEN, BEGUN, (3, event)), NOW)
    assert found is not None
    assert found.answer.begun_again == anew
    assert found.until == NOW + timedelta(days=28 - (3 if anew else 10))


def test_salt_water_takes_longer() -> None:
    fresh = usual_quarantine_days(state_of(CHOSEN))
    salt = usual_quarantine_days(state_of((1, {"kind": "reading", "salinity_g_kg": 35})))
    assert (fresh, salt) == (28, 42)
