"""What kills filter bacteria, by hand-worked shares and days."""

from dataclasses import FrozenInstanceError
from typing import Any

import pytest

from reedmace.core.cycle.record.film_losses import Loss, airless_share, film_losses, stopped_film
from reedmace.core.cycle.record.log import CycleLog


def log(**more: Any) -> CycleLog:
    return CycleLog.model_validate({"net_l": 100, "day_now": 20, "start_ph": 7.6, "start_kh_dkh": 5, **more})


def only_loss(**more: Any) -> Loss:
    (found,) = film_losses(log(**more))
    return found


def is_loss(found: Loss, day: float, share: float, what: str) -> bool:
    """Whether a loss is this one, with its share to nine figures."""
    return (found.day, found.what) == (day, what) and found.share == pytest.approx(share)


@pytest.mark.parametrize(
    ("hours", "closed", "share"),
    [(0, True, 0), (6, True, 0.5), (12, True, 0.75), (3, True, 0.29289), (24, False, 0.5), (6, False, 0.15910)],
)
def test_half_is_lost_in_six_hours_closed_and_in_a_day_open(hours: float, closed: bool, share: float) -> None:
    assert airless_share(hours, closed) == pytest.approx(share, abs=1e-5)


def test_a_stop_is_lost_when_it_ends_and_counts_for_what_stood_still() -> None:
    loss = only_loss(outages=[{"day": 3, "hours": 12, "share": 0.4, "closed": True}])
    assert (loss.day, loss.share) == pytest.approx((3.5, 0.3))
    assert loss.what == "the closed filter stood still for 12 hours"


def test_an_open_stop_says_so_and_the_logs_own_filter_answers_where_nothing_is_said() -> None:
    opened = only_loss(outages=[{"day": 3, "hours": 36, "closed": False}])
    assert is_loss(opened, 4.5, 1 - 0.5**1.5, "the filter stood still for 36 hours")
    closed = only_loss(filter_closed=True, outages=[{"day": 3, "hours": 6}])
    assert (closed.share, closed.what) == (pytest.approx(0.5), "the closed filter stood still for 6 hours")
    assert only_loss(filter_closed=False, outages=[{"day": 3, "hours": 24}]).share == pytest.approx(0.5)


@pytest.mark.parametrize(
    ("what", "share", "words"),
    [
        ("replaced", 0.45, "media were replaced"),
        ("dried", 0.45, "media dried out"),
        ("taken-off", 0.45, "a filter was taken off"),
        ("rinsed-tank-water", 0.05, "media were rinsed in tank water"),
    ],
)
def test_media_touched_lose_their_part(what: str, share: float, words: str) -> None:
    assert is_loss(only_loss(media=[{"day": 7, "what": what, "share": 0.5}]), 7, share, words)


@pytest.mark.parametrize(
    ("chlorine", "rinsed", "changed"),
    [("chlorine", 0.3, 0.36), ("chloramine", 0.3, 0.36), ("unknown", 0.2, 0.24)],
)
def test_tap_water_kills_by_its_disinfectant(chlorine: str, rinsed: float, changed: float) -> None:
    tap = {"chlorine": chlorine}
    assert only_loss(tap=tap, media=[{"day": 7, "what": "rinsed-tap", "share": 0.5}]).share == pytest.approx(rinsed)
    loss = only_loss(tap=tap, changes=[{"day": 6, "share": 0.4, "treated": False}])
    assert is_loss(loss, 6, changed, "40% of the water was changed untreated")


def test_tap_water_without_chlorine_kills_nothing() -> None:
    tap = {"chlorine": "none"}
    assert only_loss(tap=tap, media=[{"day": 7, "what": "rinsed-tap", "share": 0.5}]).share == 0
    assert film_losses(log(tap=tap, changes=[{"day": 6, "share": 0.4, "treated": False}])) == []


def test_a_treated_change_kills_nothing_and_a_whole_untreated_one_no_more_than_nine_tenths() -> None:
    tap = {"chlorine": "chlorine"}
    assert film_losses(log(tap=tap, changes=[{"day": 6, "share": 0.9}])) == []
    whole = only_loss(tap=tap, changes=[{"day": 6, "share": 1, "treated": False}])
    assert whole.share == pytest.approx(0.9)
    # A capful less than a whole one is still under the cap only where the sum says so.
    assert only_loss(tap={"chlorine": "unknown"}, changes=[{"day": 6, "share": 1, "treated": False}]).share == (
        pytest.approx(0.6)
    )


def degrees(*pairs: tuple[float, float]) -> dict[str, Any]:
    return {"readings": [{"day": day, "temperature_c": warm} for day, warm in pairs]}


def test_heat_from_thirty_six_degrees_on_kills_half() -> None:
    assert film_losses(log(**degrees((2, 35.9)))) == []
    assert only_loss(**degrees((2, 36))) == Loss(2, 0.5, "the water stood at 36 °C")
    assert only_loss(**degrees((2, 38.5))).share == 0.5


def test_a_fall_of_ten_degrees_from_reading_to_reading_kills_a_fifth() -> None:
    assert film_losses(log(**degrees((2, 25), (3, 15.1)))) == []
    assert only_loss(**degrees((2, 25), (3, 15))) == Loss(3, 0.2, "the water fell from 25 to 15 °C")
    assert only_loss(**degrees((2, 30), (3, 12))).share == 0.2
    # Readings count by their day, in whatever order they were written.
    assert only_loss(**degrees((3, 12), (2, 30))).day == 3
    assert film_losses(log(**degrees((2, 12), (3, 30)))) == []


def test_water_that_falls_from_heat_to_heat_is_hot_both_times_and_no_cold_shock() -> None:
    found = film_losses(log(**degrees((2, 39.9), (3, 36))))
    assert [(loss.day, loss.share) for loss in found] == [(2, 0.5), (3, 0.5)]
    boiled = film_losses(log(readings=[{"day": 2, "temperature_c": 40}, {"day": 3, "temperature_c": 30}]))
    assert [(loss.day, loss.share) for loss in boiled] == [(2, 0.5), (3, 0.2)]


def test_losses_stand_in_the_order_of_their_days() -> None:
    found = film_losses(
        log(
            tap={"chlorine": "chlorine"},
            outages=[{"day": 9, "hours": 24, "closed": False}],
            media=[{"day": 4, "what": "replaced", "share": 1}],
            changes=[{"day": 2, "share": 0.2, "treated": False}],
            **degrees((1, 37)),
        )
    )
    assert [loss.day for loss in found] == [1, 2, 4, 10]
    assert film_losses(log()) == []


def test_a_loss_cannot_be_changed() -> None:
    with pytest.raises(FrozenInstanceError):
        only_loss(**degrees((1, 37))).share = 0.1  # type: ignore[misc]


@pytest.mark.parametrize(
    ("figure", "start", "least", "words"),
    [("ph", {"start_ph": 7.2}, 6.5, "pH fell to 6.4"), ("kh_dkh", {"start_kh_dkh": 3}, 1.0, "KH fell to 0.9")],
)
def test_film_stops_where_ph_or_kh_falls_under_its_bound_for_the_first_time(
    figure: str, start: dict[str, float], least: float, words: str
) -> None:
    low = round(least - 0.1, 1)

    def read(*values: float) -> list[Loss]:
        rows = [{"day": day, figure: value} for day, value in enumerate(values, start=1)]
        return stopped_film(log(**start, readings=rows))

    assert read(least) == []
    assert read(low) == [Loss(1, 1.0, words)]
    assert [loss.day for loss in read(least, low)] == [2]
    assert [loss.day for loss in read(low, low)] == [1]
    assert [loss.day for loss in read(low, least + 1, low)] == [1, 3]


def test_a_tank_that_began_sour_and_soft_did_not_fall() -> None:
    rows = [{"day": 1, "ph": 6.0, "kh_dkh": 0.5}]
    assert stopped_film(log(start_ph=6.2, start_kh_dkh=0.6, readings=rows)) == []
    # Each is held against its own start.
    assert [loss.what for loss in stopped_film(log(start_ph=6.2, start_kh_dkh=7, readings=rows))] == ["KH fell to 0.5"]
    assert [loss.what for loss in stopped_film(log(start_ph=7.2, start_kh_dkh=0.6, readings=rows))] == ["pH fell to 6"]


def test_both_falls_are_told_by_day() -> None:
    rows = [{"day": 5, "ph": 6.0}, {"day": 3, "kh_dkh": 0.5}]
    assert [loss.day for loss in stopped_film(log(readings=rows))] == [3, 5]
