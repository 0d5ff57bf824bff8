"""The practice kit reads in its own ppm, whatever basis it is printed in."""

import pytest

from reedmace.core.cycle.record.log import KitSteps
from reedmace.core.quantity.units import NITROGEN_SHARE
from reedmace.practice.begin import begin
from reedmace.practice.kit import read_kit, true_ppm
from reedmace.practice.lesson import lessons
from reedmace.practice.mishaps import SentMishap
from reedmace.practice.truth import shown_by
from reedmace.standins.practice_run import Act, Setup
from reedmace.standins.practice_tank import PracticeTank
from tests.support.practice import NOW, Player


@pytest.mark.parametrize(("basis", "share"), [("ion", NITROGEN_SHARE["NH4"]), ("N", 1.0)])
def test_a_kit_reads_in_the_ppm_it_is_printed_in(basis: str, share: float) -> None:
    sample = PracticeTank(Setup(net_l=100), 4).run([Act(0, "dose", 2.0)], 60).samples[-1]
    kit = KitSteps(basis=basis)
    assert true_ppm(sample, kit)["ammonia"] == pytest.approx(2.0 / share, rel=0.02)
    read = read_kit(sample, kit, 4, 60)
    assert (read["basis"], read["ammonia_ppm"]) == (basis, 2)


def test_a_nitrite_test_gone_blind_shows_none_from_then_on_and_another_kit_does() -> None:
    tank = PracticeTank(Setup(net_l=100), 4)
    run = tank.run([Act(0, "nitrite", 1.0)], 600)
    practice, _ = begin(lessons()["first-cycle"], 4, NOW)
    sent = SentMishap(kind="nitrite-blind", minute=300)
    blind = practice.model_copy(update={"mishaps": [sent]})
    assert shown_by(practice, run.at(600)) == run.at(600)
    assert shown_by(blind, run.at(240)).no2 == run.at(240).no2
    assert shown_by(blind, run.at(360)).no2 == 0
    assert read_kit(shown_by(blind, run.at(360)), KitSteps(), 4, 360)["nitrite_ppm"] == 0


def test_a_mishap_nobody_sees_stops_no_clock_and_is_told_at_the_end() -> None:
    player = Player("first-cycle", 4)
    sent = SentMishap(kind="nitrite-blind", minute=player.practice.minutes + 300)
    player.practice = player.practice.model_copy(update={"mishaps": [sent]})
    passed = player.wait("day")
    assert (passed.stopped, [seen for day in passed.days for seen in day.seen]) == (None, [])
    assert any("went blind" in words for words in player.end().happened)
