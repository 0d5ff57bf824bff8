"""Baskets a filter is packed with."""

import pytest

from reedmace.core.filter.media.basket import (
    LEAST_BASKET_L,
    USUAL_MEDIA,
    Basket,
    next_basket,
    next_baskets,
    usual_packing,
)


def test_three_thirds_fill_it_in_the_order_the_water_meets_them() -> None:
    packed = next_baskets([], 6.0)
    assert [b.media for b in packed] == list(USUAL_MEDIA)
    assert sum(b.litres for b in packed) == pytest.approx(6.0)


def test_a_further_basket_takes_what_is_left_and_a_full_filter_hardly_anything() -> None:
    large = [Basket(media="foam-20", litres=5.5)]
    assert next_basket(large, 6.0).litres == pytest.approx(0.5)
    assert next_basket([Basket(media="foam-20", litres=9)], 6.0).litres == LEAST_BASKET_L
    # The last of the usual media is repeated.
    assert next_basket([*next_baskets([], 6.0), *large], 20.0).media == USUAL_MEDIA[-1]


def test_a_kinds_usual_media_share_the_room_alike() -> None:
    assert [b.litres for b in usual_packing(("foam-10", "foam-20", "floss"), 3.0)] == [1, 1, 1]
    assert usual_packing((), 3.0) == []
