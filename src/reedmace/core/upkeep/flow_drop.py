"""Falls of a filter's flow that dirt does not explain: a sudden one, and one that a cleaning did not mend."""

FELL_SHARE, FELL_WITHIN_DAYS = 0.2, 14.0
"""Loss of flow and days within which it points to another cause than dirt (a stated judgement)."""
BACK_SHARE, BACK_WITHIN_DAYS = 0.85, 400.0
"""Share of the most a filter moved that a good cleaning brings it back to, and of how long ago (a stated judgement)."""

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
    if cleaned_day is None:
        return None
    earlier = [flow for day, flow in flows if cleaned_day - BACK_WITHIN_DAYS <= day < cleaned_day]
    after = [flow for day, flow in flows if cleaned_day <= day <= cleaned_day + FELL_WITHIN_DAYS]
    if not earlier or not after or max(after) >= BACK_SHARE * max(earlier):
        return None
    return f"The last cleaning brought it back to {max(after) / max(earlier):.0%} of the most it moved. Look for:"
