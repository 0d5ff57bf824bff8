"""One salinity on every scale keepers read it on: g/kg, specific gravity, conductivity, density."""

from typing import Annotated, Literal

from reedmace.core.chemistry.salinity import is_fresh, is_marine
from reedmace.core.contract import Answer, Celsius, Question, Working, computation, number
from reedmace.core.errors import CannotAnswer
from reedmace.core.root_finding import root_between

SALT_MOST_G_KG = 45.0
MS_CM_OF_STANDARD = 42.914
"""Conductivity of sea water of 35 at 15 °C, mS/cm (Culkin and Smith 1980)."""
FRESH_READS_UNDER = 0.002
"""By how much a hydrometer may show fresh water too low (memory)."""
Scale = Literal["g/kg", "specific gravity", "mS/cm"]


class SalinityScalesQuestion(Question):
    """One reading, its scale, and the water's temperature."""

    read_on_scale: Annotated[float, number("of its scale", 0, 120)]
    scale: Scale = "g/kg"
    temperature_c: Celsius = 25
    hydrometer_c: Annotated[float, number("°C", 0, 40, "At which a hydrometer floats right")] = 25


class SalinityScalesAnswer(Answer):
    """The same water on every scale."""

    salinity_g_kg: Annotated[float, number("g/kg", 0, 50)]
    specific_gravity_ratio: Annotated[float, number("ratio", 0.9, 1.1, "As such a hydrometer shows in this water")]
    conductivity_ms_cm: Annotated[float, number("mS/cm", 0, 120, "At this temperature")]
    at_25_ms_cm: Annotated[float, number("mS/cm", 0, 120, "As a meter that corrects to 25 °C shows")]
    density_kg_m3: Annotated[float, number("kg/m³", 900, 1100)]
    water: Literal["fresh", "brackish", "marine"]


def sea_density_kg_m3(salinity_g_kg: float, temperature_c: float) -> float:
    """Density of water with sea salt at the surface, kg/m³.

    salinity_g_kg: 0 to 42; temperature_c: 0 to 40 °C. Source: EOS-80 (UNESCO 1981). Check value: 35 and 25 °C give
    1023.343.

    >>> round(sea_density_kg_m3(35.0, 25.0), 3)
    1023.343
    """
    s, t = salinity_g_kg, temperature_c
    pure = 999.842594 + 6.793952e-2 * t - 9.095290e-3 * t**2 + 1.001685e-4 * t**3
    pure += -1.120083e-6 * t**4 + 6.536332e-9 * t**5
    a = 8.24493e-1 - 4.0899e-3 * t + 7.6438e-5 * t**2 - 8.2467e-7 * t**3 + 5.3875e-9 * t**4
    b = -5.72466e-3 + 1.0227e-4 * t - 1.6546e-6 * t**2
    return float(pure + a * s + b * s**1.5 + 4.8314e-4 * s**2)


def practical_salinity(conductivity_ms_cm: float, temperature_c: float) -> float:
    """Salinity by conductivity at the surface, PSS-78, taken as g/kg.

    conductivity_ms_cm: 0 to 120 mS/cm; temperature_c: 0 to 40 °C; meant for 2 to 42. Source: PSS-78 (UNESCO 1981).

    >>> round(practical_salinity(42.914, 15.0), 3)
    35.0
    """
    t = temperature_c
    rt = 0.6766097 + 2.00564e-2 * t + 1.104259e-4 * t**2 - 6.9698e-7 * t**3 + 1.0031e-9 * t**4
    root = (max(conductivity_ms_cm, 0.0) / MS_CM_OF_STANDARD / rt) ** 0.5
    at_15 = (0.0080, -0.1692, 25.3851, 14.0941, -7.0261, 2.7081)
    by_warmth = (0.0005, -0.0056, -0.0066, -0.0375, 0.0636, -0.0144)
    shift = (t - 15) / (1 + 0.0162 * (t - 15))
    found = sum((a + shift * b) * root**n for n, (a, b) in enumerate(zip(at_15, by_warmth, strict=True)))
    return max(float(found), 0.0)


def conductivity_ms_cm(salinity_g_kg: float, temperature_c: float) -> float:
    """Conductivity of a salinity, mS/cm: the inverse of `practical_salinity`.

    salinity_g_kg: 0 to 45; temperature_c: 0 to 40 °C.

    >>> round(conductivity_ms_cm(35.0, 15.0), 3)
    42.914
    """
    if salinity_g_kg <= practical_salinity(0.0, temperature_c):
        return 0.0
    return root_between(lambda c: practical_salinity(c, temperature_c) - salinity_g_kg, 0.0, 120.0)


def specific_gravity(salinity_g_kg: float, temperature_c: float, hydrometer_c: float = 25.0) -> float:
    """What a hydrometer shows: density of the water over that of pure water at its own temperature.

    salinity_g_kg: 0 to 45; temperature_c, hydrometer_c: °C. Source: EOS-80.

    >>> round(specific_gravity(35.0, 25.0), 4)
    1.0264
    """
    return sea_density_kg_m3(salinity_g_kg, temperature_c) / sea_density_kg_m3(0.0, hydrometer_c)


def salinity_of_gravity(gravity: float, temperature_c: float, hydrometer_c: float = 25.0) -> float:
    """Salinity a hydrometer's reading means, g/kg.

    gravity: ratio; temperature_c, hydrometer_c: °C. Raises CannotAnswer for a reading no water with sea salt has.
    """
    least, most = (specific_gravity(s, temperature_c, hydrometer_c) for s in (0.0, SALT_MOST_G_KG))
    if not least - FRESH_READS_UNDER <= gravity <= most:
        raise CannotAnswer(
            "read_on_scale",
            f"{gravity:g} is no specific gravity of such water at {temperature_c:g} °C: {least:.3f} to {most:.3f}.",
            "Read the hydrometer once more, free of bubbles; 1.026 is sea water.",
        )
    if gravity <= least:
        return 0.0
    return root_between(lambda s: specific_gravity(s, temperature_c, hydrometer_c) - gravity, 0.0, SALT_MOST_G_KG)


@computation("salinity-scales", "One salinity on every scale it is read on")
def salinity_scales(question: SalinityScalesQuestion) -> SalinityScalesAnswer:
    """A salinity in g/kg, as specific gravity, conductivity and density.

    question: g/kg, ratio or mS/cm, and °C. Source: EOS-80 and PSS-78 (UNESCO 1981). Raises CannotAnswer for a reading
    out of the scale's range.
    """
    q, w = question, Working()
    t = q.temperature_c
    if q.scale == "specific gravity":
        salinity = salinity_of_gravity(q.read_on_scale, t, q.hydrometer_c)
    else:
        salinity = practical_salinity(q.read_on_scale, t) if q.scale == "mS/cm" else q.read_on_scale
    if salinity > SALT_MOST_G_KG:
        raise CannotAnswer(
            "read_on_scale", f"is {salinity:.0f} g/kg, more than any tank holds.", "Check reading and scale."
        )
    w.line("S", f"from {q.scale}", f"{q.read_on_scale:g} at {t:g} °C", salinity, "g/kg", "eos80")
    density = w.line("ρ", "EOS-80", f"{salinity:.2f} g/kg", sea_density_kg_m3(salinity, t), "kg/m³", "eos80")
    floats = specific_gravity(salinity, t, q.hydrometer_c)
    gravity = w.line("SG", "ρ / ρ pure", f"pure water at {q.hydrometer_c:g} °C", floats, "ratio", "eos80")
    conducted = w.line("C", "PSS-78", f"{t:g} °C", conductivity_ms_cm(salinity, t), "mS/cm", "pss78")
    return SalinityScalesAnswer(
        verdict=f"{salinity:.1f} g/kg: specific gravity {gravity:.4f}, {conducted:.1f} mS/cm.",
        working=w.lines,
        salinity_g_kg=salinity,
        specific_gravity_ratio=gravity,
        conductivity_ms_cm=conducted,
        at_25_ms_cm=conductivity_ms_cm(salinity, 25.0),
        density_kg_m3=density,
        water="fresh" if is_fresh(salinity) else "marine" if is_marine(salinity) else "brackish",
    )
