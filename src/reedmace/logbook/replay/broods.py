"""Broods of a tank, from its logbook: stage, number, age, and what their young make."""

from datetime import datetime, timedelta

from pydantic import AwareDatetime

from reedmace.core.contract import Part
from reedmace.core.memo import memoize
from reedmace.core.stock import SPECIES, Species
from reedmace.core.stock.brood import USUAL_COUNT, early_days, fry_length_cm, fry_load_mg_n_day
from reedmace.core.stock.growth import length_at
from reedmace.logbook.replay.breeding_entries import BroodStep
from reedmace.logbook.replay.current_plans import stock_plan
from reedmace.logbook.replay.state import LogbookState


class Brood(Part):
    """One brood as its steps leave it."""

    key: str
    species_id: str
    begun_at: AwareDatetime
    spawned_at: AwareDatetime | None = None
    hatched_at: AwareDatetime | None = None
    free_at: AwareDatetime | None = None
    count: int | None = None
    length_cm: float | None = None
    measured_at: AwareDatetime | None = None
    lost_count: int = 0
    sold_count: int = 0
    moved_count: int = 0
    over: bool = False

    @property
    def hatched(self) -> bool:
        """Whether young are in the water, as far as written down."""
        return not self.over and (self.hatched_at is not None or self.free_at is not None)


_GONE = {"moved": "moved_count", "sold": "sold_count", "lost": "lost_count"}


@memoize
def broods_of(state: LogbookState) -> list[Brood]:
    """Every brood of a tank, oldest first. state: the tank's."""
    found: dict[str, Brood] = {}
    for e in state.events:
        if isinstance(e.body, BroodStep):
            step = e.body
            brood = found.setdefault(step.brood, Brood(key=step.brood, species_id=step.species_id, begun_at=e.at))
            found[step.brood] = brood.model_copy(update=_after(brood, step, e.at))
    return list(found.values())


def _after(brood: Brood, step: BroodStep, at: datetime) -> dict[str, object]:
    """What a step changes of a brood."""
    changed: dict[str, object] = {"species_id": step.species_id, "over": False}
    if step.length_cm is not None:
        changed |= {"length_cm": step.length_cm, "measured_at": at}
    if step.what in _GONE:
        there = USUAL_COUNT if brood.count is None else brood.count
        went = there if step.count is None else step.count if brood.count is None else min(step.count, there)
        field = _GONE[step.what]
        changed[field] = getattr(brood, field) + went
        # Of a number nobody knows, nobody knows what is left.
        left = None if brood.count is None and step.count is not None else there - went
        return changed | {"count": left, "over": left == 0}
    if step.what == "ended":
        return changed | {"over": True}
    if step.what == "spawned":
        changed["spawned_at"] = at
    elif step.what == "hatched":
        changed["hatched_at"] = at
    elif step.what in ("free-swimming", "came"):
        changed["free_at"] = step.free_at or at
    elif step.what == "counted" and brood.free_at is None:
        # What can be counted swims.
        changed["free_at"] = at
    if step.count is not None and step.what != "spawned":
        changed |= {"count": step.count, "over": step.count == 0}
    return changed


def species_of(state: LogbookState, species_id: str) -> Species | None:
    """A species of the table or of the keeper's own; None where nobody knows it. state: the tank's; species_id: it."""
    own = {s.id: s for s in stock_plan(state).own_species}
    return own.get(species_id) or SPECIES.get(species_id)


def expected_free(state: LogbookState, brood: Brood, temperature_c: float) -> datetime | None:
    """When a brood should swim freely; None where it does, or nothing was laid.

    state: the tank's; brood: one of its; temperature_c: °C.
    """
    species = species_of(state, brood.species_id)
    if brood.free_at is not None or species is None:
        return None
    hatch, swim = early_days(species, temperature_c)
    if brood.hatched_at is not None:
        return brood.hatched_at + timedelta(days=swim)
    return None if brood.spawned_at is None else brood.spawned_at + timedelta(days=hatch + swim)


def fry_age_days(brood: Brood, now: datetime) -> float:
    """Days since it swims freely, 0 where it does not. brood: it; now: aware time."""
    return 0.0 if brood.free_at is None else max((now - brood.free_at).total_seconds() / 86400, 0.0)


def fry_length_now_cm(species: Species, brood: Brood, now: datetime) -> float:
    """Length of its young, by the newest measure or by age, cm. species: theirs; brood: it; now: aware time."""
    if brood.length_cm is not None and brood.measured_at is not None:
        return length_at(species, brood.length_cm, max((now - brood.measured_at).total_seconds() / 86400, 0.0))
    return fry_length_cm(species, fry_age_days(brood, now))


@memoize
def fry_load(state: LogbookState, now: datetime) -> float:
    """Ammonia of all young of a tank, mg N a day, growing by itself. state: the tank's; now: aware time."""
    total = 0.0
    for brood in broods_of(state):
        species = species_of(state, brood.species_id)
        if brood.hatched and brood.free_at is not None and brood.free_at <= now and species is not None:
            count = USUAL_COUNT if brood.count is None else brood.count
            total += count * fry_load_mg_n_day(species, fry_length_now_cm(species, brood, now))
    return total
