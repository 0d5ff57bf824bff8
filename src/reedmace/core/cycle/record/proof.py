"""Proof of capacity: what counts as zero, as a cleared dose, and as proof that the filter carries a load.

A proof is a dose that was seen in the water, or came from a bottle whose doses are seen, tested 20 to 28 hours later
with ammonia and nitrite both at the kit's zero, with no other dose and no change between; twice, on two days at least
20 hours apart. It falls when film may have died since, and must then be made again (common practice, made strict: a dud
bottle, two doses in an hour, a change before the test or a zero that comes late prove nothing).
"""

from bisect import bisect_left
from dataclasses import dataclass
from itertools import pairwise
from typing import Literal

from reedmace.core.chemistry.salinity import is_fresh
from reedmace.core.cycle.record.film_losses import Loss, film_losses, stopped_film
from reedmace.core.cycle.record.log import CycleLog, LoggedDose, LoggedReading
from reedmace.core.cycle.record.suspect_readings import suspect_readings
from reedmace.core.cycle.record.water_now import HOT_C
from reedmace.core.film import grown_share, temperature_factor
from reedmace.core.memo import memoize

TEST_FROM_H, TEST_UNTIL_H, SLACK_H = 20.0, 28.0, 0.25
APART_H = 20.0
NEEDED = 2
SEEN_WITHIN_H, SEEN_SHARE = 12.0, 0.3
"""A dose is seen when a test within these hours reads at least this share of its expected rise.

From memory: the share leaves room for a coarse kit and a fast film.
"""
STIRRED_SHARE = 0.02
"""A change smaller than this dilutes nothing a kit could show (memory)."""
FALLS_AT_SHARE = 0.15
"""Loss of bacteria from which a proof no longer holds (memory, cautious)."""
USUAL_COOLING_C = 4.0
"""Cooling between an empty tank and one with animals that no proof is asked afresh for, °C (common practice)."""
HOT_HOLDS = 0.5
"""Share of a proof that holds in water over 33 °C (memory)."""
RUNNING_DAYS, STANDS_DAYS, SPEAKS_DAYS = 7.0, 5.0, 14.0
"""Largest distance of two cleared doses with none failed between, age of the newer, and days a cleared dose counts for
capacity (memory).
"""
SIZE_SLACK = 0.97
LEAST_FALL_DAYS = 0.5
"""Shortest interval for a fall; over less it is within a kit's scatter (memory)."""

Outcome = Literal["cleared", "not-seen", "changed", "dosed-again", "failed", "no-test", "too-soon", "doubtful"]


@dataclass(frozen=True)
class CheckedDose:
    """One dose checked for proof: its day and size (mg N/L), the day of its test, and the outcome."""

    day: float
    raise_mg_n_l: float
    tested_day: float | None
    outcome: Outcome


def is_zero(log: CycleLog, reading: LoggedReading) -> bool:
    """Whether both ammonia and nitrite were read and both are at this kit's zero, neither off the scale.

    A range that reaches above zero is no zero.

    log: whose kit it is; reading: one test.
    """
    return is_full(reading) and not reading.off_scale and not shows_poison(log, reading)


def shows_poison(log: CycleLog, reading: LoggedReading) -> bool:
    """Whether ammonia or nitrite was read, or may be, above this kit's zero. log: whose kit; reading: one test."""
    poisons: tuple[Literal["ammonia", "nitrite"], ...] = ("ammonia", "nitrite")
    return any((reading.at_most_mg_n_l(what) or 0.0) > log.kit.zero_mg_n_l(what) for what in poisons)


def is_full(reading: LoggedReading) -> bool:
    """Whether both poisons were tested. reading: one test."""
    return reading.ammonia_mg_n_l is not None and reading.nitrite_mg_n_l is not None


def is_seen(log: CycleLog, dose: LoggedDose) -> bool:
    """Whether a test soon after a dose found it in the water, which a dead bottle never shows.

    log: the cycle's; dose: of it.
    """
    least = max(SEEN_SHARE * dose.raise_mg_n_l, log.kit.zero_mg_n_l("ammonia") * 1.001)
    return any(
        0 < r.day - dose.day <= SEEN_WITHIN_H / 24 and r.ammonia_mg_n_l is not None and r.ammonia_mg_n_l >= least
        for r in log.readings
    )


BOTTLE_KNOWN_DAYS = 14.0
"""Days before and after a dose that was seen for which others of its bottle are believed (a stated judgement)."""


@memoize
def _seen_days(log: CycleLog) -> list[float]:
    """Days of the doses that a test found in the water."""
    return [dose.day for dose in _joined(log.doses) if is_seen(log, dose)]


def is_believed(log: CycleLog, dose: LoggedDose) -> bool:
    """Whether a dose was in the water: seen there, or from a bottle of which another was seen about that time.

    log: the cycle's; dose: of it.
    """
    return any(abs(day - dose.day) <= BOTTLE_KNOWN_DAYS for day in _seen_days(log))


def bottle_is_known(log: CycleLog) -> bool:
    """Whether a dose given today would be believed without a test an hour later. log: the cycle's."""
    return is_believed(log, LoggedDose(day=log.day_now, raise_mg_n_l=0.0))


NEVER_BY_H = 1.0
"""Hours after which a dose stirred in would show in a test (memory)."""
STEP_SEEN, STEP_OWED = 0.9, 1.2
"""Rise of nitrate, in first steps of the kit, that counts as seen, and the dose needed to expect one (memory)."""


def ammonia_never_seen(log: CycleLog) -> bool:
    """Whether ammonia was dosed and no later test found any of it: not as ammonia, nitrite or nitrate.

    log: the cycle's. A dead bottle reads so, or a dead kit. Where plants or a film from elsewhere may have taken it
    between two tests, only nitrate that was read and did not rise with what was dosed tells (common practice).
    """
    if not log.doses or not log.doses_ammonia():
        return False
    first = min(d.day for d in log.doses)
    since = [r for r in log.readings if r.day >= first + NEVER_BY_H / 24 and r.ammonia_mg_n_l is not None]
    if not since or any(shows_poison(log, r) for r in since):
        return False
    nitrate = [r.nitrate_mg_n_l for r in since if r.nitrate_mg_n_l is not None]
    step = log.kit.steps_mg_n_l("nitrate")[1]
    if nitrate and max(nitrate) >= log.first_nitrate_mg_n_l() + STEP_SEEN * step:
        return False
    hungry = log.plants != "none" or log.method != "measured-ammonia" or bool(log.helpers)
    # Expected in the newest nitrate test: doses after it cannot show in it.
    tested = max((r.day for r in since if r.nitrate_mg_n_l is not None), default=first)
    dosed = sum(d.raise_mg_n_l for d in log.doses if d.day < tested)
    return not hungry or (log.plants == "none" and bool(nitrate) and dosed > STEP_OWED * step)


def _outcome(
    log: CycleLog, dose: LoggedDose, weak: set[float], full: list[LoggedReading]
) -> tuple[float | None, Outcome]:
    """Outcome of one dose. weak: days of doubtful figures; full: tests of both poisons, by day."""
    first, last = dose.day + (TEST_FROM_H - SLACK_H) / 24, dose.day + (TEST_UNTIL_H + SLACK_H) / 24
    at = bisect_left(full, first, key=lambda r: r.day)
    # The first test in its time window decides: a later zero came too late.
    test = full[at] if at < len(full) and full[at].day <= last else None
    if test is None:
        return None, "too-soon" if log.day_now <= last else "no-test"
    if any(dose.day < d.day < test.day for d in log.doses):
        return test.day, "dosed-again"
    if any(dose.day <= c.day < test.day and c.share > STIRRED_SHARE for c in log.changes):
        return test.day, "changed"
    if not is_zero(log, test):
        return test.day, "failed"
    if test.day in weak:
        return test.day, "doubtful"
    return test.day, "cleared" if is_believed(log, dose) else "not-seen"


@memoize
def checked_doses(log: CycleLog) -> list[CheckedDose]:
    """Every dose with its outcome, by day. log: the cycle's. Doses within an hour of each other are one."""
    weak = {d.day for d in suspect_readings(log) if d.what in ("ammonia", "nitrite")}
    full = sorted((r for r in log.readings if is_full(r)), key=lambda r: r.day)
    found: list[CheckedDose] = []
    for dose in _joined(log.doses):
        tested, outcome = _outcome(log, dose, weak, full)
        found.append(CheckedDose(dose.day, dose.raise_mg_n_l, tested, outcome))
    return found


def _joined(doses: list[LoggedDose]) -> list[LoggedDose]:
    """Doses by day; portions made within an hour count as one dose made with the last."""
    found: list[LoggedDose] = []
    for dose in sorted(doses, key=lambda d: d.day):
        if found and dose.day - found[-1].day <= 1 / 24:
            before = found.pop()
            dose = LoggedDose(day=dose.day, raise_mg_n_l=before.raise_mg_n_l + dose.raise_mg_n_l)
        found.append(dose)
    return found


def proof_share(log: CycleLog, day: float) -> float:
    """Share of a day's proof that holds in today's water: less in colder or hot water, nothing across fresh and salt.

    log: the cycle's; day: of the proof. A few degrees are usual between an empty tank and one with animals.
    """
    warm = _newest_before(log, day, "temperature_c", log.temperature_c)
    salty = _newest_before(log, day, "salinity_g_kg", log.salinity_g_kg)
    now = _newest_before(log, log.day_now, "salinity_g_kg", log.salinity_g_kg)
    if is_fresh(salty) != is_fresh(now):
        return 0.0
    today = log.temperature_now_c()
    if today > HOT_C:
        return HOT_HOLDS
    return 1.0 if warm - today <= USUAL_COOLING_C else temperature_factor(today) / temperature_factor(warm)


def _newest_before(log: CycleLog, day: float, field: str, otherwise: float) -> float:
    rows = [(r.day, getattr(r, field)) for r in log.readings if r.day <= day + 1 and getattr(r, field) is not None]
    newest: float = max(rows, key=lambda row: row[0], default=(0.0, otherwise))[1]
    return newest


@memoize
def cleared_doses(log: CycleLog, at_least_mg_n_l: float) -> list[CheckedDose]:
    """Cleared doses of a size, each at least 20 hours after the one before it, by day.

    log: the cycle's; at_least_mg_n_l: their least size, mg N/L.
    """
    found: list[CheckedDose] = []
    for one in checked_doses(log):
        if one.outcome != "cleared" or one.raise_mg_n_l * proof_share(log, one.day) < SIZE_SLACK * at_least_mg_n_l:
            continue
        if not found or one.day - found[-1].day >= APART_H / 24:
            found.append(one)
    return found


def voiding_loss(log: CycleLog, since_day: float) -> Loss | None:
    """The newest event that may have cost so much bacteria that no older proof holds; None where there is none.

    log: the cycle's; since_day: what happened before it does not matter.
    """
    return _voiding([loss for loss in (*film_losses(log), *stopped_film(log)) if loss.day > since_day])


def film_damage(log: CycleLog, since_day: float) -> Loss | None:
    """The newest event after a day that may have killed much film, or small ones together; None where there is none.

    log: the cycle's; since_day: what happened before it does not matter. A film that only stands still is not dead.
    """
    return _voiding([loss for loss in film_losses(log) if loss.day > since_day])


def _voiding(after: list[Loss]) -> Loss | None:
    found: Loss | None = None
    added_up: list[Loss] = []
    for loss in sorted(after, key=lambda one: one.day):
        added_up.append(loss)
        if _lost_together(added_up) < FALLS_AT_SHARE:
            continue
        words = loss.what if len(added_up) == 1 else f"{len(added_up)} small losses added up, the last when {loss.what}"
        found, added_up = Loss(loss.day, _lost_together(added_up), words), []
    return found


def _lost_together(losses: list[Loss]) -> float:
    """Share of bacteria lost by the last of some losses: what grew back since each earlier one is off."""
    left = 1.0
    for loss in losses:
        left *= 1 - loss.share * (1 - grown_share(losses[-1].day - loss.day))
    return 1 - left


def poison_since(log: CycleLog, day: float) -> bool:
    """Whether a test after `day` found a poison that no dose of the last 20 hours explains. log: the cycle's."""
    return any(
        r.day > day + 0.01
        and shows_poison(log, r)
        and not any(0 <= r.day - d.day < TEST_FROM_H / 24 for d in log.doses)
        for r in log.readings
    )


def standing_proof(log: CycleLog, size_mg_n_l: float) -> tuple[list[CheckedDose], Loss | None]:
    """The cleared doses that still count towards a proof of a size, and the event that voided older ones.

    log: the cycle's; size_mg_n_l: dose to be cleared, mg N/L.
    """
    cleared = cleared_doses(log, size_mg_n_l)
    if not cleared:
        return [], None
    loss = voiding_loss(log, cleared[0].day)
    newest = cleared[-1].day
    breaks = [one.day for one in checked_doses(log) if one.outcome == "failed" and one.day < newest]
    since = max([newest - RUNNING_DAYS, *breaks, *([loss.day] if loss is not None else [])])
    kept = [one for one in cleared if one.day >= since]
    if not kept or log.day_now - (kept[-1].tested_day or 0.0) > STANDS_DAYS:
        return [], loss
    return kept, loss


def falling_capacity(log: CycleLog) -> float:
    """Capacity from the newest fall of both poisons together, mg N/L a day; 0 where none was seen.

    log: the cycle's. Two tests at least half a day apart, both poisons read in both, nothing added or changed between,
    and ammonia with nitrite fallen by more than the kit's first step: what is gone of both has become nitrate. Film
    lost since voids it.
    """
    tests = sorted((r for r in log.readings if is_full(r)), key=lambda r: r.day)
    done = [d.day for d in log.doses] + [c.day for c in log.changes]
    step = 2 * log.kit.zero_mg_n_l("ammonia")
    for before, after in reversed(list(pairwise(tests))):
        days = after.day - before.day
        was, now = (_both(r) for r in (before, after))
        made = log.animals_in_mg_n_l_day * days
        if days < LEAST_FALL_DAYS or was is None or now is None or was - now + made <= step:
            continue
        if any(before.day < day <= after.day for day in done):
            continue
        if log.day_now - after.day > SPEAKS_DAYS or voiding_loss(log, after.day) is not None:
            return 0.0
        return (was - now + made) / days
    return 0.0


def _both(reading: LoggedReading) -> float | None:
    """Ammonia plus nitrite, mg N/L; None where either is off the scale."""
    if "ammonia" in reading.off_scale or "nitrite" in reading.off_scale:
        return None
    return (reading.ammonia_mg_n_l or 0.0) + (reading.nitrite_mg_n_l or 0.0)


__all__ = [
    "NEEDED",
    "SEEN_WITHIN_H",
    "SIZE_SLACK",
    "STANDS_DAYS",
    "TEST_FROM_H",
    "TEST_UNTIL_H",
    "CheckedDose",
    "Outcome",
    "checked_doses",
    "cleared_doses",
    "falling_capacity",
    "is_believed",
    "is_full",
    "is_zero",
    "poison_since",
    "proof_share",
    "shows_poison",
    "standing_proof",
    "voiding_loss",
]
