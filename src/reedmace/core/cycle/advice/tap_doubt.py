"""Whether the tap brings what changes should take away, and what to do then."""

import math

from reedmace.core.chemistry.tolerance import ammonia_reach, nitrite_limit_mg_n_l
from reedmace.core.cycle.advice.action import Action
from reedmace.core.cycle.animals.emergency import EmergencyPlanAnswer
from reedmace.core.cycle.record.log import CycleLog
from reedmace.core.cycle.record.water_now import WaterNow

HELPED_DAYS, HELPED_SHARE = 3.0, 0.8
"""Days of changes after which a poison should have fallen, and to which share of what it was (memory)."""


THINNED_SHARE = 0.5
"""Share of the old water that may be left for changes to be judged (memory): half at once, or three of a fifth."""


def changes_do_not_help(log: CycleLog, plan: EmergencyPlanAnswer) -> bool:
    """Whether the water was changed over days and a poison over its limit stands as high as before.

    log: the cycle's; plan: for the water as it is.
    """
    since = log.day_now - HELPED_DAYS
    if math.prod(1 - c.share for c in log.changes if c.day >= since) > THINNED_SHARE:
        return False
    for one in plan.limits:
        rows = [(r.day, getattr(r, f"{one.what}_mg_n_l")) for r in log.readings]
        before = [value for day, value in rows if value is not None and since - HELPED_DAYS <= day <= since + 1]
        if one.over and before and one.now_mg_n_l >= HELPED_SHARE * min(before):
            return True
    return False


def tap_brings_poison(log: CycleLog, s: WaterNow) -> bool:
    """Whether the treated tap holds more ammonia than animals bear, as it is or as the nitrite it becomes.

    log: the cycle's; s: its water now.
    """
    brings = log.tap.released_mg_n_l()
    ph = s.ph if s.ph is not None else log.start_ph
    reach = ammonia_reach(brings, ph, log.temperature_now_c(), log.salinity_g_kg)
    return brings >= nitrite_limit_mg_n_l(log.salinity_g_kg) or reach >= 1


def other_water(log: CycleLog) -> Action:
    """Other water for the changes. log: the cycle's."""
    return Action(
        do="other-water",
        title="Take other water for the changes",
        detail=(
            "From a spring, or purified and brought to this KH. Where there is none: a conditioner that binds ammonia"
            " goes into the new water first, and the parts stay small."
        ),
        reason=(
            f"The tap brings {log.ppm(log.tap.released_mg_n_l())} of ammonia once it is treated; the film turns it into"
            " nitrite."
        ),
        when="now",
    )


def tap_test() -> Action:
    """A test of the treated tap."""
    return Action(
        do="test-tap",
        title="Test the tap, treated",
        detail=(
            "A glass of tap water with conditioner: ammonia, nitrite, nitrate. If it brings them, change with other"
            " water: from a spring, or purified and brought to this KH."
        ),
        reason="Days of changes have not brought it down: the tap may bring it, as chloramine does.",
        when="now",
    )
