"""Hard limits: each is lifted by the remedy it names."""

from typing import Any

import numpy as np
import pytest

from reedmace.core.filter.choice.limits import Requirement, enough_by_film, limits_of
from reedmace.core.filter.filter_table import film_m2, table_of
from reedmace.core.filter.site.site import Site
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from tests.support.ranking import ROOM

TABLE = table_of(SAMPLE_BOXES)
SITE = Site.model_validate(ROOM)
ASKED = Requirement(sizing="community", low_lph=300.0, film_m2=0.5)
FLOW = np.full(len(TABLE), 500.0)


def limits(site: Site = SITE, asked: Requirement = ASKED, flow: np.ndarray = FLOW):
    return limits_of(TABLE, site, asked, flow, flow, film_m2(TABLE))


def test_what_a_single_input_lifts_is_lifted_by_the_figure_it_asks_for() -> None:
    cramped = SITE.model_copy(update={"beneath_cm": 5.0, "behind_cm": 1.0, "sockets": 0})
    for at, limit in enumerate(limits(cramped)):
        for i in np.flatnonzero(limit.broken):
            assert limit.reason(i)
            assert limit.remedy(i)
            if limit.key is None or limit.need is None or limit.key not in Site.model_fields:
                continue
            kind = type(getattr(cramped, limit.key))
            roomy = cramped.model_copy(update={limit.key: kind(limit.need[i])})
            assert not limits(roomy)[at].broken[i], limit.reason(i)


@pytest.mark.parametrize(("share", "let_in"), [(0.72, True), (0.68, False)])
def test_seven_tenths_of_the_flow_asked_are_let_pass(share: float, let_in: bool) -> None:
    asked = Requirement(sizing="goldfish", low_lph=500.0 / share, film_m2=0.0)
    slow = limits(asked=asked)[-1]
    assert "moves only" in slow.reason(0)
    assert slow.broken.any() != let_in


def test_as_many_as_are_named_carry_together_what_one_does_not() -> None:
    asked = Requirement(sizing="community", low_lph=300.0, film_m2=40.0)
    film = film_m2(TABLE)
    (short,) = [limit for limit in limits(asked=asked) if limit.count is not None and "carries" in limit.reason(0)]
    for i in np.flatnonzero(short.broken):
        count = short.count(i)
        assert count * film[i] + SITE.film_here_m2 >= asked.film_m2 - 1e-9
        assert (count - 1) * film[i] + SITE.film_here_m2 < asked.film_m2


def test_film_excuses_slow_water_only_of_small_clean_animals_in_fresh_water() -> None:
    def admitted(site: Site = SITE, **changes: Any) -> bool:
        usual: dict[str, Any] = {"sizing": "community", "low_lph": 900.0, "film_m2": 1.0}
        asked = Requirement(**{**usual, **changes})
        flow, film = np.array([200.0]), np.array([5.0])
        return bool(enough_by_film(site, flow, film, asked)[0])

    assert admitted()
    assert not admitted(film_m2=50.0)
    assert not admitted(coarse=True)
    assert not admitted(SITE.model_copy(update={"water": "salt"}))
    assert not admitted(SITE.model_copy(update={"net_l": 500.0}))
