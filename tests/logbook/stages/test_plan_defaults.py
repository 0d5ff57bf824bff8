"""All plans of a tank, and which of them are assumed."""

from reedmace.logbook.stages.plan_defaults import plans_of
from tests.support.fitting import CHOSEN, NOW, state_of


def test_what_nobody_saved_is_said_to_be_assumed() -> None:
    assert plans_of(state_of(), NOW).assumed == ["tank", "stock", "filter", "fit", "cycle", "kit"]
    saved = plans_of(state_of(CHOSEN), NOW)
    assert "filter" not in saved.assumed
    assert len(saved.filter.filters) == 1
    assert saved.cycle.started_at == NOW
