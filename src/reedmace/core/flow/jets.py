"""Jets and the circulation they drive: lengths, shares and speeds of moving water."""

import math
from collections.abc import Sequence
from typing import NamedTuple

from reedmace.core.root_finding import root_between

LEAST_BODY_CM = 2.0
"""Shortest length used; smaller animals hold on to something or live in slow layers (memory)."""


CALM_ASKED = 0.5
"""Share of calm water required for every species (memory)."""


ROUND, PLANE = 6.2, 2.28
"""Decay of the speed along a jet: U/U0 = 6.2 D/x round, 2.28 √(b/x) plane (Albertson et al. 1950)."""


ROUND_HALF, PLANE_HALF = 0.094, 0.10
"""Half-width over distance of the two jets, where the speed is half of the centre's (Pope 2000, memory)."""


DRAG = 0.1
"""Drag coefficient of a tank's wet walls against its circulation (form: Oca and Masalo 2007; the value from memory)."""


MOST_SHARE = 50.0


GLASS_SHARE = 0.5
"""Share of a jet's momentum left after it is turned against the glass (memory)."""


SETTLES_CM_S = 2.0
"""Speed near the bed below which dirt settles (memory)."""


class Opening(NamedTuple):
    """One outlet.

    Its flow in m³/s through `holes` round holes of `bore_m`, in a row of `row_m`; what its impulse is worth; how far a
    nozzle blows before it meets glass, 0 for the whole length.
    """

    flow_m3s: float
    bore_m: float
    holes: int = 1
    row_m: float = 0.0
    worth: float = 1.0
    way_m: float = 0.0

    @property
    def speed_m_s(self) -> float:
        """Speed in the opening, m/s."""
        return self.flow_m3s / (math.pi / 4 * self.bore_m**2 * self.holes)


class Basin(NamedTuple):
    """The water as a box, in m."""

    length_m: float
    width_m: float
    depth_m: float

    @property
    def volume_m3(self) -> float:
        """Volume, m³."""
        return self.length_m * self.width_m * self.depth_m

    @property
    def wet_m2(self) -> float:
        """Area of walls and bottom, m²."""
        return 2 * (self.length_m + self.width_m) * self.depth_m + self.length_m * self.width_m


def circulation_m_s(openings: Sequence[Opening], basin: Basin) -> float:
    """Mean speed of the circulation, m/s.

    openings: its outlets; basin: its water. Solves Σ Q (U0 − V) = Ct A V² / 2 for V.
    Source: Oca and Masalo 2007 for the form; Ct from memory.
    """
    flow = sum(o.flow_m3s for o in openings)
    impulse = sum(o.flow_m3s * o.speed_m_s * o.worth for o in openings)
    drag = DRAG * basin.wet_m2
    return (-flow + math.sqrt(flow**2 + 2 * drag * impulse)) / drag if impulse > 0 else 0.0


def jet_m3(opening: Opening, over_m_s: float, basin: Basin) -> float:
    """Water in an outlet's jets that moves faster than `over_m_s`, m³.

    opening: the outlet; over_m_s: m/s; basin: the jets end at its far glass. Speeds fall across a jet as a bell curve.
    Source: Albertson et al. 1950 for the speed along the middle, Pope 2000 for the widths (memory).
    """
    out = opening.speed_m_s * math.sqrt(opening.worth)
    if out <= over_m_s:
        return 0.0
    if opening.holes == 1 or opening.row_m <= 0:
        reach = ROUND * opening.bore_m * out / over_m_s
        way = min(reach, opening.way_m or basin.length_m)
        inside = way**3 / 3 * math.log(reach / way) + way**3 / 9
        return opening.holes * math.pi * ROUND_HALF**2 / math.log(2) * inside
    # Jets of holes in a row have merged into a plane jet long before the far glass.
    slot = math.pi / 4 * opening.bore_m**2 * opening.holes / opening.row_m
    reach = slot * (PLANE * out / over_m_s) ** 2
    way = min(reach, basin.width_m)
    least = math.log(reach / way)
    whole_jet = 2**-1.5 * math.gamma(1.5) * reach**2
    return 2 * PLANE_HALF * math.sqrt(0.5 / math.log(2)) * opening.row_m * whole_jet * _beyond(2 * least)


def _beyond(x: float) -> float:
    """The upper incomplete gamma function of 3/2 over the whole.

    x: from 0 up, dimensionless. Source: Abramowitz and Stegun 1964, 6.5.
    """
    return math.erfc(math.sqrt(x)) + 2 * math.sqrt(x / math.pi) * math.exp(-x)


def jet_cm(opening: Opening, over_m_s: float, basin: Basin) -> tuple[float, float]:
    """Distance an outlet's jet stays faster than `over_m_s`, and its half-width there, cm.

    opening: the outlet; over_m_s: m/s, over 0; basin: the jet ends at its far glass. Source: as `jet_m3`.
    """
    out = opening.speed_m_s * math.sqrt(opening.worth)
    if out <= over_m_s:
        return 0.0, 0.0
    if opening.holes == 1 or opening.row_m <= 0:
        way = min(ROUND * opening.bore_m * out / over_m_s, opening.way_m or basin.length_m)
        return 100 * way, 100 * ROUND_HALF * way
    slot = math.pi / 4 * opening.bore_m**2 * opening.holes / opening.row_m
    way = min(slot * (PLANE * out / over_m_s) ** 2, basin.width_m)
    return 100 * way, 100 * PLANE_HALF * way


def rest_share(turning_m_s: float, comfort_m_s: float) -> float:
    """Share of the circulating water, without jets, slower than `comfort_m_s`. turning_m_s, comfort_m_s: m/s.

    >>> round(rest_share(0.1, 0.05), 4)
    0.25
    """
    return min(comfort_m_s / (2 * turning_m_s), 1.0) if turning_m_s > 0 else 1.0


def calm_share(openings: Sequence[Opening], basin: Basin, comfort_m_s: float) -> float:
    """Share of the water slower than `comfort_m_s`.

    openings: its outlets; basin: its water; comfort_m_s: m/s. Outside the jets speeds lie evenly between nothing, in
    the middle of the turning water, and twice its mean (memory).
    """
    turning = circulation_m_s(openings, basin)
    rest = rest_share(turning, comfort_m_s)
    jets = min(sum(jet_m3(o, comfort_m_s, basin) for o in openings) / basin.volume_m3, 1.0)
    return rest * (1 - jets)


def largest_share(openings: Sequence[Opening], basin: Basin, comfort_m_s: float) -> float:
    """Largest multiple of these flows that leaves half of the water calm (0 to 50).

    openings: its outlets, throttled or opened alike; basin: its water; comfort_m_s: m/s. More flow is never calmer, so
    there is one such share, or none up to 50.
    """

    def spare(share: float) -> float:
        flows = [o._replace(flow_m3s=o.flow_m3s * share) for o in openings]
        return calm_share(flows, basin, comfort_m_s) - CALM_ASKED

    if spare(MOST_SHARE) >= 0:
        return MOST_SHARE
    found = root_between(spare, 1e-6, MOST_SHARE, xtol=1e-7, rtol=1e-9)
    # On the calm side of the root, or the limit itself would be too strong.
    return found * (1 - 1e-6)
