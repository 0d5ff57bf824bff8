"""CIEDE2000 on the published test pairs of Sharma, Wu and Dalal (2005), table 1; CIELAB on known colours."""

from itertools import pairwise

import colour
import numpy as np
import pytest

from reedmace.core.vial.colour import D65, PAPER_Y, RGB_TO_XYZ, Lab, ciede2000, lab_of_xyz, linear, seen_under

PAIRS = [
    ((50, 2.6772, -79.7751), (50, 0, -82.7485), 2.0425),
    ((50, 3.1571, -77.2803), (50, 0, -82.7485), 2.8615),
    ((50, 2.8361, -74.0200), (50, 0, -82.7485), 3.4412),
    ((50, -1.3802, -84.2814), (50, 0, -82.7485), 1.0000),
    ((50, -1.1848, -84.8006), (50, 0, -82.7485), 1.0000),
    ((50, -0.9009, -85.5211), (50, 0, -82.7485), 1.0000),
    ((50, 0, 0), (50, -1, 2), 2.3669),
    ((50, -1, 2), (50, 0, 0), 2.3669),
    ((50, 2.4900, -0.0010), (50, -2.4900, 0.0009), 7.1792),
    ((50, 2.4900, -0.0010), (50, -2.4900, 0.0010), 7.1792),
    ((50, 2.4900, -0.0010), (50, -2.4900, 0.0011), 7.2195),
    ((50, 2.4900, -0.0010), (50, -2.4900, 0.0012), 7.2195),
    ((50, -0.0010, 2.4900), (50, 0.0009, -2.4900), 4.8045),
    ((50, -0.0010, 2.4900), (50, 0.0010, -2.4900), 4.8045),
    ((50, -0.0010, 2.4900), (50, 0.0011, -2.4900), 4.7461),
    ((50, 2.5, 0), (50, 0, -2.5), 4.3065),
    ((50, 2.5, 0), (73, 25, -18), 27.1492),
    ((50, 2.5, 0), (61, -5, 29), 22.8977),
    ((50, 2.5, 0), (56, -27, -3), 31.9030),
    ((50, 2.5, 0), (58, 24, 15), 19.4535),
    ((50, 2.5, 0), (50, 3.1736, 0.5854), 1.0000),
    ((50, 2.5, 0), (50, 3.2972, 0), 1.0000),
    ((50, 2.5, 0), (50, 1.8634, 0.5757), 1.0000),
    ((50, 2.5, 0), (50, 3.2592, 0.3350), 1.0000),
    ((60.2574, -34.0099, 36.2677), (60.4626, -34.1751, 39.4387), 1.2644),
    ((63.0109, -31.0961, -5.8663), (62.8187, -29.7946, -4.0864), 1.2630),
    ((61.2901, 3.7196, -5.3901), (61.4292, 2.2480, -4.9620), 1.8731),
    ((35.0831, -44.1164, 3.7933), (35.0232, -40.0716, 1.5901), 1.8645),
    ((22.7233, 20.0904, -46.6940), (23.0331, 14.9730, -42.5619), 2.0373),
    ((36.4612, 47.8580, 18.3852), (36.2715, 50.5065, 21.2231), 1.4146),
    ((90.8027, -2.0831, 1.4410), (91.1528, -1.6435, 0.0447), 1.4441),
    ((90.9257, -0.5406, -0.9208), (88.6381, -0.8985, -0.7239), 1.5381),
    ((6.7747, -0.2908, -2.4247), (5.8714, -0.0985, -2.2286), 0.6377),
    ((2.0776, 0.0795, -1.1350), (0.9033, -0.0636, -0.5514), 0.9082),
]


@pytest.mark.parametrize(("one", "other", "distance"), PAIRS)
def test_the_published_pairs_come_out_to_four_places(one, other, distance: float) -> None:
    assert ciede2000(Lab(*one), Lab(*other)) == pytest.approx(distance, abs=5e-5)
    assert ciede2000(Lab(*other), Lab(*one)) == pytest.approx(distance, abs=5e-5)


def test_srgb_primaries_in_cielab() -> None:
    # Well-known values under D65, to the places they are usually given in.
    for rgb, lab in (((255, 0, 0), (53.24, 80.09, 67.20)), ((0, 0, 255), (32.30, 79.19, -107.86))):
        found = lab_of_xyz(linear(np.array(rgb)) @ RGB_TO_XYZ.T)
        assert found == pytest.approx(lab, abs=0.02)


def test_the_lamp_is_taken_out_by_the_cards_white() -> None:
    colours = np.array([[0.5, 0.3, 0.2], [0.1, 0.4, 0.3]])
    warm = np.array([1.0, 0.75, 0.45])
    plain, under_lamp = seen_under(colours, np.ones(3)), seen_under(colours * warm, warm)
    assert np.abs(plain - under_lamp).max() < 9
    assert seen_under(warm, warm) == pytest.approx(lab_of_xyz(D65 * PAPER_Y), abs=1e-6)


def test_a_general_colour_library_finds_the_same() -> None:
    # colour-science 0.4: CIELAB under D65, CIEDE2000, and the Bradford adaptation to a lamp's white.
    rng = np.random.default_rng(11)
    rgb = rng.uniform(0.02, 0.9, (200, 3))
    xyz = rgb @ RGB_TO_XYZ.T
    white = colour.XYZ_to_xy(D65)
    theirs = colour.XYZ_to_Lab(xyz, white)
    assert np.allclose(lab_of_xyz(xyz), theirs, atol=0.05)
    ours = [ciede2000(Lab(*a), Lab(*b)) for a, b in pairwise(theirs)]
    assert np.allclose(ours, colour.delta_E(theirs[:-1], theirs[1:], method="CIE 2000"), atol=1e-6)
    lamp = np.array([1.0, 0.8, 0.55])
    adapted = colour.chromatic_adaptation(xyz, RGB_TO_XYZ @ lamp, D65, method="Von Kries", transform="Bradford")
    assert np.allclose(seen_under(rgb, lamp), colour.XYZ_to_Lab(adapted * PAPER_Y, white), atol=0.05)
