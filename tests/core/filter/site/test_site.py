"""Where a filter stands, and what matters there."""

import pytest

from reedmace.core.filter.site.site import (
    MANY_TANKS,
    SOME_TANKS,
    SUMP_FROM_L,
    YOUNG_SAFE,
    Plumbing,
    Priorities,
    Site,
    default_priorities,
)
from tests.support.ranking import ROOM


def site(**changes) -> Site:
    return Site.model_validate({**ROOM, **changes})


def test_where_people_sleep_it_is_quiet_and_where_many_tanks_stand_it_is_cheap() -> None:
    assert default_priorities(site(kind="bedroom")).quiet == 5
    rack = default_priorities(site(kind="fish-room", tanks_here_count=MANY_TANKS))
    assert (rack.quiet, rack.price, rack.running_cost) == (0, 5, 4)
    assert default_priorities(site(tanks_here_count=SOME_TANKS)).easy_clean == 5


@pytest.mark.parametrize(
    ("changes", "what", "weight"),
    [({"often_away": True}, "power_cut", 5), ({"water": "salt"}, "expandable", 5), ({"co2": "by-day"}, "hidden", 4),
     ({"drilled": True, "net_l": SUMP_FROM_L}, "expandable", 4),
     ({"drilled": True, "net_l": SUMP_FROM_L - 1}, "expandable", 0)],
)  # fmt: skip
def test_what_is_known_of_a_place_weighs(changes: dict, what: str, weight: int) -> None:
    assert getattr(default_priorities(site(**changes)), what) == weight


def test_young_are_safe_whatever_the_room() -> None:
    for kind in ("bedroom", "living", "workshop", "shop", "fish-room"):
        assert default_priorities(site(kind=kind), has_young=True).young_safe == YOUNG_SAFE
    assert default_priorities(site()).young_safe == Priorities().young_safe


def test_air_is_shared_where_several_tanks_stand_unless_this_one_has_its_own() -> None:
    assert not site().air_shared
    assert site(tanks_here_count=2).air_shared
    assert not site(tanks_here_count=2, air_own=True).air_shared


def test_plumbing_as_usual_has_a_strainer_and_a_spray_bar_under_water() -> None:
    usual = Plumbing()
    assert {f.kind for f in usual.fittings} >= {"strainer", "spray-bar", "quick-valve"}
    assert usual.outlet_above_water_cm < 0
    # Two plans never share one list.
    assert usual.fittings is not Plumbing().fittings
