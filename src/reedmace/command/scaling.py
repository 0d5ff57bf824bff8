"""Scaling of the computations with input size, far beyond usual sizes, as a fitted power."""

from collections.abc import Callable, Sequence
from datetime import UTC, datetime, timedelta
from typing import Any

from reedmace.command.speed import FEED_G_DAY, SERVICE_DAYS, SITE, Row, boxes_of_count
from reedmace.command.timing import Timing, exponent, measure
from reedmace.core.filter import deliver, table_of
from reedmace.core.filter.site.site import Plumbing
from reedmace.demo.sample_boxes import SAMPLE_BOXES
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import LogbookState, replay
from reedmace.logbook.rooms.room_view import RoomTank, board_row
from reedmace.logbook.stages.today import today_view

NOW = datetime(2026, 6, 1, 12, tzinfo=UTC)
TESTS_APART = timedelta(days=2)


def _entry(n: int, at: datetime, **body: Any) -> Entry:
    return Entry.model_validate({"id": n + 1, "key": f"growth-{n:08d}", "at": at, "written_at": at, "body": body})


def long_running_state(readings: int) -> list[Entry]:
    """The state of a running tank with a number of tests, the newest now. readings: how many."""
    begun = NOW - TESTS_APART * (readings + 1)
    sponge = next(f for f in SAMPLE_BOXES if f.kind == "sponge").model_dump(mode="json")
    bodies: list[dict[str, Any]] = [
        {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}},
        {"kind": "stock-plan", "animals": [{"species_id": "zebra-danio", "count": 6}]},
        {"kind": "filter-plan", "filters": [{"key": "f1", "filter": sponge}]},
        {"kind": "situation", "stands": "running"},
    ]
    found = [_entry(n, begun, **body) for n, body in enumerate(bodies)]
    test = {"kind": "reading", "ammonia_ppm": 0, "nitrite_ppm": 0, "nitrate_ppm": 20, "ph": 7.4}
    return found + [_entry(n + 4, begun + TESTS_APART * (n + 1), **test) for n in range(readings)]


def _grown(
    what: str, sizes: Sequence[int], make: Callable[[int], Callable[[], Any]], *, held: float = 1.0, fixed: int = 1
) -> Row:
    """One row of the table.

    The smallest and the largest, and the power between the larger half. held: the power aimed at; fixed: sizes skipped,
    where what is paid once weighs more than the size.
    """
    took: list[Timing] = []
    for size in sizes:
        action = make(size)
        action()
        took.append(measure(action, 3))
    power = exponent(sizes[fixed:], [t.cpu_s for t in took[fixed:]])
    spread = f"{took[0].cpu_s * 1000:.3g} to {took[-1].cpu_s * 1000:.3g} ms"
    return (f"{what}, {sizes[0]:,} to {sizes[-1]:,}", f"{spread}; power {power:.2f}", f"power {held:g} or less")


def _flows(size: int) -> Callable[[], Any]:
    table = table_of(boxes_of_count(size))
    return lambda: deliver(table, SITE, Plumbing(), FEED_G_DAY, 25, days=SERVICE_DAYS)


def _replayed(size: int) -> Callable[[], Any]:
    entries = long_running_state(size)
    return lambda: replay(entries)


def _today(size: int) -> Callable[[], Any]:
    state = replay(long_running_state(size))
    # Results are memoized by state, so each measurement uses a state of its own.
    return lambda: today_view(without_memo(state), NOW)


def without_memo(state: LogbookState) -> LogbookState:
    """The same state without memoized results. state: a tank's."""
    return state.model_copy()


def _board(size: int) -> Callable[[], Any]:
    state = replay(long_running_state(60))
    return lambda: [board_row(RoomTank(n + 1, f"Tank {n}", without_memo(state)), NOW) for n in range(size)]


def scaling() -> list[Row]:
    """Scaling with filters, entries, tests and tanks."""
    return [
        _grown("flows of filters", (50, 500, 5000, 50000), _flows),
        _grown("a logbook's entries read", (10, 100, 1000, 10000, 100000), _replayed, held=1.1),
        _grown("Today of a tank with tests", (10, 100, 1000, 5000), _today, fixed=2),
        _grown("board of tanks", (1, 10, 100, 1000), _board),
    ]
