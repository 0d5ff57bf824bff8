"""What hangs on a practice tank in truth: flows, jugs, faults at the plug, and when the end speaks of them."""

import pytest

from reedmace.logbook.replay.current_plans import filter_plan
from reedmace.practice.equipment import JUG_SCATTER, equipment_of, equipment_words, jugs, make_of, true_flows
from reedmace.practice.starts import usual_box
from reedmace.practice.truth import given_of, true_run
from tests.support.practice import Player


def test_a_filter_moves_what_its_label_promises_here_times_its_make_and_what_dirt_leaves() -> None:
    player = Player("cleaning-day", 3)
    start, state = given_of(player.practice), player.state()
    (clean,) = true_flows(start, 3, state, 1.0)
    (half,) = true_flows(start, 3, state, 0.5)
    assert clean.flow_lph == pytest.approx(clean.promised_lph * make_of(start, 3, "typical-canister-620"))
    assert half.flow_lph == pytest.approx(clean.flow_lph / 2)
    assert 0.75 < make_of(start, 3, "typical-canister-620") < 1.2
    assert make_of(start, 3, "typical-canister-620") != make_of(start, 4, "typical-canister-620")


def test_a_jug_tells_the_true_flow_within_a_hand_s_scatter_and_the_same_twice() -> None:
    player = Player("cleaning-day", 3)
    start, now = given_of(player.practice), true_run(player.practice, player.entries).samples[-1]
    (jug,), again = jugs(player.practice, start, player.entries, now), jugs(player.practice, start, player.entries, now)
    assert again == [jug]
    (true,) = true_flows(start, 3, player.state(), now.flow)
    seconds = jug.container_l / true.flow_lph * 3600
    assert all(abs(t / seconds - 1) < 5 * JUG_SCATTER for t in jug.times_s)


def test_no_water_comes_where_the_filter_stands() -> None:
    player = Player("cleaning-day", 3)
    start, now = given_of(player.practice), true_run(player.practice, player.entries).samples[-1]
    (jug,) = jugs(player.practice, start, player.entries, now._replace(flow=0.0))
    assert jug.times_s == []


def test_a_year_s_dirt_takes_the_flow_and_cleaning_gives_it_back() -> None:
    player = Player("cleaning-day", 3)
    for _ in range(12):
        player.wait("week")
    dirty = true_run(player.practice, player.entries).samples[-1].flow
    player.write(kind="media-work", what="rinsed", share=1.0, filter_key="f1")
    player.wait("day")
    assert dirty < 0.75
    assert true_run(player.practice, player.entries).samples[-1].flow > 0.9


def test_the_end_of_a_lesson_about_water_speaks_of_the_filter_only_where_its_flow_was_timed() -> None:
    player = Player("saturdays-fish", 1)

    def words() -> list[str]:
        start = given_of(player.practice)
        return equipment_words(player.practice, start, player.entries, true_run(player.practice, player.entries))

    assert words() == []
    player.hold_jug()
    assert "you timed" in words()[0]


def test_a_flow_typed_far_from_the_truth_is_not_timed() -> None:
    player = Player("box-label", 2)
    start = given_of(player.practice)
    player.choose(next(iter(start.makes)))

    def timed() -> bool:
        run = true_run(player.practice, player.entries)
        return equipment_of(player.practice, start, player.entries, run).timed

    player.write(kind="flow-test", filter_key=next(iter(start.makes)), container_l=2, times_s=[1.0])
    assert not timed()
    player.hold_jug()
    assert timed()


def test_the_end_says_that_what_hangs_is_none_of_the_boxes_on_the_table() -> None:
    player = Player("box-label", 2)
    start = given_of(player.practice)

    def says() -> bool:
        run = true_run(player.practice, player.entries)
        return any("none of the boxes" in w for w in equipment_words(player.practice, start, player.entries, run))

    assert not says()
    player.choose(next(iter(start.makes)))
    assert not says()
    plan = filter_plan(player.state())
    other = {"key": "f9", "filter": usual_box("hang-on", 500).model_dump(mode="json")}
    player.write(**{**plan.model_dump(mode="json"), "filters": [other]})
    assert says()
