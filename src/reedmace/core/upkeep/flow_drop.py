"""Falls of a filter's flow that dirt does not explain, and the flow that counts as clean after a cleaning in part."""

import math
from itertools import pairwise

FELL_SHARE, FELL_WITHIN_DAYS = 0.2, 14.0
"""Loss of flow and days within which it points to another cause than dirt (a stated judgement)."""
BACK_SHARE, BACK_WITHIN_DAYS = 0.85, 400.0
"""Share of the most a filter moved that a good cleaning brings it back to, and of how long ago (a stated judgement)."""

AGAIN_DAYS = 30.0
"""Days between two cleanings that together open all of the media (a stated judgement)."""

Timed = tuple[float, float]
"""(day, L/h) of one flow test."""


def sudden_fall(flows: list[Timed]) -> str | None:
    """A sudden drop between the last two tests, in words; None where it fades as dirt does, or rose.

    flows: oldest first.

    >>> sudden_fall([(0, 700), (6, 500)])
    'It fell by 29% within 6 days: dirt is slower than that. Look for:'
    """
    if len(flows) < 2:
        return None
    (before, was), (day, flow) = flows[-2:]
    if day - before > FELL_WITHIN_DAYS or flow > (1 - FELL_SHARE) * was:
        return None
    days = max(day - before, 0.0)
    span = "a day" if days < 1.5 else f"{days:.0f} days"
    return f"It fell by {1 - flow / was:.0%} within {span}: dirt is slower than that. Look for:"


def not_brought_back(flows: list[Timed], cleaned_day: float | None) -> str | None:
    """That the last cleaning did not bring the flow back, in words; None where it did, or was not timed soon after.

    flows: oldest first; cleaned_day: of the last cleaning, None before any.

    >>> not_brought_back([(0, 700), (60, 480), (71, 540)], cleaned_day=70)
    'The last cleaning brought it back to 77% of the most it moved. Look for:'
    """
    share = None if cleaned_day is None else _brought_back(flows, cleaned_day)
    if share is None or share >= BACK_SHARE:
        return None
    return f"The last cleaning brought it back to {share:.0%} of the most it moved. Look for:"


def _brought_back(flows: list[Timed], cleaned_day: float) -> float | None:
    """Share of the most it moved that a cleaning brought the flow back to; None where no test tells."""
    earlier = [flow for day, flow in flows if cleaned_day - BACK_WITHIN_DAYS <= day < cleaned_day]
    after = [flow for day, flow in flows if cleaned_day <= day <= cleaned_day + FELL_WITHIN_DAYS]
    return max(after) / max(earlier) if earlier and after else None


def clean_flow(flows: list[Timed], cleaned_days: list[float]) -> float | None:
    """The flow in L/h that counts as clean since the last cleaning; None where nothing was timed, or none is cleaned.

    A cleaning of half the media leaves half of the dirt, so that the first flow after it is no clean one: the most it
    moved within 400 days is. Two cleanings soon after one another that bring no more back have opened all of the media:
    what is missing then is another cause's, and what it moved before counts no longer.

    flows, cleaned_days: oldest first.

    >>> clean_flow([(0, 700), (60, 480), (71, 540)], [70])
    700
    """
    if not flows or not cleaned_days:
        return None
    begun = -math.inf
    for first, second in pairwise(cleaned_days):
        known = [(day, flow) for day, flow in flows if day >= begun]
        shares = [_brought_back(known, day) for day in (first, second)]
        if second - first <= AGAIN_DAYS and all(s is not None and s < BACK_SHARE for s in shares):
            begun = second
    since = max(begun, cleaned_days[-1] - BACK_WITHIN_DAYS)
    return max((flow for day, flow in flows if day >= since), default=None)
