"""The salt-water tank of Fennel Yard."""

from datetime import datetime, timedelta

from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.demo.builders import Row, installed, ticks

N = NITROGEN_SHARE["NH4"]


def stairwell(now: datetime) -> list[Row]:
    """A drilled marine tank over its sump, at its beginning: rock in, no animals."""
    start = 4.0
    return [
        (
            12,
            {
                "kind": "tank-plan",
                "tank": {
                    "length_cm": 130,
                    "width_cm": 55,
                    "height_cm": 62,
                    "glass_mm": 12,
                    "fill_below_rim_cm": 4,
                    "substrate_depth_cm": 2,
                    "stone_kg": 30,
                },
                "surroundings": {
                    "behind_cm": 14,
                    "stand_height_cm": 85,
                    "sockets": 6,
                    "room": "workshop",
                    "water": "salt",
                    "drilled": True,
                    "sump": {
                        "length_cm": 85,
                        "width_cm": 42,
                        "height_cm": 42,
                        "level_cm": 25,
                        "chambers": ["socks", "skimmer", "media", "heater", "return"],
                        "drains": [{"bore_mm": 32}, {"bore_mm": 32, "emergency": True}],
                        "weir_cm": 40,
                    },
                },
            },
        ),
        (
            11,
            {
                "kind": "filter-plan",
                "filters": installed("saltmarsh-75"),
                "heater": {"watts": 300, "stands_in": "sump"},
            },
        ),
        (10, {"kind": "fit-plan", "places": {"f1": {"siphon_break": True, "outlet_depth_cm": 3}}}),
        *ticks(8, "sump-drill", "sump-place", "sump-media"),
        (
            start,
            {
                "kind": "cycle-plan",
                "started_at": (now - timedelta(days=start)).isoformat(),
                "method": "mature-rock",
                "temperature_c": 26,
                "salinity_g_kg": 35,
                "start_kh_dkh": 8,
                "start_ph": 8.1,
            },
        ),
        (start, {"kind": "note", "text": "Thirty kilos of rock in, some of it from a tank that has run for years."}),
    ]
