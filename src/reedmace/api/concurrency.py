"""Limits concurrent long computations: a few run, a few wait, the rest are rejected with Retry-After."""

import math
import threading
import time
from collections import Counter
from collections.abc import Callable

from flask import Flask, g, request
from flask_login import current_user

from reedmace.api.problems import ProblemError
from reedmace.store.attempts import network_of

# What each takes is measured in docs/prices.md.
LONG_SUMS = frozenset(
    {
        "currents",
        "cycle-advice",
        "cycle-forecast",
        "cycle-history",
        "cycle-methods",
        "cycle-plan",
        "cycle-readiness",
        "cycle-what-if",
        "nitrogen-balance",
        "outgrow",
        "rank-filters",
        "room-air",
        "room-round",
        "shared-sump",
        "type-and-size",
    }
)
RUNNING, WAITING, WAIT_S = 2, 3, 8.0
"""Per process: computations running and waiting, and the longest wait in s."""
LOOK_S = 0.1
"""Interval at which a waiting request checks that its client is still connected, s."""
RUNNING_OF_ONE, INSIDE_OF_ONE = 1, 3
"""Running and waiting computations allowed per client address."""
STRANGER_S, STRANGER_SHARE = 20.0, 0.25
"""CPU seconds of computations for an address without sign-in, and the share refilled per second."""
FREE_S = 0.05
"""CPU seconds up to which one computation costs an address nothing: typing is never charged."""


class ConcurrencyLimiter:
    """Concurrency limiter of this process. It affects when a computation runs, never its result.

    now, worked: clocks, s: the wall's, and this thread's work.
    """

    def __init__(
        self, now: Callable[[], float] = time.monotonic, worked: Callable[[], float] = time.thread_time
    ) -> None:
        self._now, self._worked = now, worked
        self._turn = threading.Condition()
        self._running: Counter[str] = Counter()
        self._inside: Counter[str] = Counter()
        self._spent: dict[str, tuple[float, float]] = {}

    def enter(self) -> None:
        """Wait for a slot if this request is a long computation. Raises a 503 or 429 problem when rejected.

        Every computation of a stranger is priced by the processor time it took, whatever its name.
        """
        if not _computes():
            return
        who = network_of(request.remote_addr or "")
        stranger = not current_user.is_authenticated
        with self._turn:
            left = STRANGER_S - self._used_s(who)
            if stranger and left <= 0:
                raise _spent(-left / STRANGER_SHARE)
        if stranger:
            g.priced = (who, self._worked())
        if not _is_long():
            return
        with self._turn:
            if self._inside.total() >= RUNNING + WAITING or self._inside[who] >= INSIDE_OF_ONE:
                raise _busy()
            self._inside[who] += 1
            try:
                self._wait(who)
            except ProblemError:
                self._give_back(self._inside, who)
                raise
            self._running[who] += 1
        g.slot = who
        if stranger:
            # Waiting for a turn costs nobody anything.
            g.priced = (who, self._worked())

    def _wait(self, who: str) -> None:
        """Wait until a slot is free. Raises a problem on timeout, or when the client has disconnected."""
        gone: Callable[[], bool] = request.environ.get("waitress.client_disconnected", lambda: False)
        end = self._now() + WAIT_S
        while True:
            # A new keystroke sends a new request and drops the one before.
            if gone():
                raise _dropped()
            if self._free(who):
                return
            if self._now() > end:
                raise _busy()
            self._turn.wait(LOOK_S)

    def leave(self, _: BaseException | None) -> None:
        """Release the slot, and charge an anonymous address for its CPU time."""
        priced, held = g.pop("priced", None), g.pop("slot", None)
        with self._turn:
            if priced is not None:
                self._charge(priced[0], self._worked() - priced[1])
            if held is not None:
                self._give_back(self._running, held)
                self._give_back(self._inside, held)
                self._turn.notify_all()

    def _charge(self, who: str, took_s: float) -> None:
        if took_s <= FREE_S:
            return
        now = self._now()
        self._spent = {w: at for w, at in self._spent.items() if self._used_s(w) > 0}
        self._spent[who] = (self._used_s(who) + took_s, now)

    def _free(self, who: str) -> bool:
        return self._running.total() < RUNNING and self._running[who] < RUNNING_OF_ONE

    def _used_s(self, who: str) -> float:
        """CPU seconds an address has used and not yet regained."""
        spent, at = self._spent.get(who, (0.0, 0.0))
        return max(spent - STRANGER_SHARE * (self._now() - at), 0.0)

    @staticmethod
    def _give_back(counts: Counter[str], who: str) -> None:
        counts[who] -= 1
        if counts[who] <= 0:
            del counts[who]


def _computes() -> bool:
    """Whether this request computes something for whoever asks, known or not."""
    return _is_long() or (request.method == "POST" and request.path.startswith(("/api/compute/", "/api/counter")))


def _is_long() -> bool:
    path = request.path
    if path.endswith("/views/begin") or path == "/api/counter":
        return True
    if path.startswith("/api/practice/join/") or path == "/api/practice/tanks":
        return request.method == "POST"
    if path.startswith("/api/practice/") and path.endswith("/end"):
        return request.method == "POST"
    if path == "/api/bundles/zip":
        return request.method == "POST"
    if path.startswith("/api/tanks/") and path.endswith("/photos"):
        # Decoding a picture of many megapixels takes as long as a forecast.
        return request.method == "POST"
    return path.startswith("/api/compute/") and path.rpartition("/")[2] in LONG_SUMS and request.method == "POST"


def _busy() -> ProblemError:
    return ProblemError(
        503,
        "Busy with long sums",
        "Several forecasts or rankings are being worked out before this one. Nothing is lost; ask again in a moment.",
        headers={"Retry-After": "2"},
    )


def _dropped() -> ProblemError:
    return ProblemError(
        503, "Nobody waits for this", "The question was taken back before its turn came; it was not worked out."
    )


def _spent(wait_s: float) -> ProblemError:
    return ProblemError(
        429,
        "Enough long sums for now",
        "This address has had its share of forecasts and rankings without signing in. Sign in, or ask again later.",
        headers={"Retry-After": f"{math.ceil(max(wait_s, 1))}"},
    )


def install(app: Flask) -> ConcurrencyLimiter:
    """Install the limiter. app: the application."""
    slots = ConcurrencyLimiter()
    app.before_request(slots.enter)
    app.teardown_request(slots.leave)
    return slots
