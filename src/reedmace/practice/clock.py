"""The practice clock: jumps that stop by themselves at danger, and the strip of days that passed."""

from collections.abc import Sequence
from datetime import datetime
from typing import Annotated, Literal

from pydantic import Field

from reedmace.core.contract import Name, Part, number, whole
from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.quantity import formatting
from reedmace.core.stock.species import SPECIES
from reedmace.logbook.replay.cycle_log import kit_of
from reedmace.logbook.replay.entries import Entry
from reedmace.logbook.replay.state import replay
from reedmace.practice.course import course
from reedmace.practice.kit import place_on, read_kit, steps_of, true_ppm, vial_ppm
from reedmace.practice.lesson import DAY, Given
from reedmace.practice.record import MOST_DAYS, Practice
from reedmace.practice.truth import acts_of, given_of, shown_by, tank_of
from reedmace.standins.practice_run import HOUR, Run, Sample

Until = Literal["next", "day", "week", "change"]
LONGEST_DAYS = 14
"""Longest wait until something changes, or until the next thing to do, days."""
SHORTEST_MINUTES, LEAST_WAIT_H = 30.0, 6.0
"""Least time that passes to the next thing to do, and before a vial is looked at again."""
EVAPORATES_SHARE = 0.008
"""Of the water in a day, topped up by the keeper (memory)."""


class PassedDay(Part):
    """One day of the strip."""

    day: Annotated[int, whole(0, MOST_DAYS + 1)]
    evaporated_l: Annotated[float, number("L", 0, 1e5)]
    fed: bool
    running: bool = Field(description="Whether the filter ran all day")
    seen: list[str] = Field(description="What a keeper would have seen")


class Jump(Part):
    """A jump of the clock: where it stands, what passed, and why it stopped early."""

    minutes: float
    days: list[PassedDay]
    stopped: str | None = Field(description="What stopped it before its time")
    danger: bool


def jump(
    practice: Practice,
    entries: Sequence[Entry],
    until: Until,
    next_due: datetime | None,
    latest: float = MOST_DAYS * DAY,
) -> Jump:
    """Let time pass.

    practice: clock and lesson; entries: of the logbook; until: how far; next_due: of what comes next, aware time;
    latest: minutes beyond which it does not go. The clock stops at the first distress or death, and at a mishap that is
    seen.
    """
    start = given_of(practice)
    target = min(_target(practice, until, next_due), latest)
    run = course(tank_of(practice, start, entries), acts_of(practice, start, entries), target)
    stops = [(minute, words, True) for minute, words in _distress(run) if minute > practice.minutes]
    stops += [(m.minute, m.seen, False) for m in start.mishaps if m.seen and practice.minutes < m.minute <= target]
    kit = kit_of(replay(list(entries)), practice.now())
    if until == "change" and (turned := _vial_turns(practice, run, kit)) is not None:
        stops.append((turned, "A vial would show another colour by now.", False))
    first = min(stops, key=lambda one: one[0], default=None)
    minutes = target if first is None else min(first[0], target)
    return Jump(
        minutes=minutes,
        days=_strip(practice, start, run, minutes),
        stopped=None if first is None else first[1],
        danger=first is not None and first[2],
    )


def _target(practice: Practice, until: Until, next_due: datetime | None) -> float:
    now = practice.minutes
    if until == "day":
        return now + DAY
    if until == "week":
        return now + 7 * DAY
    latest = now + LONGEST_DAYS * DAY
    if until == "change":
        return latest
    if next_due is None:
        return now + DAY
    return min(max(practice.minute_of(next_due), now + SHORTEST_MINUTES), latest)


def _distress(run: Run) -> list[tuple[float, str]]:
    """Moments at which a keeper sees that something is wrong with the animals, and how it looks."""
    looks = {
        "ammonia": "Animals hang at the surface and breathe fast.",
        "nitrite": "Animals breathe fast and are listless; their gills look brown.",
        "want of oxygen": "Everybody distress at the surface.",
        "cold": "Animals lie still on the ground.",
        "heat": "Animals rush about and gasp.",
        "acid water": "Animals are pale and clamp their fins.",
    }
    distress = [(minute, looks[cause]) for minute, cause in run.distress]
    deaths = [(d.minute, f"{d.count} × {species_name(d.species_id)} died.") for d in run.deaths]
    return sorted([*distress, *deaths])


def species_name(species_id: str) -> str:
    """The common name of a species as inside a sentence, or its id for one of the keeper's own."""
    return formatting.inside(SPECIES[species_id].common_name) if species_id in SPECIES else species_id


def _vial_turns(practice: Practice, run: Run, kit: KitSteps) -> float | None:
    """Minute from which the vials read another step than now; None while none does."""
    now = _steps(shown_by(practice, run.at(practice.minutes)), kit)
    later = (s for s in run.samples if s.minute > practice.minutes + LEAST_WAIT_H * HOUR)
    return next((s.minute for s in later if _steps(shown_by(practice, s), kit) != now), None)


def _steps(sample: Sample, kit: KitSteps) -> tuple[int, ...]:
    """The step each vial would read without scatter."""
    true = true_ppm(sample, kit)
    return tuple(round(place_on(printed, true[what])) for what, printed in steps_of(kit).items())


def _strip(practice: Practice, start: Given, run: Run, minutes: float) -> list[PassedDay]:
    """The days from now to `minutes`, with what was seen on each."""
    seen = [
        *_distress(run),
        *((m.minute, m.seen) for m in start.mishaps if m.seen),
    ]
    still = [(a.minute, a.amount) for m in start.mishaps for a in m.acts if a.what == "run"]
    first, last = int(practice.minutes // DAY), int(max(minutes - 1, practice.minutes) // DAY)
    days = []
    for day in range(first, last + 1):
        begins, ends = max(day * DAY, practice.minutes), min((day + 1) * DAY, minutes)
        words = [what for minute, what in sorted(seen) if begins < minute <= ends]
        days.append(
            PassedDay(
                day=day,
                evaporated_l=EVAPORATES_SHARE * start.setup.net_l * (ends - begins) / DAY,
                fed=practice.setting("feed", 1.0) > 0 and run.at(ends).alive > 0,
                running=not any(begins < minute <= ends for minute, amount in still if amount == 0.0),
                seen=words,
            )
        )
    return days


class VialPlaces(Part):
    """What the vials show: a place between the steps of the keeper's own kit each, drops of KH, pH."""

    minute: float
    ammonia: Annotated[float, number("steps", 0, 20)]
    nitrite: Annotated[float, number("steps", 0, 20)]
    nitrate: Annotated[float, number("steps", 0, 20)]
    reads: dict[Name, float] = Field(description="KH in dKH and pH, which are counted and matched, not judged by eye")


def vial_places(sample: Sample, kit: KitSteps, seed: int, minute: float) -> VialPlaces:
    """Where each vial's colour stands on the kit's scale. sample: the true water; seed: of the kit's scatter."""
    shown, read = vial_ppm(sample, kit, seed, minute), read_kit(sample, kit, seed, minute)
    return VialPlaces(
        minute=minute,
        **{what: place_on(printed, shown[what]) for what, printed in steps_of(kit).items()},
        reads={"kh_dkh": read["kh_dkh"], "ph": read["ph"], "temperature_c": read["temperature_c"]},
    )
