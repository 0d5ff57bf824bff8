"""How well a filter strains as packed."""

import pytest

from reedmace.core.filter.media.basket import Basket
from reedmace.core.filter.media.straining import straining
from reedmace.core.flow.materials import MediaKind


def packed(*media: MediaKind, usual: float = 0.7) -> float:
    return straining(usual, [Basket(media=m, litres=1) for m in media])


def test_finer_foam_strains_more_and_nothing_strains_more_than_all() -> None:
    finer = [packed(m) for m in ("foam-10", "foam-20", "foam-30", "floss")]
    assert finer == sorted(finer)
    assert packed("floss", usual=0.95) == 1.0


def test_rings_alone_strain_little_and_before_the_foam_they_clog() -> None:
    assert packed("ceramic-rings") == pytest.approx(0.25 * 0.7)
    assert packed("ceramic-rings", "foam-20") == pytest.approx(0.8 * packed("foam-20", "ceramic-rings"))


@pytest.mark.parametrize("fault", [{"bagged": True}, {"seated": False}])
def test_a_foam_left_in_its_bag_or_beside_its_seat_strains_nothing(fault: dict) -> None:
    useless = straining(0.7, [Basket(media="foam-30", litres=1, **fault)])
    assert useless == pytest.approx(0.25 * 0.7)
