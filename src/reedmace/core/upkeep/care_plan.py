"""Care plan of a tank: spaced cleanings, water changes, tests and flow tests, with their days.

Times are days from now; what is past is negative. A plan is made anew from the logbook whenever it is asked for, so it
moves by itself when something was done early, late or not at all.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from reedmace.core.contract import Working, computation
from reedmace.core.film import SQUEEZED_SHARE
from reedmace.core.quantity import formatting
from reedmace.core.upkeep.care_schemas import Away, CaredFilter, CarePlanAnswer, CarePlanQuestion, CareTask, CareWhat
from reedmace.core.upkeep.on_round import on_round
from reedmace.core.upkeep.water_tasks import first_soda_day, soda_words, top_up_words

FORTNIGHT_DAYS = 14.0
"""Least days between cleanings of two films (common practice)."""
SETTLE_DAYS = 7.0
"""Days without a cleaning after new animals (common practice)."""
LONGEST_WAIT_DAYS = 14.0
"""Days of poison after which a cleaning as late as that waits no longer for it to go (a stated judgement)."""
CHANGE_MINUTES, CHANGE_SHARE = 20.0, 0.25
"""A quarter of the water is changed and the bed vacuumed weekly (common practice)."""
FLOW_TEST_DAYS, FLOW_TEST_MINUTES = 30.0, 5.0
LOOK_DAYS, LOOK_MINUTES = 7.0, 0.2
"""Days between looks at an air-driven filter's bubbles, and what one takes (common practice: seen in passing)."""
"""The flow is timed monthly, the only view into a closed filter (common practice)."""
TEST_DAYS, NEW_TEST_DAYS, NEW_DAYS, TEST_MINUTES = 30.0, 3.0, 28.0, 10.0
"""A settled tank is tested monthly, one with new animals every few days for four weeks (common practice)."""
GUARD_DAYS, CARBON_DAYS = 10.0, 90.0
"""Days between cleanings of a guard sponge, and life of carbon (common practice)."""
HALF_WAY = 0.5
"""Share of its interval after which a task may be brought forward for an absence (a stated judgement)."""
MUCH_MINUTES = 60.0
"""Minutes a week above which most keepers fall behind (a stated judgement)."""

NEW_ANIMALS = "a week after the new animals"
TROUBLE = "a week after poison was read or a filter stood: the film is left alone"
CHANGE_DAY, WEEK_DAYS = "your day for changes", 7.0
BEFORE_LEAVING, WHEN_BACK = "before you leave", "when you are back"

SOCK_MINUTES, TOP_UP_MINUTES, SMALL_MINUTES = 10.0, 2.0, 3.0

_MINUTES: dict[CareWhat, float] = {
    "flow-test": FLOW_TEST_MINUTES,
    "look": LOOK_MINUTES,
    "guard": SMALL_MINUTES,
    "socks": SOCK_MINUTES,
    "carbon": SMALL_MINUTES,
    "change": CHANGE_MINUTES,
    "test": TEST_MINUTES,
    "soda": SMALL_MINUTES,
    "top-up": TOP_UP_MINUTES,
}
"""Minutes each takes (memory); a cleaning's are its filter's own."""


_URGENCY: dict[CareWhat, int] = {
    "soda": 0,
    "clean": 1,
    "guard": 2,
    "socks": 3,
    "change": 4,
    "test": 5,
    "flow-test": 6,
    "look": 6,
    "carbon": 7,
    "top-up": 8,
}
"""Order of two tasks due on one day: a clogging filter before ageing water."""


@dataclass
class _Round:
    """A recurring task: when it is next due, and its interval."""

    what: CareWhat
    title: str
    why: str
    next_day: float
    every: float
    filter_key: str | None = None


@computation("care-plan", "What is to be done in a tank that lives, and when")
def care_plan(question: CarePlanQuestion) -> CarePlanAnswer:
    """Care of a tank over the coming weeks.

    question: intervals and times in days from now.
    Films are cleaned a fortnight apart and not within a week of new animals; a flow that was measured to fade decides
    before any usual interval; what falls into an absence is done before it, or after where that is not possible.
    On a room's round each task has its walking day.
    Source: intervals common practice, the film a cleaning costs from memory.
    """
    q, w = question, Working()
    tasks = _sorted(t for t in [*_films(q), *_others(q)] if t.what not in q.left_out)
    if q.round_week is not None:
        tasks = _sorted(on_round(tasks, q.round_week))
    minutes = w.line(
        "work",
        "Σ minutes / interval × 7",
        f"{len(q.filters)} filters, changes, tests",
        _minutes(q),
        "min a week",
        "memory",
    )
    crowded = None
    rest = [f.name for f in q.filters if f.every_days < FORTNIGHT_DAYS * (len(q.filters) - 1)]
    if len(q.filters) > 1 and rest:
        crowded = (
            f"{' and '.join(rest)} would want cleaning sooner than the films can rest a fortnight apart: more foam, a"
            " coarser grade, less food or fewer animals."
        )
    return CarePlanAnswer(
        verdict=_verdict(tasks, minutes), working=w.lines, tasks=tasks, weekly_minutes=minutes, crowded=crowded
    )


def _sorted(tasks: Iterable[CareTask]) -> list[CareTask]:
    return sorted(tasks, key=lambda t: (t.in_days, _URGENCY[t.what], -t.late_days, t.filter_key or ""))


def _verdict(tasks: list[CareTask], minutes: float) -> str:
    much = f" About {minutes:.0f} minutes a week: more than most keep up." if minutes > MUCH_MINUTES else ""
    late = [t for t in tasks if t.in_days <= 0]
    if late:
        more = f", and {len(late) - 1} more" if len(late) > 1 else ""
        return f"{late[0].title} now{more}.{much}"
    if not tasks:
        return f"Nothing is due in the coming weeks.{much}"
    return f"Next: {formatting.inside(tasks[0].title)} in {max(tasks[0].in_days, 1):.0f} days.{much}"


def _minutes(q: CarePlanQuestion) -> float:
    total = CHANGE_MINUTES / q.change_every_days + TEST_MINUTES / TEST_DAYS
    for f in q.filters:
        total += f.minutes / max(f.every_days, 1)
        total += LOOK_MINUTES / LOOK_DAYS if f.air else FLOW_TEST_MINUTES / FLOW_TEST_DAYS
        if f.since_socks_days is not None:
            total += SOCK_MINUTES / max(f.socks_every_days, 1)
    if q.top_up is not None:
        total += TOP_UP_MINUTES / max(q.top_up.every_days, 1)
    return 7 * total


def _films(q: CarePlanQuestion) -> Iterator[CareTask]:
    """Cleanings to the horizon, whichever is due first, each a fortnight from the cleaning of another film."""
    several = len(q.filters) > 1
    by_key = {f.key: f for f in q.filters}
    rounds = {f.key: _cleaning(f, several=several) for f in q.filters}
    last = {f.key: -f.since_cleaned_days for f in q.filters}
    while rounds:
        f = by_key[min(rounds, key=lambda key: rounds[key].next_day)]
        due = rounds[f.key]
        if due.next_day > q.horizon_days:
            return
        settled, waits = _settled(q, late_days=-due.next_day)
        others = [day for key, day in last.items() if key != f.key]
        rested = max(others, default=-1e9) + FORTNIGHT_DAYS
        at, moved = max(due.next_day, 0.0), None
        if settled > at:
            at, moved = settled, waits
        if rested > at:
            at, moved = rested, "a fortnight after another film was cleaned"
        at, moved = _home(q.away, at, moved, earliest=max(0.0, settled, rested, last[f.key] + f.every_days * HALF_WAY))
        if at <= q.horizon_days:
            least = last[f.key] + min(f.every_days, FORTNIGHT_DAYS)
            task = _task(due, at, moved, 1 - f.film_share * f.touched_share * SQUEEZED_SHARE)
            rests = min(max(settled, rested, least, 0.0), 4000.0)
            yield task.model_copy(update={"not_before_days": rests, "minutes": f.minutes})
        last[f.key] = at
        due.next_day = at + f.every_days


def _settled(q: CarePlanQuestion, late_days: float) -> tuple[float, str]:
    """Day until which a film is left alone, and why. late_days: since its cleaning was due."""
    # Dirt takes a film's oxygen: where poison is read week after week, a clogged filter may be what makes it.
    clogged = min(late_days, q.poison_for_days) >= LONGEST_WAIT_DAYS
    trouble = None if clogged else q.since_trouble_days
    return max(
        (SETTLE_DAYS - since, words)
        for since, words in ((q.since_animals_days, NEW_ANIMALS), (trouble, TROUBLE), (SETTLE_DAYS, ""))
        if since is not None
    )


def _of(title: str, f: CaredFilter, *, several: bool) -> str:
    """A title with the filter's name where there are several."""
    return f"{title}: {f.name}" if several else title


def _cleaning(f: CaredFilter, *, several: bool) -> _Round:
    title = _of(f.title, f, several=several)
    if f.fades_in_days is not None:
        fallen = "by now it has fallen" if f.fades_in_days <= 0 else "it falls then"
        why = f"Its own flow tests say so: {fallen} to the flow at which keepers clean."
        return _Round("clean", title, why, f.fades_in_days, f.every_days, f.key)
    why = f"About every {f.every_days:.0f} days with this food and foam, until flow tests say better."
    return _Round("clean", title, why, f.every_days - f.since_cleaned_days, f.every_days, f.key)


def _flow_round(f: CaredFilter, *, several: bool) -> _Round:
    """Its flow timed once a month, or its bubbles looked at in passing."""
    if f.air:
        title, why = "Look at its bubbles", "An even stream is all there is to see; a weak one wants stone or valve."
        return _Round("look", _of(title, f, several=several), why, LOOK_DAYS - f.since_look_days, LOOK_DAYS, f.key)
    since = f.since_flow_test_days
    return _Round(
        "flow-test",
        _of("Time the flow", f, several=several),
        "Monthly: it is the only window into it.",
        0.0 if since is None else FLOW_TEST_DAYS - since,
        FLOW_TEST_DAYS,
        f.key,
    )


def _filter_rounds(f: CaredFilter, *, several: bool) -> Iterator[_Round]:
    """What comes round on one filter besides its cleaning. several: whether it is named."""
    yield _flow_round(f, several=several)
    if f.since_guard_days is not None:
        yield _Round(
            "guard",
            _of("Rinse the guard sponge", f, several=several),
            "Before it clogs and strains the pump.",
            GUARD_DAYS - f.since_guard_days,
            GUARD_DAYS,
            f.key,
        )
    if f.since_socks_days is not None:
        yield _Round(
            "socks",
            _of("Wash the socks", f, several=several),
            "Before the water stands at their rim, or slime closes them.",
            f.socks_every_days - f.since_socks_days,
            max(f.socks_every_days, 1.0),
            f.key,
        )
    if f.since_carbon_days is not None:
        yield _Round(
            "carbon",
            _of("Change the carbon", f, several=several),
            "Good carbon lasts about three months.",
            CARBON_DAYS - f.since_carbon_days,
            CARBON_DAYS,
            f.key,
        )


def _others(q: CarePlanQuestion) -> Iterator[CareTask]:
    new = q.since_animals_days is not None and q.since_animals_days < NEW_DAYS
    tested = NEW_TEST_DAYS if new else TEST_DAYS
    rounds = [
        _Round(
            "change",
            f"Change {CHANGE_SHARE:.0%} of the water and vacuum the bed",
            "Nitrate leaves with it, and dirt before it clogs.",
            q.change_every_days - q.since_change_days,
            q.change_every_days,
        ),
        _Round(
            "test",
            "Test ammonia, nitrite, nitrate, pH, KH",
            (
                "New animals are in: every few days for four weeks."
                if new
                else "Once a month a settled tank shows what it hides."
            ),
            tested - q.since_test_days,
            tested,
        ),
    ]
    rounds += [one for f in q.filters for one in _filter_rounds(f, several=len(q.filters) > 1)]
    yield from _water(q)
    for r in rounds:
        earliest = 0.0
        while r.next_day <= q.horizon_days:
            day, why = _on_its_weekday(q, r)
            at, moved = _home(q.away, max(day, 0.0), why, earliest=earliest)
            earliest = at + r.every * HALF_WAY
            if at <= q.horizon_days:
                yield _task(r, at, moved, 1.0)
            r.next_day = at + r.every


def _on_its_weekday(q: CarePlanQuestion, r: _Round) -> tuple[float, str | None]:
    """Day of a task, a change on the keeper's own weekday nearest to it; an overdue one is unchanged.

    Changes twice a week and oftener keep their own days: the nearest weekday would be the same one again.
    """
    if r.what != "change" or q.change_day_in_days is None or r.every <= WEEK_DAYS / 2:
        return r.next_day, None
    at = q.change_day_in_days + WEEK_DAYS * round((r.next_day - q.change_day_in_days) / WEEK_DAYS)
    return (at, CHANGE_DAY if abs(at - r.next_day) >= 1 else None) if at >= 0 else (r.next_day, None)


def _water(q: CarePlanQuestion) -> Iterator[CareTask]:
    """The next top-up and the next baking soda: once each, since either changes what comes after it."""
    if q.top_up is not None and q.top_up.every_days < q.change_every_days:
        title, why = top_up_words(q.top_up)
        due = q.top_up.every_days - q.top_up.since_days
        at, moved = _home(q.away, max(due, 0.0), None, earliest=0.0)
        if at <= q.horizon_days:
            yield _task(_Round("top-up", title, why, due, q.top_up.every_days), at, moved, 1.0)
    if q.kh is None:
        return
    day = first_soda_day(q.kh, q.change_every_days - q.since_change_days, q.change_every_days, q.horizon_days)
    words = None if day is None else soda_words(q.kh, now=day <= 0)
    if day is not None and words is not None:
        at, moved = _home(q.away, day, None, earliest=0.0)
        if at <= q.horizon_days:
            yield _task(_Round("soda", *words, day, q.horizon_days), at, moved, 1.0)


def _task(r: _Round, at: float, moved: str | None, film_left: float) -> CareTask:
    return CareTask(
        what=r.what,
        filter_key=r.filter_key,
        title=r.title,
        why=r.why,
        in_days=min(at, 4000.0),
        late_days=max(-r.next_day, 0.0) if at <= 0 else 0.0,
        moved=moved,
        film_left_share=film_left,
        every_days=min(r.every, 4000.0),
        not_before_days=0.0,
        minutes=_MINUTES.get(r.what, 0.0),
    )


def _home(away: list[Away], at: float, moved: str | None, *, earliest: float) -> tuple[float, str | None]:
    """A day on which the keeper is there: the day before an absence, otherwise the day after it."""
    for a in sorted(away, key=lambda a: a.from_days):
        if a.from_days <= at <= a.to_days:
            before = a.from_days - 1
            at, moved = (before, BEFORE_LEAVING) if before >= earliest else (a.to_days + 1, WHEN_BACK)
    return at, moved
