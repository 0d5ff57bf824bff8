"""An account as the rest of the program sees it."""

import pytest

from reedmace.store.keepers import GUEST, VISITOR, Keeper


@pytest.mark.parametrize(
    ("email", "visiting", "guest"),
    [(f"{VISITOR}ab12", True, False), (f"{GUEST}ab12", False, True), ("guest@yard.example", False, False)],
)
def test_visits_and_guests_are_told_by_what_no_address_starts_with(email: str, visiting: bool, guest: bool) -> None:
    keeper = Keeper(1, email)
    assert (keeper.visiting, keeper.guest) == (visiting, guest)
