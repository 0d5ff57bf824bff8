"""load-trial: growing crowds of keepers, each viewing, typing and logging, with their waiting times.

A keeper looks at Today, opens the tank, types figures (a sum each), logs a test, and takes about a second to think
before each; then begins again.
"""

import random
import shutil
import sys
import tempfile
import threading
import time
from collections import defaultdict
from dataclasses import dataclass, field
from datetime import UTC, datetime
from pathlib import Path
from statistics import quantiles

from reedmace.command.trial_keepers import Keeper
from reedmace.command.trial_machine import Machine

CROWDS = (1, 8, 32, 100, 300)
EACH_S = 20.0
THINK_S = (0.5, 1.5)
MANY = 20_000
"""Requests after which memory is measured again."""
TANK = {"length_cm": 90, "width_cm": 40, "height_cm": 45}


@dataclass
class Seen:
    """Results of one crowd. took_s: by request; failed: unexpected statuses with counts."""

    took_s: dict[str, list[float]] = field(default_factory=lambda: defaultdict(list))
    failed: dict[int, int] = field(default_factory=lambda: defaultdict(int))
    lock: threading.Lock = field(default_factory=threading.Lock)

    def note(self, what: str, status: int, took_s: float) -> None:
        """Record one response."""
        with self.lock:
            if status in (200, 201):
                self.took_s[what].append(took_s)
            else:
                self.failed[status] += 1


class Visitor(threading.Thread):
    """One active keeper. keeper: signed up; seen: where responses are recorded; think_s: range of pauses."""

    def __init__(self, keeper: Keeper, seen: Seen, think_s: tuple[float, float], stop: threading.Event) -> None:
        super().__init__(daemon=True)
        self._keeper, self._seen, self._think_s, self._stop_asked = keeper, seen, think_s, stop
        self._draw = random.Random(keeper.tank)  # noqa: S311 - when somebody thinks is no secret

    def run(self) -> None:
        """Send requests in turn until stopped."""
        while not self._stop_asked.is_set():
            length = self._draw.randint(40, 200)
            for what, method, path, body in (
                ("Today", "GET", "/api/today", None),
                ("tank", "GET", f"/api/tanks/{self._keeper.tank}", None),
                *(("typing", "POST", "/api/compute/tank-volume", {**TANK, "length_cm": length + n}) for n in range(3)),
                ("stage", "POST", f"/api/tanks/{self._keeper.tank}/views/stock", {}),
                ("log a test", "POST", f"/api/tanks/{self._keeper.tank}/entries", self._test()),
            ):
                if self._stop_asked.wait(self._draw.uniform(*self._think_s)):
                    return
                begun = time.monotonic()
                status, _ = self._keeper.ask(method, path, body)
                self._seen.note(what, status, time.monotonic() - begun)

    def leave(self) -> None:
        """Close the connection."""
        self._keeper.close()

    def _test(self) -> dict[str, object]:
        reading = {"kind": "reading", "ammonia_ppm": 0.25, "nitrite_ppm": 0.25, "ph": 7.4}
        return {"key": f"load-test-{time.monotonic_ns()}", "at": datetime.now(UTC).isoformat(), "body": reading}


def _crowd(machine: Machine, count: int, think_s: tuple[float, float], enough: int | None) -> tuple[Seen, float]:
    """Run a crowd for a while, or for a number of requests; its results, and the time, s."""
    seen, stop = Seen(), threading.Event()
    visitors = []
    for n in range(count):
        keeper = Keeper([("127.0.0.1", machine.port)])
        keeper.sign_up(f"visitor-{n}")
        body = {"kind": "tank-plan", "tank": TANK}
        entry = {"key": "load-plan-1", "at": datetime.now(UTC).isoformat(), "body": body}
        keeper.ask("POST", f"/api/tanks/{keeper.tank}/entries", entry)
        visitors.append(Visitor(keeper, seen, think_s, stop))
    begun = time.monotonic()
    for visitor in visitors:
        visitor.start()
    while time.monotonic() - begun < EACH_S or (enough and sum(map(len, seen.took_s.values())) < enough):
        time.sleep(0.2)
    lasted = time.monotonic() - begun
    stop.set()
    for visitor in visitors:
        visitor.join(30)
        visitor.leave()
    return seen, lasted


def _p(took: list[float], share: int) -> float:
    """A percentile, ms. share: percent."""
    return 1000 * (quantiles(took, n=100)[share - 1] if len(took) > 1 else max(took, default=0.0))


def load_trial() -> int:
    """Run the trial and print a table.

    1 when anybody was rejected or left without a response in a crowd of a hundred or fewer.
    """
    folder = Path(tempfile.mkdtemp(prefix="reedmace-load-"))
    machine = Machine(folder, workers=3)
    worst = 0
    try:
        machine.start()
        print(
            "| keepers | answers a second | typing p50, p95, p99 | Today p95 | tank p95 | stage p95 | test p95 | failed"
            " | memory |"
        )
        print("|---|---|---|---|---|---|---|---|---|")
        for count in CROWDS:
            seen, lasted = _crowd(machine, count, THINK_S, None)
            print(_row(str(count), seen, lasted, machine), flush=True)
            worst = max(worst, sum(seen.failed.values()) if count <= 100 else 0)
        before = machine.memory_mb()
        seen, lasted = _crowd(machine, 16, (0.0, 0.0), MANY)
        print(_row("16, without a thought", seen, lasted, machine))
        print(
            f"memory before and after {sum(map(len, seen.took_s.values())):,} more answers: {before:.0f},"
            f" {machine.memory_mb():.0f} MB"
        )
    except (RuntimeError, TimeoutError) as error:
        print(f"reedmace: the trial could not be held: {error}", file=sys.stderr)
        return 2
    finally:
        machine.stop()
        shutil.rmtree(folder, ignore_errors=True)
    return 1 if worst else 0


def _row(name: str, seen: Seen, lasted: float, machine: Machine) -> str:
    typing = seen.took_s["typing"]
    rate = sum(map(len, seen.took_s.values())) / lasted
    rest = " | ".join(f"{_p(seen.took_s[what], 95):.0f} ms" for what in ("Today", "tank", "stage", "log a test"))
    failed = ", ".join(f"{count} x {status or 'no answer'}" for status, count in seen.failed.items()) or "none"
    spread = ", ".join(f"{_p(typing, share):.0f}" for share in (50, 95, 99))
    return f"| {name} | {rate:.0f} | {spread} ms | {rest} | {failed} | {machine.memory_mb():.0f} MB |"
