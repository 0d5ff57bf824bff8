"""Run a simulated device against a running Reedmace."""

from datetime import datetime

import pytest

from reedmace.command.simulated_device import readings_of
from tests.support.entries import NOW


@pytest.mark.parametrize("kind", ["test-kit", "thermometer", "ph-probe", "flow-meter", "smart-plug"])
def test_every_stand_in_sends_keys_of_its_own_in_order(kind: str) -> None:
    sent = readings_of(kind, NOW, 10, 600)
    assert len({r["key"] for r in sent}) == len(sent) > 1
    times = [datetime.fromisoformat(r["at"]) for r in sent]
    assert times == sorted(times)
