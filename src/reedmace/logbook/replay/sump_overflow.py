"""A sump filter's second tank: its overflow, drains and run-back as fitted."""

from reedmace.core.filter.kinds import kind_of
from reedmace.core.fit.layout import sump_of_plan
from reedmace.core.flow import OverflowCheckAnswer, overflow_check
from reedmace.core.flow.overflow import OverflowCheckQuestion
from reedmace.core.tank import Sump
from reedmace.logbook.replay.equipment import EquippedFilter


def sump_under(one: EquippedFilter) -> Sump | None:
    """The sump of a sump filter, as measured or at the usual level; None for another kind. one: the filter."""
    return sump_of_plan(one.plan_question) if kind_of(one.filter.kind).rise == "return" else None


def overflow_question(one: EquippedFilter) -> OverflowCheckQuestion | None:
    """A sump's overflow, drains and room, as they are checked and exported; None for a filter without one."""
    q, sump = one.plan_question, sump_under(one)
    if sump is None:
        return None
    mains = [d for d in sump.drains if not d.emergency]
    spare = next((d for d in sump.drains if d.emergency), None)
    fall = (q.stand_height_cm + q.site.water_depth_cm - q.canister_at_cm - sump.level_cm) / 100
    return OverflowCheckQuestion(
        return_lph=max(one.flow.delivered_lph, 10),
        weir_cm=sump.weir_cm,
        drain_bore_mm=min(d.bore_mm for d in mains),
        drains_count=len(mains),
        emergency_bore_mm=spare.bore_mm if spare else None,
        drain_fall_m=min(max(fall, 0.1), 10),
        tank_surface_cm2=max(q.surface_cm2 or 100, 100),
        return_below_surface_cm=1.0 if one.layout.siphon_break else max(one.layout.outlet_depth_cm, 0.0),
        sump_free_l=sump.free_l,
    )


def overflow_of(one: EquippedFilter) -> OverflowCheckAnswer | None:
    """Overflow, drains and run-back of a sump; None for a filter without one."""
    question = overflow_question(one)
    return overflow_check(question) if question is not None else None
