"""Run the compiled sums once, so that no keeper waits for a compiler."""

import numpy as np

from reedmace.core.computations import compute
from reedmace.core.flow.kernel import airlift_many


def warm() -> None:
    """Compile or load from disk every kernel a request can meet."""
    compute(
        "operating-point",
        {
            "pump": {"max_flow_lph": 500, "max_head_m": 1},
            "hoses": [{"bore_mm": 16, "length_m": 2}],
            "media": [{"media": "foam-20", "area_cm2": 200, "depth_cm": 5}],
        },
    )
    curve = [{"flow_lph": 0, "head_m": 1}, {"flow_lph": 300, "head_m": 0.7}, {"flow_lph": 500, "head_m": 0}]
    compute("operating-point", {"pump": {"max_flow_lph": 500, "max_head_m": 1, "curve": curve}})
    compute("airlift-flow", {"air_l_min": 1, "tube_bore_mm": 16, "submerged_cm": 30})
    compute("rank-filters", {"room": {"net_l": 100, "water_depth_cm": 35, "length_cm": 80, "width_cm": 35}})
    compute(
        "cycle-forecast",
        {
            "log": {
                "net_l": 100,
                "day_now": 1,
                "readings": [{"day": 0, "ammonia_mg_n_l": 1}],
                "doses": [{"day": 0, "raise_mg_n_l": 1}],
            },
            "draws": 50,
            "horizon_days": 30,
        },
    )
    compute("cycle-forecast", {"log": {"net_l": 100, "day_now": 0}, "draws": 50, "horizon_days": 30})
    compute("rank-filters", {"room": {"net_l": 20, "water_depth_cm": 25, "length_cm": 40, "width_cm": 25}})
    compute("read-quantity", {"text": "20 gal", "kind": "volume"})
    one = np.ones(1)
    airlift_many(one, one, one, one, one, one, 1e-6)
