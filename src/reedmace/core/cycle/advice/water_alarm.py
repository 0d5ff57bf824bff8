"""Whether living animals are in danger by the newest tests, and whether a tank is to be watched."""

from reedmace.core.chemistry.tolerance import (
    ANY_HIGH_C,
    ANY_LOW_C,
    ANY_PH_HIGH,
    ANY_PH_LOW,
    UNTESTED_PH,
    ammonia_reach,
    nitrite_limit_mg_n_l,
)
from reedmace.core.cycle.animals.day_plan import EmergencyPlanQuestion
from reedmace.core.cycle.animals.emergency import POISONS, EmergencyPlanAnswer, emergency_plan
from reedmace.core.cycle.judgement.filter_stop import WATCH_DAYS
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.nitrification import film_at_work
from reedmace.core.cycle.record.proof import film_damage
from reedmace.core.cycle.record.proven_load import proven_capacity
from reedmace.core.cycle.record.targets import breathe_water_share, tolerance_of
from reedmace.core.cycle.record.water_now import WaterNow, untreated_changes, water_now
from reedmace.core.memo import memoize
from reedmace.core.quantity.units import NITROGEN_SHARE

KNOWN_DAYS, PH_BEFORE_DAYS = 14.0, 60.0
"""Age in days up to which a test says what the water is, and days that pH is looked back (memory)."""


STALE_DAYS, SETTLED_STALE_DAYS = 1.2, 8.0
"""Days after which a test in a new tank, and in a settled one, is due again (common practice: daily, weekly)."""


@memoize
def emergency_today(log: CycleLog) -> EmergencyPlanAnswer | None:
    """The emergency plan for the water as the log leaves it.

    log: the cycle's, with animals in. Each poison counts by its own newest test; None where nobody tested a poison
    lately and neither warmth nor pH is out of bounds.
    """
    s = water_now(log)
    plan = emergency_plan(_emergency_question(log, s))
    read = len(plan.untested) < len(POISONS) or any(one.over for one in plan.limits)
    return plan if read or plan.in_danger else None


@memoize
def is_stable(log: CycleLog) -> bool:
    """Whether a tank is settled and nothing in the last week calls for daily tests. log: the cycle's.

    A poison over its limit does, and whatever may have killed much film: it shows days later.
    """
    since = log.day_now - WATCH_DAYS
    if not log.settled() or film_damage(log, since) is not None:
        return False
    most = nitrite_limit_mg_n_l(log.salinity_g_kg)
    s = water_now(log)
    if _cycled_unseen(log, s):
        return False
    ph = s.ph if s.ph is not None else max(log.start_ph, UNTESTED_PH)
    # A newest test over its limit counts however old it is: nothing has shown that it passed.
    if ammonia_reach(_ammonia(log, s) if s.ammonia else 0.0, ph, s.temperature, log.salinity_g_kg) > 1:
        return False
    if s.nitrite is not None and s.nitrite[1] > most:
        return False
    late = [r for r in log.readings if r.day >= since]
    first = first_step_mg_n_l(log)
    return not any(
        ((r.ammonia_mg_n_l or 0.0) > first
         and ammonia_reach(r.ammonia_mg_n_l or 0.0, r.ph or ph, s.temperature, log.salinity_g_kg) > 1)
        or (r.nitrite_mg_n_l or 0.0) > most
        for r in late
    )  # fmt: skip


UNSEEN_DAYS = 90.0
"""Days after which a cycle with animals in is over even where nobody tested: the longest that is quoted (common
practice).
"""
LATE_ENOUGH_DAYS = 28.0
"""Days with animals in from which a test tells of a cycle's end: ammonia and nitrite have risen by then (common
practice).
"""


def _cycled_unseen(log: CycleLog, s: WaterNow) -> bool:
    """Whether animals came into a tank without film and nothing shows that it has grown: six weeks prove nothing then.

    A poison was never read late, or ammonia stands and neither nitrite nor nitrate was ever seen to come of it.
    """
    stocked = log.stocked_day
    if log.method != "animals-in" or stocked is None or stocked < -1 or log.day_now - stocked > UNSEEN_DAYS:
        return False
    if s.ammonia is not None and s.ammonia[1] > log.kit.zero_mg_n_l("ammonia") and not film_at_work(log):
        return True
    return any(read is None or read[0] - stocked < LATE_ENOUGH_DAYS for read in (s.ammonia, s.nitrite))


def needs_watching(log: CycleLog) -> bool:
    """Whether the cycle's own advice speaks before the care plan. log: the cycle's, with animals in."""
    plan = emergency_today(log)
    return not is_stable(log) or in_danger_now(log) or (plan is not None and any(one.over for one in plan.limits))


def in_danger_now(log: CycleLog) -> bool:
    """Whether the animals cannot wait: their water is out of bounds, or untreated water went in. log: the cycle's."""
    plan = emergency_today(log)
    return bool(untreated_changes(log)) or (plan is not None and plan.in_danger)


def is_known(log: CycleLog, read: tuple[float, float] | None) -> bool:
    """Whether a figure was read lately enough to say what the water is. log: the cycle's; read: (day, value)."""
    return read is not None and log.day_now - read[0] <= KNOWN_DAYS


def _ph_before(log: CycleLog) -> float | None:
    since = log.day_now - PH_BEFORE_DAYS
    return max((r.ph for r in log.readings if r.ph is not None and r.day >= since), default=None)


MOST_FIRST_STEP_MG_N_L = 0.25 * NITROGEN_SHARE["NH4"]
"""Largest first step of an ammonia kit that may be an eye's slip, mg N/L: a quarter of a ppm (common practice)."""


def first_step_mg_n_l(log: CycleLog) -> float:
    """Ammonia up to which one reading may be a slip, mg N/L: the kit's first step, or a usual kit's where it is coarse.

    log: the cycle's.
    """
    first = min(step for step in log.kit.steps_mg_n_l("ammonia") if step > 0)
    return 1.05 * min(first, MOST_FIRST_STEP_MG_N_L)


def _ammonia(log: CycleLog, s: WaterNow) -> float:
    """Ammonia as an alarm counts it, mg N/L: a settled tank's first step of the kit, read once, at its lower edge.

    Many eyes read the first step where there is none; a second test decides (common practice).
    """
    rows = sorted((r.day, r.ammonia_mg_n_l) for r in log.readings if r.ammonia_mg_n_l is not None)
    before = rows[-2][1] if len(rows) > 1 and rows[-1][0] - rows[-2][0] <= KNOWN_DAYS else 0.0
    # Where film was hurt lately a trace is believed at once.
    trusted = log.settled() and film_damage(log, log.day_now - WATCH_DAYS) is None
    once = trusted and s.ammonia_now <= first_step_mg_n_l(log) and before <= log.kit.zero_mg_n_l("ammonia")
    return s.ammonia_now / 2 if once else s.ammonia_now


def _emergency_question(log: CycleLog, s: WaterNow) -> EmergencyPlanQuestion:
    bearing = tolerance_of(log)
    ph = s.ph if s.ph is not None else max(log.start_ph, UNTESTED_PH)
    read, ph_read = is_known(log, log.latest("temperature_c")), is_known(log, log.latest("ph"))
    oxygen = log.latest("oxygen_mg_l")
    # An old or planned figure serves the sums, within the bounds of any animal, and is no alarm.
    if not ph_read:
        ph = min(max(ph, ANY_PH_LOW), ANY_PH_HIGH)
    temperature = s.temperature if read else min(max(s.temperature, ANY_LOW_C), ANY_HIGH_C)
    return EmergencyPlanQuestion(
        net_l=log.net_l,
        litres_known=log.litres_known,
        ammonia_mg_n_l=_ammonia(log, s) if is_known(log, s.ammonia) else None,
        nitrite_mg_n_l=s.nitrite[1] if s.nitrite and is_known(log, s.nitrite) else None,
        nitrate_mg_n_l=s.nitrate[1] if s.nitrate else None,
        ph=ph,
        before_ph=_ph_before(log) if ph_read else None,
        settled=log.settled(),
        kh_known=s.kh_now is not None or not log.settled(),
        kh_dkh=min(s.kh_now if s.kh_now is not None else log.start_kh_dkh, 40),
        temperature_c=temperature,
        temperature_known=log.warmth_measured(),
        salinity_g_kg=log.salinity_g_kg,
        # What the filter is known to clear does not stay in the water.
        load_mg_n_l_day=max(log.animals_in_mg_n_l_day - proven_capacity(log), 0.0),
        tap=log.tap,
        bottle=log.bottle,
        animals_low_c=bearing.low_c if read else None,
        animals_high_c=bearing.high_c if read else None,
        animals_ph_low=bearing.ph_low,
        animals_ph_high=bearing.ph_high,
        oxygen_mg_l=oxygen[1] if oxygen and is_known(log, oxygen) else None,
        breathe_water_share=breathe_water_share(log),
        basis=log.kit.basis,
    )
