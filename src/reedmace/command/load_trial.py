"""load-trial: growing crowds of keepers, each viewing, typing and logging, with their waiting times.

A keeper looks at Today, opens the tank, types in a stage (a view or a sum a keystroke, as the page asks for it), logs
a test, and takes about a second to think before each; then begins again in another stage.
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
from functools import cache
from pathlib import Path
from statistics import quantiles

from reedmace.command.trial_keepers import Keeper
from reedmace.command.trial_machine import Machine
from reedmace.core.filter.kinds import BY_NAME
from reedmace.core.filter.typical import typical_box

CROWDS = (1, 8, 32, 100, 300)
EACH_S = 20.0
THINK_S = (0.5, 1.5)
MANY = 20_000
"""Requests after which memory is measured again."""
TANK = {"length_cm": 90, "width_cm": 40, "height_cm": 45}


ANIMALS = {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 12}]}
STAGES = ("tank", "stock", "stock", "filter", "filter", "filter", "fit", "begin", "line", "line")
"""Stages in which keepers type, each as often as it is used (a stated judgement).

Filters are weighed longest, a cycle's plan is made once, a test's line is typed every day.
"""
KEYSTROKES = 3
OTHERS = ("Today", "open", "log a test")


def keystroke(stage: str, tank: int, n: int) -> tuple[str, dict[str, object]]:
    """Path and body of what the page asks for after a keystroke; every n another figure, so that none is kept.

    stage: one of STAGES; tank: its number; n: 0 or more.
    """
    view = f"/api/tanks/{tank}/views/{stage}"
    if stage == "tank":
        return view, {"tank_plan": {"kind": "tank-plan", "tank": {**TANK, "length_cm": 40 + n % 160 + n / 1e6}}}
    if stage == "stock":
        animals = [
            {"species_id": "zebra-danio", "count": 1 + n % 40},
            {"species_id": "guppy", "count": 1 + n // 40 % 30},
        ]
        return view, {"stock_plan": {"kind": "stock-plan", "animals": animals}}
    if stage == "filter":
        return view, {"filter_plan": chosen(600 + n % 9000 / 10)}
    if stage == "fit":
        return view, {"fit_plan": {"kind": "fit-plan", "places": {"f1": {"outlet_depth_cm": round(n % 900 / 100, 2)}}}}
    if stage == "begin":
        plan = {"kind": "cycle-plan", "started_at": datetime.now(UTC).isoformat(), "target_ppm": 1 + n % 400 / 100}
        return view, {"cycle_plan": plan}
    return "/api/compute/read-test-line", {"text": f"a {n % 700 / 100:g} n 1 no3 20 kh 4"}


@cache
def _canister() -> dict[str, object]:
    return typical_box(BY_NAME["canister"], 900).model_dump(mode="json")


def chosen(box_lph: float = 900) -> dict[str, object]:
    """The plan of a canister. box_lph: as its label says, L/h."""
    return {"kind": "filter-plan", "filters": [{"key": "f1", "filter": {**_canister(), "box_lph": box_lph}}]}


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
        tank = self._keeper.tank
        while not self._stop_asked.is_set():
            stage, first = self._draw.choice(STAGES), self._draw.randrange(1_000_000)
            typed = (keystroke(stage, tank, first + n) for n in range(KEYSTROKES))
            for what, method, path, body in (
                ("Today", "GET", "/api/today", None),
                ("open", "GET", f"/api/tanks/{tank}", None),
                *((stage, "POST", path, body) for path, body in typed),
                ("log a test", "POST", f"/api/tanks/{tank}/entries", self._test()),
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
        for number, body in enumerate(({"kind": "tank-plan", "tank": TANK}, ANIMALS, chosen()), 1):
            entry = {"key": f"load-plan-{number}", "at": datetime.now(UTC).isoformat(), "body": body}
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
    """Run the trial and print a table: p95 in ms by stage typed in, and of the rest.

    1 when anybody was rejected or left without a response in a crowd of a hundred or fewer.
    """
    folder = Path(tempfile.mkdtemp(prefix="reedmace-load-"))
    machine = Machine(folder, workers=3)
    worst = 0
    try:
        machine.start()
        columns = [*dict.fromkeys(STAGES), *OTHERS]
        print(f"| keepers | answers a second | typing p50, p95, p99 | {' | '.join(columns)} | failed | memory |")
        print("|---" * (len(columns) + 5) + "|")
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
    stages = tuple(dict.fromkeys(STAGES))
    typing = [took for stage in stages for took in seen.took_s[stage]]
    rate = sum(map(len, seen.took_s.values())) / lasted
    rest = " | ".join(f"{_p(seen.took_s[what], 95):.0f}" for what in (*stages, *OTHERS))
    failed = ", ".join(f"{count} x {status or 'no answer'}" for status, count in seen.failed.items()) or "none"
    spread = ", ".join(f"{_p(typing, share):.0f}" for share in (50, 95, 99))
    return f"| {name} | {rate:.0f} | {spread} ms | {rest} | {failed} | {machine.memory_mb():.0f} MB |"
