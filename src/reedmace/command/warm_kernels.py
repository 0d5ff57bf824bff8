"""Run each compiled kernel once, so that no request waits for the compiler; as a program, report progress."""

import os
import sys
from collections.abc import Callable
from pathlib import Path

import numpy as np

from reedmace.command.kernel_cache import clear_stale, fingerprint, record_fingerprint
from reedmace.core.computations import compute
from reedmace.core.filter.typical import typical_medians, typical_table
from reedmace.core.flow.airlift_kernel import airlift_many, airlift_spare_many
from reedmace.core.flow.hydraulic_kernel import operating_flows, set_threads, spare_resistances
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank

CURVE = [{"flow_lph": 0, "head_m": 1}, {"flow_lph": 300, "head_m": 0.7}, {"flow_lph": 500, "head_m": 0}]
LOOP = {
    "pump": {"max_flow_lph": 500, "max_head_m": 1},
    "hoses": [{"bore_mm": 16, "length_m": 2}],
    "media": [{"media": "foam-20", "area_cm2": 200, "depth_cm": 5}],
}
BEGUN = {
    "net_l": 100,
    "day_now": 1,
    "readings": [{"day": 0, "ammonia_mg_n_l": 1}],
    "doses": [{"day": 0, "raise_mg_n_l": 1}],
}
ANIMALS = [{"species_id": "zebra-danio", "count": 8}]
SITE = {"net_l": 100, "water_depth_cm": 35, "length_cm": 80, "width_cm": 35}


def _forecast(log: dict[str, object]) -> None:
    compute("cycle-forecast", {"log": log, "draws": 50, "horizon_days": 30})


def _lifts() -> None:
    one = np.ones(1)
    set_threads(1)
    airlift_many(one, one, one, one, one, one, 1e-6)
    airlift_spare_many(one, one, one, one, one, one, one, 1e-6)


def _pumps() -> None:
    one, two, hoses = np.ones(1), np.array([[1.0, 0.5]]), np.ones((1, 1, 3))
    points = np.full(1, 2, dtype=np.int64)
    set_threads(1)
    operating_flows(two, two, points, one, one, one, hoses, 1e-6)
    spare_resistances(one, two, two, points, one, one, one, hoses, 1e-6)


def _practice() -> None:
    acts = [Act(0.0, "dose", 1.0), Act(30.0, "animals", 1, "zebra-danio")]
    PracticeTank(Setup(net_l=100), seed=1).run(acts, 120.0)


WITHOUT_THREADS: tuple[tuple[str, Callable[[], object]], ...] = (
    ("typed figures", lambda: compute("read-quantity", {"text": "20 gal", "kind": "volume"})),
    ("typical boxes", lambda: (typical_table(), typical_medians())),
)
"""Steps before which a process may fork: OpenMP's threads, which parallel kernels start, do not outlive a fork."""
STEPS: tuple[tuple[str, Callable[[], object]], ...] = (
    ("pump and plumbing", lambda: compute("operating-point", LOOP)),
    (
        "pump curves",
        lambda: compute("operating-point", {"pump": {"max_flow_lph": 500, "max_head_m": 1, "curve": CURVE}}),
    ),
    ("air lifts", _lifts),
    ("many pumps", _pumps),
    *WITHOUT_THREADS,
    ("ranking", lambda: compute("rank-filters", {"site": SITE})),
    # The sizes of every kind are made once a process; a first keeper would wait a second for them.
    ("kinds and sizes", lambda: compute("type-and-size", {"site": SITE, "animals": ANIMALS})),
    ("cycle", lambda: _forecast(BEGUN)),
    ("cycle before its first test", lambda: _forecast({"net_l": 100, "day_now": 0})),
    ("a practice tank", _practice),
)


def warm(say: Callable[[str], None] | None = None) -> None:
    """Compile or load every kernel a request can use. say: called with each step."""
    for number, (name, step) in enumerate(STEPS, start=1):
        if say:
            say(f"sums {number} of {len(STEPS)}: {name}")
        step()


def warm_without_threads(going: Callable[[], bool]) -> None:
    """The steps a process may take before it forks. going: asked before each; False ends it."""
    for _, step in WITHOUT_THREADS:
        if not going():
            return
        step()


if __name__ == "__main__":
    compiled, folder = fingerprint(), os.environ.get("NUMBA_CACHE_DIR")
    if folder:
        clear_stale(Path(folder))
    warm(lambda text: print(f"reedmace: {text}", file=sys.stderr, flush=True))
    if folder:
        record_fingerprint(Path(folder), compiled)
