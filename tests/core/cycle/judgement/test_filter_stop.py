"""A stopped filter: what it cost, and what is done."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.cycle.judgement.filter_stop import FOUL_AFTER_H, WATCH_DAYS
from reedmace.core.cycle.record.film_losses import GONE_SHARE


def stop(**question: object):
    return compute("filter-stop", question)


@pytest.mark.parametrize(("closed", "half"), [(True, 6), (False, 24)])
def test_film_halves_in_a_closed_body_by_six_hours_and_in_an_open_one_by_a_day(closed: bool, half: float) -> None:
    for times, left in ((1, 0.5), (2, 0.25)):
        answer = stop(closed=closed, hours=half * times, film_share=0.8)
        assert answer.lost_share == pytest.approx(0.8 * (1 - left), abs=1e-6)


def test_a_closed_one_is_rinsed_before_it_runs_from_two_hours_on() -> None:
    assert stop(closed=True, hours=FOUL_AFTER_H, standing=True).first == "Open it, rinse it, then get it running"
    assert stop(closed=True, hours=1.9, standing=True).first == "Get it running"
    assert stop(closed=False, hours=40, standing=True).first == "Get it running"


def test_while_it_stands_the_animals_breath_comes_with_its_hours() -> None:
    soon = stop(standing=True, hours=1, oxygen_h=4.0)
    assert any("short of oxygen in about 3 hours" in step for step in soon.steps)
    late = stop(standing=True, hours=6, oxygen_h=4.0)
    assert any(step.startswith("Air first") for step in late.steps)
    assert not any("oxygen" in step for step in stop(standing=True, animals_in=False).steps)


def test_a_week_is_watched_where_film_was_lost_and_a_fresh_test_makes_it_wait() -> None:
    lost = {"closed": True, "hours": 12}
    assert stop(**lost, since_days=1).urgent
    assert not stop(**lost, since_days=1, tested_days=0.5).urgent
    assert not stop(**lost, since_days=1, animals_in=False).urgent
    assert not stop(**lost, since_days=WATCH_DAYS).over
    assert stop(**lost, since_days=WATCH_DAYS + 0.1).over
    assert stop(closed=True, hours=0.5, since_days=0.1).over


def test_taken_off_its_film_is_gone_whatever_the_hours() -> None:
    answer = stop(taken_off=True, hours=0, film_share=0.5)
    assert answer.lost_share == pytest.approx(0.5 * GONE_SHARE)
    assert "was taken off" in answer.verdict


def test_in_salt_water_what_is_poured_in_is_mixed_first() -> None:
    assert any("own salinity" in step for step in stop(closed=True, hours=12, since_days=1, salt=True).steps)
