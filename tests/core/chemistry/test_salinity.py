"""Fresh, brackish and marine water."""

import pytest

from reedmace.core.chemistry.salinity import FRESH_MOST_G_KG, MARINE_FROM_G_KG, has_salt, is_fresh, is_marine


@pytest.mark.parametrize(
    ("g_kg", "salted", "fresh", "marine"),
    [
        (0.0, False, True, False),
        (0.5, False, True, False),
        (0.51, True, True, False),
        (FRESH_MOST_G_KG, True, True, False),
        (FRESH_MOST_G_KG + 0.01, True, False, False),
        (MARINE_FROM_G_KG, True, False, False),
        (MARINE_FROM_G_KG + 0.01, True, False, True),
        (35.0, True, False, True),
    ],
)
def test_each_class_ends_where_the_next_begins(g_kg: float, salted: bool, fresh: bool, marine: bool) -> None:
    assert (has_salt(g_kg), is_fresh(g_kg), is_marine(g_kg)) == (salted, fresh, marine)
