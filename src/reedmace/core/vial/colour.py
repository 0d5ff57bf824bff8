"""Colours of a picture in CIELAB, and the distance between two as people see it."""

import math
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

Floats = NDArray[np.float64]

RGB_TO_XYZ: Floats = np.array(
    [[0.4124564, 0.3575761, 0.1804375], [0.2126729, 0.7151522, 0.0721750], [0.0193339, 0.1191920, 0.9503041]]
)
"""Linear sRGB to XYZ, D65 (IEC 61966-2-1)."""
D65: Floats = np.array([0.95047, 1.0, 1.08883])
BRADFORD: Floats = np.array([[0.8951, 0.2664, -0.1614], [-0.7502, 1.7135, 0.0367], [0.0389, -0.0685, 1.0296]])
"""XYZ to the cone responses of the Bradford adaptation (Lam 1985, as in CIE 160:2004)."""
PAPER_Y = 0.9
"""Luminance of a card's white relative to a perfect one (memory)."""


class Lab(NamedTuple):
    """A colour in CIELAB: lightness, red over green, yellow over blue."""

    L: float
    a: float
    b: float


def linear(rgb: Floats) -> Floats:
    """Linear sRGB, 0 to 1. rgb: 0 to 255, of any shape whose last axis is the three channels."""
    share = np.asarray(rgb, dtype=float) / 255
    return np.where(share <= 0.04045, share / 12.92, ((share + 0.055) / 1.055) ** 2.4)


def seen_under(rgb: Floats, white: Floats) -> Floats:
    """CIELAB of linear sRGB colours as they look under daylight.

    rgb: linear, last axis the channels; white: linear sRGB of the card's white in the same picture, every channel
    over 0. The light of the picture is taken out by the Bradford adaptation.
    """
    lamp = RGB_TO_XYZ @ white
    scale = (BRADFORD @ D65) / (BRADFORD @ lamp) * PAPER_Y
    to_daylight = np.linalg.inv(BRADFORD) @ np.diag(scale) @ BRADFORD @ RGB_TO_XYZ
    return lab_of_xyz(np.maximum(rgb @ to_daylight.T, 0.0))


def lab_of_xyz(xyz: Floats) -> Floats:
    """CIELAB of XYZ under D65 (CIE 15).

    xyz: last axis X, Y, Z, white at D65.

    >>> [round(float(v), 2) for v in lab_of_xyz(D65)]
    [100.0, 0.0, 0.0]
    """
    share = xyz / D65
    cube = np.where(share > (6 / 29) ** 3, np.cbrt(share), share / (3 * (6 / 29) ** 2) + 4 / 29)
    fx, fy, fz = np.moveaxis(cube, -1, 0)
    return np.stack([116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)], axis=-1)


def ciede2000(one: Lab, other: Lab) -> float:
    """Colour difference CIEDE2000, kL = kC = kH = 1; about 1 is just seen.

    one, other: the colours, in any order, with L from 0 to 100.
    Source: Sharma, Wu and Dalal (2005), whose test pairs it is checked on.

    >>> round(ciede2000(Lab(50, 2.6772, -79.7751), Lab(50, 0, -82.7485)), 4)
    2.0425
    """
    chroma_mean = (math.hypot(one.a, one.b) + math.hypot(other.a, other.b)) / 2
    stretch = 1 + 0.5 * (1 - math.sqrt(chroma_mean**7 / (chroma_mean**7 + 25**7)))
    c1, h1 = _polar(one.a * stretch, one.b)
    c2, h2 = _polar(other.a * stretch, other.b)
    turn = _turn(h1, h2) if c1 * c2 else 0.0
    d_hue = 2 * math.sqrt(c1 * c2) * math.sin(math.radians(turn) / 2)
    hue = _mean_hue(h1, h2) if c1 * c2 else h1 + h2
    light, chroma = (one.L + other.L) / 2, (c1 + c2) / 2
    t = (
        1
        - 0.17 * _cos(hue - 30)
        + 0.24 * _cos(2 * hue)
        + 0.32 * _cos(3 * hue + 6)
        - 0.20 * _cos(4 * hue - 63)
    )  # fmt: skip
    s_light = 1 + 0.015 * (light - 50) ** 2 / math.sqrt(20 + (light - 50) ** 2)
    s_chroma, s_hue = 1 + 0.045 * chroma, 1 + 0.015 * chroma * t
    rotation = -2 * math.sqrt(chroma**7 / (chroma**7 + 25**7))
    rotation *= math.sin(math.radians(60 * math.exp(-(((hue - 275) / 25) ** 2))))
    parts = ((other.L - one.L) / s_light, (c2 - c1) / s_chroma, d_hue / s_hue)
    return math.sqrt(max(sum(p * p for p in parts) + rotation * parts[1] * parts[2], 0.0))


def _polar(a: float, b: float) -> tuple[float, float]:
    return math.hypot(a, b), math.degrees(math.atan2(b, a)) % 360 if a or b else 0.0


def _turn(h1: float, h2: float) -> float:
    """From one hue to the other by the shorter way, degrees."""
    return (h2 - h1 + 180) % 360 - 180 if abs(h2 - h1) != 180 else h2 - h1


def _mean_hue(h1: float, h2: float) -> float:
    if abs(h1 - h2) <= 180:
        return (h1 + h2) / 2
    return (h1 + h2 + 360) / 2 if h1 + h2 < 360 else (h1 + h2 - 360) / 2


def _cos(degrees: float) -> float:
    return math.cos(math.radians(degrees))
