"""A year of a room three ways: energy by hand, few tanks against many, what is shared."""

import pytest

from reedmace.core.filter import RoomYearQuestion
from reedmace.core.filter.choice.fish_room_year import room_year
from reedmace.core.filter.typical import typical_medians


def ways(*litres: float, price: float = 0.3):
    return {w.way: w for w in room_year(RoomYearQuestion(tanks_l=list(litres), price_per_kwh=price)).ways}


def test_energy_and_money_are_watts_and_the_price_by_hand() -> None:
    for one in ways(54, 54, 31, price=0.4).values():
        assert one.kwh_year == pytest.approx(one.watts * 8.766)
        assert one.year_money == pytest.approx(one.kwh_year * 0.4)
        assert one.first_year_money == pytest.approx(one.buy_money + one.year_money)


def test_one_tank_of_each_way_is_the_cheapest_usual_box_that_does() -> None:
    usual = typical_medians().filters
    driven = (f for f in usual if f.kind in ("sponge", "box", "sheet") and f.air_l_min and f.tank_up_to_l >= 54)
    cheapest = min(driven, key=lambda f: (f.price, f.id))
    air = ways(54)["air"]
    assert air.buy_money == pytest.approx(cheapest.price + 8 + 4 * 1.3 * cheapest.air_l_min)
    rim = min(
        (f for f in usual if f.kind == "hang-on" and f.box_lph >= 270),
        key=lambda f: (f.price, f.id),
    )
    assert (ways(54)["rim"].buy_money, ways(54)["rim"].watts) == (rim.price, rim.watts)


def test_many_tanks_need_one_socket_on_air_and_one_each_on_boxes() -> None:
    found = ways(*[40] * 30)
    assert found["air"].sockets_count == 1
    assert found["rim"].sockets_count == 30
    assert found["air"].watts < found["rim"].watts
    assert found["air"].first_year_money < found["rim"].first_year_money


def test_only_the_sump_shares_its_water_and_a_boxs_failure_takes_one_tank() -> None:
    found = ways(60, 60, 60, 60)
    assert found["sump"].disease.startswith("Shared")
    assert not found["air"].disease.startswith("Shared")
    assert found["rim"].one_failure.startswith("One tank")


@pytest.mark.parametrize("more", [1, 5, 40])
def test_more_tanks_never_cost_or_ask_less(more: int) -> None:
    few, many = ways(50, 90), ways(50, 90, *[40] * more)
    for way in few:
        assert many[way].buy_money >= few[way].buy_money
        assert many[way].hours_year >= few[way].hours_year
