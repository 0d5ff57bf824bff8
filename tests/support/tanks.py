"""Tanks nobody chose, with one, two or three filters, for the same question to be asked through every door."""

from datetime import UTC, datetime
from typing import Any

import numpy as np

from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import LogbookState, replay

AT = datetime(2026, 5, 1, 8, 0, tzinfo=UTC)
MEDIA = ("foam-10", "foam-20", "foam-30", "floss", "ceramic-rings", "sintered", "carbon")
STOCK = ("zebra-danio", "harlequin-rasbora", "cherry-shrimp", "pearl-gourami", "fancy-goldfish", "oscar", "guppy")


def state_of(*bodies: dict[str, Any]) -> LogbookState:
    """The state of some bodies written one after the other."""
    return replay(
        Entry.model_validate({"id": n, "key": f"made-{n:04d}", "at": AT, "written_at": AT, "body": body})
        for n, body in enumerate(bodies, start=1)
    )


def bodies_of(seed: int) -> list[dict[str, Any]]:
    """The plans of one generated tank. seed: which; it has 1, 2 or 3 filters in turn."""
    rng = np.random.default_rng(seed)
    length = float(rng.uniform(40, 180))
    height = float(rng.uniform(30, 70))
    stand = float(rng.uniform(60, 95))
    drilled = bool(rng.random() < 0.3)
    place: dict[str, Any] = {
        "behind_cm": float(rng.uniform(2, 25)), "stand_height_cm": stand, "sockets": int(rng.integers(1, 5)),
        "drilled": drilled, "tanks_here_count": int(rng.choice([1, 1, 6])),
    }  # fmt: skip
    if drilled and rng.random() < 0.7:
        sump = {"length_cm": length * 0.7, "width_cm": 35, "height_cm": 40, "level_cm": float(rng.uniform(15, 30))}
        place["sump"] = {**sump, "drains": [{"bore_mm": 28}, {"bore_mm": 28, "emergency": True}]}
    tank = {
        "length_cm": length, "width_cm": float(rng.uniform(25, 65)), "height_cm": height, "glass_mm": 6,
        "fill_below_rim_cm": float(rng.uniform(2, 6)), "substrate_depth_cm": float(rng.uniform(0, 6)),
    }  # fmt: skip
    animals = [{"species_id": str(s), "count": int(rng.integers(1, 12))} for s in rng.choice(STOCK, 2, replace=False)]
    filters, places = [], {}
    for n in range(1 + seed % 3):
        f = SAMPLE_BOXES[int(rng.integers(len(SAMPLE_BOXES)))]
        media = [
            {"media": str(m), "litres": float(rng.uniform(0.2, 2))}
            for m in rng.choice(MEDIA, int(rng.integers(0, 4)), replace=False)
        ]
        plumbing: dict[str, Any] = {"hose_length_m": float(rng.uniform(1.5, 5))}
        if rng.random() < 0.3:
            plumbing |= {"bar_holes_count": int(rng.integers(6, 30)), "bar_hole_mm": float(rng.uniform(2.5, 5))}
        filters.append({"key": f"f{n + 1}", "filter": f.model_dump(mode="json"), "media": media, "plumbing": plumbing})
        places[f"f{n + 1}"] = {
            "outlet_depth_cm": float(rng.uniform(-1, 8)), "siphon_break": bool(rng.random() < 0.5),
            "check_valve": bool(rng.random() < 0.7), "air_pump_above_water_cm": float(rng.uniform(-40, 20)),
        }  # fmt: skip
    return [
        {"kind": "tank-plan", "tank": tank, "surroundings": place},
        {"kind": "stock-plan", "animals": animals},
        {"kind": "filter-plan", "filters": filters, "price_per_kwh": 0.27},
        {"kind": "fit-plan", "places": places},
    ]
