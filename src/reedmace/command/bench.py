"""Benchmark: ratios measured in one run, Reedmace against an independent program on the same question."""

import os
import statistics
import threading
import time
import urllib.request
from collections.abc import Callable
from typing import Any

import numpy as np

from reedmace.command.forecast_skill import forecast_skill, independent_skill
from reedmace.command.keeper_trials import run_trial, summarize
from reedmace.command.scaling import scaling
from reedmace.command.speed import forecast, history, ranking
from reedmace.command.strong_peers import PARTS
from reedmace.command.timing import peak_mb
from reedmace.command.warm_kernels import warm
from reedmace.command.web_process import WebServer, bound

LIVES = 200


def _median(action: Callable[[], Any], times: int) -> float:
    took = []
    for _ in range(times):
        start = time.perf_counter()
        action()
        took.append(time.perf_counter() - start)
    return statistics.median(took)


def _latency() -> list[tuple[str, str, str]]:
    environment = {
        **os.environ,
        "REEDMACE_DATABASE_URL": "mysql://nobody@127.0.0.1:1/none",
        "REEDMACE_SECRET_KEY": "bench",
    }
    listener = bound("127.0.0.1", 0)
    port = listener.getsockname()[1]
    server = WebServer(listener, environment, 3)
    server.go()
    body = b'{"length_cm":90,"width_cm":40,"height_cm":45}'
    took: list[float] = []

    def ask() -> float:
        request = urllib.request.Request(
            f"http://127.0.0.1:{port}/api/compute/tank-volume", data=body, headers={"Content-Type": "application/json"}
        )
        start = time.perf_counter()
        urllib.request.urlopen(request, timeout=20).read()  # noqa: S310
        return time.perf_counter() - start

    try:
        for _ in range(600):
            try:
                ask()
                break
            except OSError:
                time.sleep(0.1)
        alone = _median(ask, 50)

        def client() -> None:
            # A keeper types about eight characters a second at most.
            for _ in range(60):
                took.append(ask())
                time.sleep(0.1)

        threads = [threading.Thread(target=client) for _ in range(8)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
    finally:
        server.stop()
        listener.close()
    slow = float(np.percentile(took, 95))
    return [
        (
            "an answer while typing, 95th percentile with 8 clients, against one client alone",
            f"{slow / alone:.1f} x ({slow * 1000:.0f} ms)",
            "under 50 ms",
        )
    ]


def _skill() -> list[tuple[str, str, str]]:
    """The forecast on 200 virtual tanks: coverage of its 80 % range, and its error against always saying day 35."""
    return [
        (
            f"forecast, day {s.day}, {s.tanks} tanks {kind}: truths held; error, and of 'day 35'",
            f"{s.held * 100:.0f} %; {s.median_error_days:.1f} against {s.median_error_always_days:.1f} days",
            "70 to 90 %; half at day 14",
        )
        for kind, varied in (("alike", False), ("as kept", True))
        for s in forecast_skill(200, varied=varied)
    ]


def _strangers() -> list[tuple[str, str, str]]:
    """The forecast on tanks of another model structure."""
    return [
        (
            f"forecast, {structure}, {start}, day {s.day}, {s.tanks} tanks: truths held; error, 'day 35'; bias",
            (
                f"{s.held * 100:.0f} %; {s.median_error_days:.1f}, {s.median_error_always_days:.1f}; {s.bias_days:+.1f}"
                " days"
            ),
            "75 to 90 %; half where over 4; under 1",
        )
        for structure in ("guilds", "biomass")
        for start in ("unseeded", "squeezed", "bottled", "moved")
        for s in independent_skill(structure, start, 60)
    ]


def _lives() -> list[tuple[str, str, str]]:
    """Random tanks kept by the advice alone, judged by the true water."""
    told = summarize([run_trial(seed) for seed in range(1, LIVES + 1)])
    return [
        (
            f"{told['lives']:.0f} random lives: lost; kept waiting over a week too long; contradictions",
            f"{told['lost']:.0f}; {told['waited']:.0f}; {told['faults']:.0f}",
            "0; few; 0",
        )
    ]


def bench() -> int:
    """Print the table. It reports what was measured in this run; nothing here fails a build."""
    warm()
    print(f"{'what':84} {'measured':34} target")
    for part in (*PARTS, ranking, forecast, history, scaling, _skill, _strangers, _lives, _latency):
        for what, measured, target in part():
            print(f"{what:84} {measured:34} {target}", flush=True)
    print(f"{'the most memory this run held':84} {peak_mb():.0f} MB")
    return 0
