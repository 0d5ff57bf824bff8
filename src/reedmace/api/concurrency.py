"""Long sums take turns, so that typing never waits behind them: a few run at once, a few wait, the rest are told to ask again."""

import math
import threading
import time
from collections import Counter
from collections.abc import Callable

from flask import Flask, g, request
from flask_login import current_user

from reedmace.api.problems import ProblemError
from reedmace.store.accounts import network_of

LONG_SUMS = frozenset(
    {
        "cycle-forecast",
        "cycle-history",
        "cycle-what-if",
        "cycle-method",
        "cycle-advice",
        "rank-filters",
        "room-air",
        "shared-sump",
    }
)
RUNNING, WAITING, WAIT_S = 2, 3, 8.0
"""Of one process, which has more threads than both together; beyond them a long sum is refused at once."""
LOOK_S = 0.1
"""So often one that waits looks whether its keeper is still there."""
RUNNING_OF_ONE, INSIDE_OF_ONE = 1, 3
"""Of one address, so that nobody takes every turn."""
STRANGER_S, STRANGER_SHARE = 20.0, 0.25
"""CPU seconds of long sums an address that is not signed in has at hand, and how much of each second comes back to it."""


class Slots:
    """Turns for the long sums of this process. They say who computes when, never what comes out.

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
        """Wait for a turn where this request is a long sum. Raises a 503 or 429 problem when it is not to have one."""
        if not _is_long():
            return
        who = network_of(request.remote_addr or "")
        stranger = not current_user.is_authenticated
        with self._turn:
            left = STRANGER_S - self._owed(who)
            if stranger and left <= 0:
                raise _spent(-left / STRANGER_SHARE)
            if self._inside.total() >= RUNNING + WAITING or self._inside[who] >= INSIDE_OF_ONE:
                raise _busy()
            self._inside[who] += 1
            try:
                self._wait(who)
            except ProblemError:
                self._give_back(self._inside, who)
                raise
            self._running[who] += 1
        g.slot = (who, self._worked(), stranger)

    def _wait(self, who: str) -> None:
        """Until it is this one's turn. Raises a problem when that takes too long, or nobody waits for the answer any more."""
        gone: Callable[[], bool] = request.environ.get("waitress.client_disconnected", lambda: False)
        end = self._now() + WAIT_S
        while True:
            # Typing on asks anew and hangs up on the question before.
            if gone():
                raise _dropped()
            if self._free(who):
                return
            if self._now() > end:
                raise _busy()
            self._turn.wait(LOOK_S)

    def leave(self, _: BaseException | None) -> None:
        """Give the turn back, and write down what a stranger has used."""
        held = g.pop("slot", None)
        if held is None:
            return
        who, begun, stranger = held
        with self._turn:
            self._give_back(self._running, who)
            self._give_back(self._inside, who)
            if stranger:
                now = self._now()
                self._spent = {w: at for w, at in self._spent.items() if self._owed(w) > 0}
                self._spent[who] = (self._owed(who) + self._worked() - begun, now)
            self._turn.notify_all()

    def _free(self, who: str) -> bool:
        return self._running.total() < RUNNING and self._running[who] < RUNNING_OF_ONE

    def _owed(self, who: str) -> float:
        """Seconds of sums an address has used and not yet got back."""
        spent, at = self._spent.get(who, (0.0, 0.0))
        return max(spent - STRANGER_SHARE * (self._now() - at), 0.0)

    @staticmethod
    def _give_back(counts: Counter[str], who: str) -> None:
        counts[who] -= 1
        if counts[who] <= 0:
            del counts[who]


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


def install(app: Flask) -> Slots:
    """Give `app` its turns."""
    slots = Slots()
    app.before_request(slots.enter)
    app.teardown_request(slots.leave)
    return slots
