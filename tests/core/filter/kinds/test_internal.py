"""The internal filter: in the water it moves."""

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts.steps import StepFacts
from reedmace.core.filter.kinds import kind_of

KIND = kind_of("internal")


def test_nothing_is_lifted_and_nothing_leaves_the_tank() -> None:
    assert KIND.loop_words is not None
    assert "nothing to lift" in KIND.loop_words(0, 0)
    assert KIND.in_tank
    assert KIND.pump_in_water == "yes"
    # Its own mishap asks nothing of the drawing.
    (only,) = KIND.mishaps(None)
    assert (only.depth_cm, only.what) == (0.0, "Nothing leaves the tank")


def test_a_guard_comes_before_power_where_it_is_needed() -> None:
    ids = [s.id for s in KIND.steps(StepFacts(needs_guard=True), Working())]
    assert ids.index("internal-guard") < ids.index("internal-power") < ids.index("internal-aim")
    assert "internal-guard" not in [s.id for s in KIND.steps(StepFacts(), Working())]
