"""Cleaning steps in their order."""

from reedmace.core.filter.kind_parts.cleaning import care_steps


def test_each_step_waits_for_the_one_before() -> None:
    steps = care_steps("box", ("off", "Off", "Unplug."), ("open", "Open", "Slowly.", "Wet hands."), ("on", "On", "Go."))
    assert [s.id for s in steps] == ["box-care-off", "box-care-open", "box-care-on"]
    assert [s.after for s in steps] == [[], ["box-care-off"], ["box-care-open"]]
    assert [s.caution for s in steps] == [None, "Wet hands.", None]
