"""Classes of water by salinity, g/kg: fresh, brackish and marine.

Bounds after the Venice system (1958): limnetic water holds less than 0.5 g/kg, mesohaline begins at 5 and polyhaline at
18 g/kg. Here fresh takes in the oligohaline range, in which fresh-water criteria are the stricter ones.
"""

SALTED_FROM_G_KG = 0.5
"""Salt enough that new water is mixed to the tank's own salinity first (Venice system: no longer limnetic)."""
FRESH_MOST_G_KG = 5.0
MARINE_FROM_G_KG = 18.0
SEA_G_KG = 35.0
"""Salinity of sea water (common practice)."""


def has_salt(salinity_g_kg: float) -> bool:
    """Whether new water must be salted and top-ups must not be. salinity_g_kg: g/kg.

    >>> has_salt(0.2), has_salt(2.0)
    (False, True)
    """
    return salinity_g_kg > SALTED_FROM_G_KG


def is_fresh(salinity_g_kg: float) -> bool:
    """Whether fresh-water relations and limits hold; otherwise the water is brackish or marine. salinity_g_kg: g/kg.

    >>> is_fresh(0.0), is_fresh(10.0)
    (True, False)
    """
    return salinity_g_kg <= FRESH_MOST_G_KG


def is_marine(salinity_g_kg: float) -> bool:
    """Whether foam fractionators work and rock from the sea lives in it. salinity_g_kg: g/kg.

    >>> is_marine(10.0), is_marine(35.0)
    (False, True)
    """
    return salinity_g_kg > MARINE_FROM_G_KG
