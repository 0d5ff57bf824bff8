"""The practice kit reads in its own ppm, whatever basis it is printed in."""

import pytest

from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.practice.kit import read_kit, true_ppm
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank


@pytest.mark.parametrize(("basis", "share"), [("ion", NITROGEN_SHARE["NH4"]), ("N", 1.0)])
def test_a_kit_reads_in_the_ppm_it_is_printed_in(basis: str, share: float) -> None:
    sample = PracticeTank(Setup(net_l=100), 4).run([Act(0, "dose", 2.0)], 60).samples[-1]
    kit = KitSteps(basis=basis)
    assert true_ppm(sample, kit)["ammonia"] == pytest.approx(2.0 / share, rel=0.02)
    read = read_kit(sample, kit, 4, 60)
    assert (read["basis"], read["ammonia_ppm"]) == (basis, 2)
