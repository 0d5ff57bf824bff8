"""Every kind is complete: order, names, words, tests of flow, care."""

import pytest

from reedmace.core.contract import Working
from reedmace.core.filter.kind_parts.kind import FilterKind
from reedmace.core.filter.kind_parts.steps import StepFacts
from reedmace.core.filter.kinds import KINDS

EACH = pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.name)


def test_they_have_an_order_and_names_of_their_own() -> None:
    assert [k.order for k in KINDS] == sorted({k.order for k in KINDS})
    for names in ([k.name for k in KINDS], [k.prefix for k in KINDS], [k.title for k in KINDS]):
        assert len(set(names)) == len(KINDS)


@EACH
def test_steps_are_named_for_it_and_wait_only_for_steps_it_has(kind: FilterKind) -> None:
    ids = [s.id for s in kind.steps(StepFacts(needs_guard=True), Working())]
    assert len(set(ids)) == len(ids)
    assert all(one.startswith(f"{kind.prefix}-") for one in ids)
    looks = {look[0] for found in kind.inspections.values() for look in found}
    for step, before in kind.after.items():
        assert step in ids
        assert set(before) <= {*ids, *looks}
    assert set(kind.inspections) <= set(ids)


@EACH
def test_it_says_what_happens_when_the_power_goes_and_how_its_flow_is_proved(kind: FilterKind) -> None:
    cut = kind.power_cut
    assert all(len(words) > 20 for words in (cut.minute, cut.hour, cut.night, cut.on_return))
    assert kind.proofs
    assert len(kind.causes) >= 3
    assert 0 < kind.care.share <= 1
    assert kind.care.minutes > 0
    assert all(0 <= value <= 1 for value in vars(kind.judged).values())


@EACH
def test_it_says_what_it_is_good_and_poor_at_and_what_is_in_the_box(kind: FilterKind) -> None:
    about = kind.about
    assert min(len(about.called), len(about.good), len(about.poor), len(about.in_box)) >= 1
    assert about.how.endswith(".")
