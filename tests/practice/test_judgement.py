"""The page at the end: the same decision gives the same run, another is told with what it cost."""

import pytest

from reedmace.practice.decisions import advice_at, advised_acts
from reedmace.practice.judgement import end_page
from reedmace.practice.truth import acts_of, given_of, tank_of, true_run
from tests.support.practice import Player


def waited(changes: bool) -> Player:
    player = Player("saturdays-fish", 3)
    for _ in range(12):
        if changes:
            player.follow()
        player.wait("day")
    return player


def test_waiting_it_out_is_what_cost_most() -> None:
    page = waited(changes=False).end()
    assert page.lost_count > 0
    assert not page.won
    worst = max(page.decisions, key=lambda d: d.lost_more_count)
    assert worst.lost_more_count > 0
    assert page.cost_most is not None
    # Animals at four each, less the water that was not changed.
    assert worst.money_more == pytest.approx(4 * worst.lost_more_count, abs=3)
    assert f"about {worst.money_more:.2f}" in page.cost_most
    assert "without a water change" in page.mistake
    assert f"Day {worst.day:.0f}" in page.cost_most
    assert sum(d.followed for d in page.decisions) < len(page.decisions)


def test_who_follows_the_advice_has_nothing_that_cost() -> None:
    page = waited(changes=True).end()
    assert page.lost_count == 0
    assert page.cost_most is None
    assert len(page.good) >= 1
    assert all(d.lost_more_count <= 0 for d in page.decisions)


def test_truth_and_readings_stand_side_by_side() -> None:
    player = waited(changes=True)
    page, run = player.end(), true_run(player.practice, player.entries)
    assert page.truth[-1].ammonia_mg_n_l == pytest.approx(run.samples[-1].tan, abs=0.3)
    tests = [e for e in player.entries if e.body.kind == "reading"]
    assert len(page.read) == len(tests)


def test_a_decision_as_advised_is_the_run_itself_exactly() -> None:
    # Followed to the letter, nothing is run again: its cost is exactly nothing.
    page = end_page(*(lambda p: (p.practice, p.entries))(waited(changes=True)))
    costs = [(d.lost_more_count, d.days_longer, d.litres_more, d.money_more) for d in page.decisions if d.followed]
    assert costs
    assert set(costs) == {(0, 0, 0, 0)}


def test_a_dose_given_as_advised_is_as_strong_as_the_one_poured() -> None:
    player = Player("first-cycle", 6)
    player.begin_cycle(method="measured-ammonia")
    player.follow()
    player.wait("week")
    start = given_of(player.practice)
    acts, tank = acts_of(player.practice, start, player.entries), tank_of(player.practice, start, player.entries)
    poured = next(a for a in acts if a.what == "dose")
    number = next(n for n, e in enumerate(player.entries) if e.body.kind == "dose")
    advice = advice_at(player.practice, player.entries[:number], poured.minute)
    assert advice is not None
    assert poured in advised_acts(advice, tank, (poured.minute, 1e4))


def test_rinsing_under_the_tap_is_told_as_a_decision_and_squeezing_is_not() -> None:
    followed = {}
    for what in ("rinsed", "rinsed-tap"):
        player = waited(changes=True)
        player.follow()
        player.write(kind="media-work", what=what, share=1)
        player.wait("week")
        followed[what] = player.end().decisions[-1].followed
    assert followed == {"rinsed": True, "rinsed-tap": False}
