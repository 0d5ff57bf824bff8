"""The counter: does this box do for that tank?"""

import pytest

from reedmace.logbook.stages.counter import CounterQuestion, counter_view

GUPPIES = [{"species_id": "guppy", "count": 8}]
CANISTER = {"kind": "canister", "box_lph": 900, "max_head_m": 1.4}
TINY = {"kind": "hang-on", "box_lph": 60}


def asked(**changes):
    return counter_view(CounterQuestion.model_validate({"litres": 100, "animals": GUPPIES, **changes}))


def test_without_a_box_it_says_what_to_ask_for() -> None:
    found = asked()
    assert (found.verdict, found.why) == (found.ask_for, found.ask_why)
    assert found.boxes == []


def test_one_box_is_answered_yes_or_no_by_its_name() -> None:
    yes, no = asked(boxes=[CANISTER]), asked(boxes=[{**TINY, "name": "Thimble"}])
    assert yes.verdict.startswith("Yes: Box 1.")
    assert no.verdict.startswith("No: Thimble.")
    # Whoever hears no hears what to ask for instead.
    assert no.why == no.ask_for


def test_among_several_the_one_that_does_is_named() -> None:
    found = asked(boxes=[TINY, {**CANISTER, "name": "Reed 900"}, TINY])
    assert found.verdict == "Yes: Reed 900, of these 3 alone."
    assert [row.name for row in found.boxes] == ["Box 1", "Reed 900", "Box 3"]
    none = asked(boxes=[TINY, TINY])
    assert none.verdict == "No: none of these does."
    assert none.why.startswith("Ask for ")


def test_a_box_of_no_kind_depends_on_it() -> None:
    assert asked(boxes=[{"box_lph": 600}]).verdict.startswith(("It depends on its kind: Box 1", "Yes: Box 1"))


@pytest.mark.parametrize(
    ("changes", "words"),
    [({}, "fresh water"), ({"animals": []}, "a community, until animals are named"),
     ({"animals": [{"species_id": "ocellaris-clownfish", "count": 2}]}, "salt water")],
)  # fmt: skip
def test_what_was_not_said_is_told(changes: dict, words: str) -> None:
    assert words in asked(**changes).assumed


def test_what_was_said_is_not_assumed() -> None:
    found = asked(water="fresh", behind_cm=10)
    assert len(found.assumed) == 1
    assert found.assumed[0].startswith("the sizes of a usual tank of 100 L")


def test_too_many_animals_are_no_filters_fault() -> None:
    found = asked(litres=20, animals=[{"species_id": "oscar", "count": 3}], boxes=[CANISTER])
    assert found.verdict.startswith("No filter makes up for it:")
