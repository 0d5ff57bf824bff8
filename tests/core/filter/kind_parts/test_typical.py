"""What a box of a kind and size usually has."""

import math

import pytest

from reedmace.core.filter.kind_parts.typical import AT_LPH, Typical

SORT = Typical(
    smallest_lph=100,
    largest_lph=2000,
    figures={"media_l": (4.0, 1.0, 0.2), "watts": (10.0, 0.5, 0.1), "noise": (2, 0, 0)},
)


def test_a_figure_follows_its_power_of_the_size() -> None:
    assert SORT.figure("media_l", AT_LPH) == pytest.approx(4.0)
    assert SORT.figure("media_l", 2 * AT_LPH) == pytest.approx(8.0)
    assert SORT.figure("watts", 4 * AT_LPH) == pytest.approx(20.0)
    assert SORT.figure("price", AT_LPH) is None


def test_another_make_is_so_many_spreads_off() -> None:
    generous = SORT.figure("media_l", 800, z=1.5)
    assert generous == pytest.approx(SORT.figure("media_l", 800) * math.exp(0.3))
    assert SORT.spreads_off("media_l", 800, generous) == pytest.approx(1.5)
    assert SORT.spreads_off("price", 800, 99) == 0


@pytest.mark.parametrize(("value", "lph"), [(8.0, 1000), (0.01, 100), (1000.0, 2000)])
def test_the_size_of_a_figure_stays_among_the_sizes_sold(value: float, lph: float) -> None:
    assert SORT.size_of("media_l", value) == pytest.approx(lph)


def test_a_figure_that_does_not_grow_tells_no_size() -> None:
    assert SORT.size_of("noise", 2) == AT_LPH
    with pytest.raises(KeyError):
        SORT.size_of("price", 50)
