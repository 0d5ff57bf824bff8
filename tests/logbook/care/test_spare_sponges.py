"""Spare sponges of a tank: where they are, and their film."""

from datetime import timedelta

from reedmace.logbook.care.spare_sponges import seeds
from tests.support.fitting import CHOSEN, NOW, state_of

SEED = (20, {"kind": "seed", "name": "Left sponge"})


def move(phase: str, days: float, **more: object):
    return (days, {"kind": "seed-move", "seed_key": "due-0002", "phase": phase, **more})


def test_it_seeds_until_it_is_taken_out_and_again_when_it_is_brought_back() -> None:
    (one,) = seeds(state_of(CHOSEN, SEED), NOW)
    assert (one.where, one.question.days_seeding, one.ready_at) == ("seeding", 20, NOW + timedelta(days=10))
    (back,) = seeds(state_of(CHOSEN, SEED, move("out", 5), move("back", 4.9)), NOW)
    assert (back.where, back.out_at, back.question.days_seeding) == ("seeding", None, 20)


def test_on_the_way_the_clock_runs_and_once_in_it_has_stopped() -> None:
    (out,) = seeds(state_of(CHOSEN, SEED, move("out", 1 / 24, travels="damp", temperature_c=30)), NOW)
    assert (out.where, round(out.question.minutes_out), out.question.travels) == ("on-the-way", 60, "damp")
    (moved,) = seeds(state_of(CHOSEN, SEED, move("out", 2), move("in", 2 - 1 / 24, to="Bench")), NOW)
    assert (moved.where, moved.moved_to, round(moved.question.minutes_out)) == ("moved", "Bench", 60)
    assert moved.question.days_seeding == 18


def test_a_sponge_written_down_as_media_work_counts_too_and_the_oldest_stands_first() -> None:
    old = (40, {"kind": "media-work", "what": "seeding-started", "text": "Old one. Behind the heater"})
    found = seeds(state_of(CHOSEN, SEED, old), NOW)
    assert [one.name for one in found] == ["Old one", "Left sponge"]
    assert found[0].answer.state == "ready"
