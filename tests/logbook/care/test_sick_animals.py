"""What to check first where animals look unwell."""

from datetime import timedelta

from reedmace.logbook.care.sick_animals import illness
from tests.support.fitting import CHOSEN, NOW, state_of

RUNS = (300, {"kind": "situation", "stands": "running", "since": (NOW - timedelta(days=600)).isoformat()})
STOCK = (300, {"kind": "stock-plan", "animals": [{"species_id": "guppy", "count": 8}]})
ILL = {"kind": "ailing", "signs": ["gasping"], "count": 2, "species_id": "guppy"}


def test_signs_are_open_for_a_fortnight_or_until_all_are_well() -> None:
    assert illness(state_of(RUNS, CHOSEN, STOCK), NOW) is None
    assert illness(state_of(RUNS, CHOSEN, STOCK, (1, ILL)), NOW) is not None
    assert illness(state_of(RUNS, CHOSEN, STOCK, (15, ILL)), NOW) is None
    assert illness(state_of(RUNS, CHOSEN, STOCK, (2, ILL), (1, {"kind": "ailing", "signs": []})), NOW) is None


def test_a_loss_asks_as_well_and_one_moved_does_not() -> None:
    lost = {"kind": "stocking", "species_id": "guppy", "count": -1}
    assert illness(state_of(RUNS, CHOSEN, STOCK, (1, lost)), NOW) is not None
    assert illness(state_of(RUNS, CHOSEN, STOCK, (8, lost)), NOW) is None
    assert illness(state_of(RUNS, CHOSEN, STOCK, (1, {**lost, "moved": True})), NOW) is None


def test_poison_read_lately_comes_first() -> None:
    read = (0.1, {"kind": "reading", "ammonia_ppm": 4, "nitrite_ppm": 0, "ph": 8.2})
    poisoned = illness(state_of(RUNS, CHOSEN, STOCK, read, (0.05, ILL)), NOW)
    assert poisoned is not None
    assert "ammonia" in poisoned.verdict.lower()
