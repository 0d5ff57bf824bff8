"""Long sums take turns, so that typing never waits behind them: a few run at once, a few wait, the rest are told to ask again."""

import threading

from flask import Flask, g, request

from reedmace.api.problems import ProblemError

LONG_SUMS = frozenset(
    {"cycle-forecast", "cycle-history", "cycle-what-if", "cycle-method", "cycle-advice", "rank-filters"}
)
RUNNING, WAITING, WAIT_S = 2, 3, 8.0
"""Of one process, which has more threads than both together; beyond them a long sum is refused at once."""


class Slots:
    """Turns for the long sums of this process. They say who computes when, never what comes out."""

    def __init__(self) -> None:
        self._running = threading.BoundedSemaphore(RUNNING)
        self._inside = threading.BoundedSemaphore(RUNNING + WAITING)

    def enter(self) -> None:
        """Wait for a turn where this request is a long sum. Raises a 503 problem when too many are before it."""
        if not _is_long():
            return
        if not self._inside.acquire(blocking=False):
            raise _busy()
        if not self._running.acquire(timeout=WAIT_S):
            self._inside.release()
            raise _busy()
        g.slot = True

    def leave(self, _: BaseException | None) -> None:
        """Give the turn back."""
        if g.pop("slot", False):
            self._running.release()
            self._inside.release()


def _is_long() -> bool:
    path = request.path
    if path.endswith("/views/begin"):
        return True
    return path.startswith("/api/compute/") and path.rpartition("/")[2] in LONG_SUMS and request.method == "POST"


def _busy() -> ProblemError:
    return ProblemError(
        503,
        "Busy with long sums",
        "Several forecasts or rankings are being worked out before this one. Nothing is lost; ask again in a moment.",
        headers={"Retry-After": "2"},
    )


def install(app: Flask) -> Slots:
    """Give `app` its turns."""
    slots = Slots()
    app.before_request(slots.enter)
    app.teardown_request(slots.leave)
    return slots
