"""Lessons on several tanks at once: one clock, one play, one filter's media to share."""

import pytest

from reedmace.practice.lesson import lessons
from reedmace.practice.side_by_side import label_of
from reedmace.practice.truth import given_of, true_run
from tests.support.practice import Group, Player

SEVERAL = [one.id for one in lessons().values() if one.side_by_side]


def test_the_bottle_the_power_cut_and_seeded_are_played_side_by_side() -> None:
    assert SEVERAL == ["bottle", "seeded", "power-cut"]


@pytest.mark.parametrize("lesson", SEVERAL)
def test_all_of_them_are_of_one_play_and_each_is_its_own_tank(lesson: str) -> None:
    one, again, other = Group(lesson, 3), Group(lesson, 3), Group(lesson, 4)
    setups = [[given_of(p.practice) for p in group.players] for group in (one, again, other)]
    assert setups[0] == setups[1]
    assert setups[0] != setups[2]
    assert len({p.practice.seed for p in one.players}) == len(one.players)
    assert len({label_of(p.practice) for p in one.players}) == len(one.players)


def test_of_four_bottles_one_is_dead_one_cold_one_acid_in_an_order_of_the_play() -> None:
    orders = set()
    for seed in range(8):
        given = [given_of(p.practice) for p in Group("bottle", seed).players]
        assert sorted(start.bottle for start in given if start.bottle is not None) == [0, 3, 3, 5]
        assert sum(start.setup.warmth_c < 20 for start in given) == 1
        assert sum(start.setup.ph < 7 for start in given) == 1
        orders.add(tuple(start.bottle for start in given))
    assert len(orders) > 3


def test_one_clock_stops_all_at_the_first_danger_and_says_where() -> None:
    group = Group("bottle", 2)
    dead = next(p for p in group.players if given_of(p.practice).bottle == 0)
    dead.write(kind="stocking", species_id="neon-tetra", count=24)
    for _ in range(4):
        passed = group.wait("week")
        if passed.danger:
            break
    assert passed.danger
    assert passed.stopped is not None
    assert passed.stopped.startswith(label_of(dead.practice))
    assert len({p.practice.minutes for p in group.players}) == 1


def test_the_same_night_meets_three_kinds_of_filter_and_a_shut_canister_loses_most() -> None:
    group = Group("power-cut", 5)
    nights = {tuple(m.minute for m in given_of(p.practice).mishaps) for p in group.players}
    assert len(nights) == 1
    while group.players[0].practice.day < 28:
        group.wait("week")
    left = {}
    for player in group.players:
        cut, back = (m.minute for m in given_of(player.practice).mishaps)
        run = true_run(player.practice, player.entries)
        left[label_of(player.practice)] = run.at(back).clears / run.at(cut - 9 * 60).clears
    assert left["Canister"] < left["Hang-on"] < left["Sponge"]


def _seed(group: Group, *shares: float) -> list[Player]:
    new = group.players[1:]
    for player, share in zip(new, shares, strict=True):
        player.begin_cycle(method="seeded-filter", seed_share=share)
    group.share()
    return new


def test_what_is_moved_is_missing_in_the_old_filter_and_no_more_than_was_there_arrives() -> None:
    little, all_of_it = Group("seeded", 6), Group("seeded", 6)
    _seed(little, 0.1, 0.1, 0.1)
    new = _seed(all_of_it, 0.5, 0.5, 0.5)
    assert [p.practice.most_seed for p in new] == [0.5, 0.5, 0.0]
    for group in (little, all_of_it):
        group.wait("day")
    kept, gone = (true_run(g.players[0].practice, g.players[0].entries).samples[-1].clears for g in (little, all_of_it))
    # Three tenths went, and grow again; of the other nothing was left.
    assert gone < 0.1 * kept
    third = true_run(new[2].practice, new[2].entries).samples[-1]
    assert third.clears < 0.05


def test_a_plan_taken_back_before_time_passed_moved_nothing() -> None:
    group = Group("seeded", 6)
    player = _seed(group, 0.5, 0.1, 0.1)[0]
    player.begin_cycle(method="measured-ammonia")
    group.share()
    assert [t.share for t in group.players[0].practice.taken] == pytest.approx([0.1, 0.1 / 0.9])


def test_the_lesson_is_won_where_every_tank_is_and_says_what_was_in_each() -> None:
    group = Group("bottle", 1)
    group.wait("day")
    pages = group.end()
    assert {page.won for page in pages} == {False}
    assert [one.label for one in pages[0].beside] == ["Bottle A", "Bottle B", "Bottle C", "Bottle D"]
    assert sum("Nothing lived" in one.uncovers for one in pages[0].beside) == 1
