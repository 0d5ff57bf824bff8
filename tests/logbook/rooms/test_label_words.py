"""What stands on a tank's label."""

from datetime import timedelta

from reedmace.logbook.replay.current_plans import DEFAULT_TANK
from reedmace.logbook.rooms.label_words import label_words
from tests.support.fitting import BY_ID, CHOSEN, NOW, state_of

TANK = (90, {"kind": "tank-plan", "tank": DEFAULT_TANK.model_dump()})
STOCK = (90, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 10}]})
RUNS = (80, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=300)).isoformat()})


def test_litres_filter_and_animals_in_a_line_and_what_is_unknown_is_left_out() -> None:
    name = BY_ID["sweetflag-800"].name
    words = label_words(state_of(TANK, STOCK, RUNS, CHOSEN))
    litres, rest = words.split(", ", 1)
    assert litres.endswith(" L")
    assert rest == f"{name}. 10 Guppy"
    assert label_words(state_of(CHOSEN)).startswith(name)
