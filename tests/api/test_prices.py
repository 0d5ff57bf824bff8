"""Every computation has been priced, and none that is dear goes without a turn."""

from pathlib import Path

import pytest

from reedmace.api.concurrency import LONG_SUMS
from reedmace.core.computations import COMPUTATIONS

DEAR_MS = 100
TABLE = Path(__file__).resolve().parents[2] / "docs" / "prices.md"


def prices() -> dict[str, tuple[float, bool]]:
    """Of each computation in the table: the dearest answer in ms, and whether it says that it takes turns."""
    rows = [line.split("|")[1:-1] for line in TABLE.read_text().splitlines() if line.startswith("| `")]
    return {row[0].strip().strip("`"): (max(float(row[1]), float(row[2])), row[4].strip() == "yes") for row in rows}


def test_every_computation_is_priced() -> None:
    assert set(prices()) == set(COMPUTATIONS)
    assert set(COMPUTATIONS) >= LONG_SUMS


@pytest.mark.parametrize("name", sorted(COMPUTATIONS))
def test_what_may_take_long_takes_turns(name: str) -> None:
    most_ms, takes_turns = prices()[name]
    assert takes_turns == (name in LONG_SUMS)
    assert most_ms <= DEAR_MS or name in LONG_SUMS
