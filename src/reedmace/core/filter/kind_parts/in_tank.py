"""Limits shared by the kinds that stand inside the tank with their outlet under water."""

import numpy as np

from reedmace.core.filter.filter_table import FilterTable
from reedmace.core.filter.kind_parts.limit import Bools, Limit
from reedmace.core.filter.site.site import Site
from reedmace.core.quantity import formatting

UNDER_SURFACE_CM = 3.0


def stands_under(t: FilterTable, mine: Bools, site: Site) -> list[Limit]:
    """Limit: a body whose outlet must stay under water. t: filters; mine: those it holds for; site: the site."""
    tall = np.where(mine, t.height_cm + UNDER_SURFACE_CM, 0.0)
    return [
        Limit(
            mine & (site.water_depth_cm < tall),
            lambda i: (
                f"stands {formatting.cm(t.height_cm[i], 'g')} high and its outlet must stay under water; yours is"
                f" {formatting.cm(site.water_depth_cm)} deep"
            ),
            lambda i: f"raise the water by {formatting.cm(tall[i] - site.water_depth_cm)}",
            "water_depth_cm",
            tall,
        )
    ]
