"""A tank that only its litres are known of: it holds them, and looks like one."""

import pytest

from reedmace.core.computations import compute
from reedmace.core.tank import tank_volume


@pytest.mark.parametrize("litres", [1, 10, 60, 180, 400, 5000])
def test_it_holds_its_litres_and_is_as_tanks_are(litres: float) -> None:
    answer = compute("usual-tank", {"litres": litres})
    assert tank_volume(answer.tank).net_l == pytest.approx(litres)
    # Uncounted, its sizes hold about as much.
    sized = tank_volume(answer.tank.model_copy(update={"counted_l": None})).net_l
    assert sized == pytest.approx(litres, rel=0.12, abs=0.5)
    assert answer.tank.length_cm > answer.tank.height_cm > answer.tank.width_cm - 1
    assert f"{answer.tank.length_cm:.0f}" in answer.verdict
