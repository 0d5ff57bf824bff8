"""What the load trial types is what the page asks for, and is answered."""

import pytest

from reedmace.command.load_trial import ANIMALS, STAGES, TANK, chosen, keystroke


@pytest.mark.parametrize("stage", sorted(set(STAGES)))
def test_every_keystroke_of_the_trial_is_answered_and_each_is_another(keeper, stage: str) -> None:
    tank = keeper.tank("Load")
    for body in ({"kind": "tank-plan", "tank": TANK}, ANIMALS, chosen()):
        assert keeper.write(tank, body).status_code == 201
    answers = [keeper.send("POST", *keystroke(stage, tank, n)) for n in (3, 4, 123_456)]
    assert [answer.status_code for answer in answers] == [200, 200, 200]
    assert len({answer.text for answer in answers}) == 3
