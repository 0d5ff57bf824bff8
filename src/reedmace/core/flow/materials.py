"""Hydraulic properties: viscosity of water, fittings, media, dirt."""

from typing import Literal

from reedmace.core.quantity import celsius_to_kelvin
from reedmace.core.quantity.constants import G

FittingKind = Literal[
    "strainer",
    "entrance",
    "elbow",
    "u-bend",
    "tap-open",
    "tap-half",
    "quick-valve",
    "check-valve",
    "spray-bar",
    "guard",
    "exit",
    "nozzle",
    "flared-pipe",
]

FITTING_K: dict[str, float] = {
    # Crane TP-410 where it has the part (entrance, exit, elbow, valves); trade parts from memory.
    "strainer": 2.0,
    "entrance": 0.78,
    "elbow": 0.9,
    "u-bend": 1.2,
    "tap-open": 0.2,
    "tap-half": 5.6,
    "quick-valve": 1.5,
    "check-valve": 2.5,
    "guard": 4.0,
    "exit": 1.0,
    "nozzle": 2.0,
    "flared-pipe": 0.3,
}

BAR_HOLE_MM, BAR_OPEN_SHARE, FEWEST_BAR_HOLES = 4.0, 0.9, 6
"""A usual spray bar: holes of 4 mm with nine tenths of its hose's cross section in total (memory)."""
ORIFICE_CD = 0.62
"""Discharge coefficient of a sharp-edged hole (Crane TP-410, rounded)."""


def bar_holes(bore_mm: float, hole_mm: float = BAR_HOLE_MM) -> int:
    """Number of holes of a usual spray bar on a hose. bore_mm: the hose's; hole_mm: of one hole.

    >>> bar_holes(16.0, 3.0)
    26
    """
    return max(round(BAR_OPEN_SHARE * (bore_mm / hole_mm) ** 2), FEWEST_BAR_HOLES)


def fitting_k(
    kind: FittingKind, bore_mm: float, own_k: float | None, holes: int | None, hole_mm: float | None
) -> float:
    """Resistance coefficient of one fitting on its bore's velocity head, dimensionless.

    kind: which; bore_mm: of its hose; own_k: the keeper's own figure, None for the table's; holes, hole_mm: of a spray
    bar, None for a usual one. Source: Crane TP-410; a bar's holes as sharp-edged orifices side by side.
    """
    if own_k is not None:
        return own_k
    if kind != "spray-bar":
        return FITTING_K[kind]
    size = hole_mm or BAR_HOLE_MM
    open_share = (holes or bar_holes(bore_mm, size)) * (size / bore_mm) ** 2
    return 1 / (ORIFICE_CD * open_share) ** 2


MediaKind = Literal[
    "foam-10",
    "foam-20",
    "foam-30",
    "floss",
    "cartridge",
    "ceramic-rings",
    "sintered",
    "plastic-balls",
    "lava",
    "carbon",
    "zeolite",
]

MEDIA_NAMES: dict[MediaKind, str] = {
    "foam-10": "coarse foam, 10 ppi",
    "foam-20": "medium foam, 20 ppi",
    "foam-30": "fine foam, 30 ppi",
    "floss": "floss",
    "cartridge": "cartridge",
    "ceramic-rings": "ceramic rings",
    "sintered": "sintered media",
    "plastic-balls": "plastic balls",
    "lava": "lava",
    "carbon": "carbon",
    "zeolite": "zeolite",
}

# Foams: permeability m², Forchheimer coefficient (memory). Beds: grain size m, porosity (memory), for Ergun.
_FOAM: dict[str, tuple[float, float]] = {
    "foam-10": (1.5e-7, 0.10),
    "foam-20": (8.0e-8, 0.10),
    "foam-30": (4.0e-8, 0.10),
    "floss": (6.0e-9, 0.12),
    "cartridge": (8.0e-9, 0.12),
}
_BED: dict[str, tuple[float, float]] = {
    "ceramic-rings": (0.010, 0.62),
    "sintered": (0.012, 0.48),
    "plastic-balls": (0.020, 0.85),
    "lava": (0.015, 0.50),
    "carbon": (0.004, 0.42),
    "zeolite": (0.005, 0.45),
}
# Area available to flow and film, m² per litre of medium (memory). Pores without flow are not counted.
MEDIA_SURFACE_M2_L: dict[str, float] = {
    "foam-10": 0.45,
    "foam-20": 0.9,
    "foam-30": 1.3,
    "floss": 1.5,
    "cartridge": 0.8,
    "ceramic-rings": 0.6,
    "sintered": 0.9,
    "plastic-balls": 0.35,
    "lava": 0.5,
    "carbon": 0.8,
    "zeolite": 0.7,
}
# Mass of a litre of dry medium, kg (memory).
MEDIA_KG_L: dict[str, float] = {
    "foam-10": 0.02,
    "foam-20": 0.025,
    "foam-30": 0.03,
    "floss": 0.02,
    "cartridge": 0.15,
    "ceramic-rings": 0.55,
    "sintered": 0.50,
    "plastic-balls": 0.10,
    "lava": 0.70,
    "carbon": 0.45,
    "zeolite": 0.85,
}
# Clogging of a first medium of this grade for the same dirt, relative to 20 ppi foam (memory): a finer face holds
# the dirt on its skin, a coarser one lets it in deep.
CLOGGING: dict[str, float] = {"foam-10": 0.6, "foam-20": 1.0, "foam-30": 1.6, "floss": 2.4, "cartridge": 2.4}
BED_CLOGGING = 1.3

FLOW_SPREAD = 0.12
"""Log spread of what a make really pumps over what its box says (memory)."""

SOLIDS_PER_FEED = 0.25
"""Solids a filter catches per mass of dry food (Timmons and Ebeling give about a quarter)."""
CAKE = 120.0
"""Resistance of dirt: s/m² per kg of solids, times the face area in m² squared, over m⁴ (memory)."""


def viscosity_m2_s(temperature_c: float) -> float:
    """Kinematic viscosity of fresh water, m²/s.

    temperature_c: 0 to 40 °C. At 25 °C: 0.893e-6. Source: Vogel equation for the dynamic viscosity; density by a
    quadratic about 4 °C. Checked against fluids' IAPWS values.

    >>> round(viscosity_m2_s(20.0), 9)
    1.003e-06
    """
    kelvin = celsius_to_kelvin(temperature_c)
    dynamic = 2.414e-5 * 10.0 ** (247.8 / (kelvin - 140.0))
    density = 999.97 * (1 - 5.5e-6 * (temperature_c - 4.0) ** 2)
    return float(dynamic / density)


def media_coefficients(media: MediaKind, area_m2: float, depth_m: float, viscosity: float) -> tuple[float, float]:
    """c1 (s/m²) and c2 (s²/m⁵) of one clean layer, so that its head is c1 Q + c2 Q².

    media: which; area_m2, depth_m: of the layer, across and along the flow; viscosity: kinematic, m²/s.
    Source: Darcy-Forchheimer for foams and floss, Ergun 1952 for beds.
    """
    if media in _FOAM:
        permeability, inertial = _FOAM[media]
        linear = viscosity / permeability
        square = inertial / permeability**0.5
    else:
        grain, porosity = _BED[media]
        linear = 150 * viscosity * (1 - porosity) ** 2 / (porosity**3 * grain**2)
        square = 1.75 * (1 - porosity) / (porosity**3 * grain)
    return linear * depth_m / (G * area_m2), square * depth_m / (G * area_m2**2)


def dirt_resistance(feed_g_day: float, days: float, area_m2: float, media: MediaKind = "foam-20") -> float:
    """Linear resistance of caught dirt, s/m².

    feed_g_day: dry food, g/day; days: since the last cleaning; area_m2: face of the first medium the water meets;
    media: which medium that is.
    Source: prior from memory, set so that a mid-sized canister loses about a fifth of its flow in service.
    """
    solids_kg = SOLIDS_PER_FEED * feed_g_day / 1000 * days
    return CAKE * CLOGGING.get(media, BED_CLOGGING) * solids_kg / area_m2**2
