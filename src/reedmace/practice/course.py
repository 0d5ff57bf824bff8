"""The course of a practice tank, worked out from where it was last: a year is not run anew with every press."""

from collections import OrderedDict
from collections.abc import Sequence
from threading import Lock

from reedmace.practice.lesson import DAY
from reedmace.standins.practice_now import Checkpoint
from reedmace.standins.practice_run import Act, Run
from reedmace.standins.practice_tank import PracticeTank

EVERY_DAYS, MOST_KEPT = 30, 48
"""Days between two checkpoints that may be kept, and how many a process keeps: one of a year is about
2 MB."""
_kept: OrderedDict[tuple[str, int, tuple[Act, ...]], Checkpoint] = OrderedDict()
_lock = Lock()


def course(tank: PracticeTank, acts: Sequence[Act], until: float) -> Run:
    """What became of a tank, to the last figure as `tank.run` tells it. acts: in any order; until: minutes."""
    ordered, name = sorted(acts, key=lambda a: a.minute), repr(tank)
    newest = int(until // (EVERY_DAYS * DAY))

    def key(number: int) -> tuple[str, int, tuple[Act, ...]]:
        return name, number, tuple(a for a in ordered if a.minute < number * EVERY_DAYS * DAY)

    at = tank.begin()
    for number in range(newest, 0, -1):
        with _lock:
            found = _kept.get(key(number))
            if found is not None:
                _kept.move_to_end(key(number))
        if found is not None:
            at = found
            break
    if at.minute < newest * EVERY_DAYS * DAY:
        at = tank.later(at, ordered, newest * EVERY_DAYS * DAY)
        with _lock:
            _kept[key(newest)] = at
            while len(_kept) > MOST_KEPT:
                _kept.popitem(last=False)
    return tank.resume(at, ordered, until)
