"""Cleaning a filter, and what it costs of its film."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.film import SQUEEZED_SHARE
from reedmace.core.filter.kinds import KINDS, kind_of


@pytest.mark.parametrize("name", [kind.name for kind in KINDS])
def test_each_kind_is_cleaned_by_its_own_steps_and_loses_a_tenth_of_what_is_touched(name: str) -> None:
    answer = compute("care-steps", {"kind": name, "film_share": 0.5, "load_mg_n_day": 80})
    care = kind_of(name).care
    assert (answer.title, answer.minutes) == (care.title, care.minutes)
    assert [s.id for s in answer.steps] == [s.id for s in care.steps]
    assert answer.lost_mg_n_day == pytest.approx(0.5 * care.share * SQUEEZED_SHARE * 80)
    assert answer.left_share == pytest.approx(1 - 0.5 * care.share * SQUEEZED_SHARE)


def test_a_part_is_due_by_its_own_age_and_a_new_one_is_not() -> None:
    old = {w.part: w for w in compute("care-steps", {"kind": "canister", "age_days": 1500}).worn}
    assert {name for name, w in old.items() if w.due} == {"O-ring", "impeller and shaft"}
    changed = compute("care-steps", {"kind": "canister", "age_days": 1500, "part_ages_days": {"O-ring": 20}}).worn
    ring = next(w for w in changed if w.part == "O-ring")
    assert (ring.age_days, ring.due) == (20, False)
