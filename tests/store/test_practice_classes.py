"""Classes: opened, joined by their code, led and forgotten."""

from datetime import timedelta

import peewee
import pytest

from reedmace.practice.mishaps import SentMishap
from reedmace.practice.record import Practice
from reedmace.store import practice_classes
from reedmace.store.practice import PracticeTanks
from reedmace.store.practice_classes import (
    CODE_LENGTH,
    KEPT_FOR,
    LETTERS,
    ClassFullError,
    ClassRow,
    NoSuchClassError,
    PracticeClasses,
)
from tests.store.conftest import NOW


@pytest.fixture
def classes(database: peewee.Database) -> PracticeClasses:
    return PracticeClasses(database)


def opened(classes: PracticeClasses, teacher: int) -> ClassRow:
    return classes.open(teacher, "first-cycle", 7, "beside", NOW)


def tank(*, ended: bool = False):
    return lambda: ("Play", Practice(lesson="first-cycle", seed=7, began_at=NOW, minutes=5, ended=ended), [])


def test_a_code_leads_to_its_class_for_a_month_however_it_is_typed(classes: PracticeClasses, account) -> None:
    teacher = account()
    one = opened(classes, teacher)
    assert len(one.code) == CODE_LENGTH
    assert set(one.code) <= set(LETTERS)
    assert not set("01IO") & set(LETTERS)
    assert classes.by_code(f" {one.code.lower()} ", NOW) == one
    assert classes.by_code(one.code, NOW + KEPT_FOR + timedelta(seconds=1)) is None
    with pytest.raises(NoSuchClassError):
        classes.get(account(), one.id)


def test_each_learner_has_one_place_until_they_are_taken(
    classes: PracticeClasses, account, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(practice_classes, "MOST_SEATS", 2)
    one, first, second = opened(classes, account()), account(), account()
    seat = classes.join(one, first, "Ada", tank())
    assert classes.join(one, first, "Ada again", tank()) == seat
    classes.join(one, second, "Bo", tank())
    with pytest.raises(ClassFullError):
        classes.join(one, account(), "Cy", tank())
    assert [s.name for s in classes.seats(one.id)] == ["Ada", "Bo"]
    found = classes.of_tank(seat)
    assert found is not None
    assert (found[0].id, found[1]) == (one.id, "Ada")


def test_a_mishap_goes_to_those_that_still_run(database: peewee.Database, classes: PracticeClasses, account) -> None:
    one, first, second = opened(classes, account()), account(), account()
    running = classes.join(one, first, "Ada", tank())
    over = classes.join(one, second, "Bo", tank(ended=True))
    assert classes.send(one.id, lambda now: SentMishap(kind="power-cut", minute=now.minutes)) == 1
    assert [m.minute for m in PracticeTanks(database, first).get(running).mishaps] == [5]
    assert PracticeTanks(database, second).get(over).mishaps == []


def test_the_clock_is_stopped_and_the_truth_uncovered_each_by_itself(classes: PracticeClasses, account) -> None:
    teacher = account()
    one = opened(classes, teacher)
    classes.control(one.id, stopped=True)
    classes.control(one.id, uncovered=True)
    classes.control(one.id)
    now = classes.get(teacher, one.id)
    assert (now.stopped, now.uncovered) == (True, True)


def test_a_class_is_forgotten_and_its_learners_keep_their_tanks(
    database: peewee.Database, classes: PracticeClasses, account
) -> None:
    teacher, learner = account(), account()
    one = opened(classes, teacher)
    seat = classes.join(one, learner, "Ada", tank())
    with pytest.raises(NoSuchClassError):
        classes.close(learner, one.id)
    classes.close(teacher, one.id)
    assert classes.all(teacher) == []
    assert classes.of_tank(seat) is None
    assert PracticeTanks(database, learner).get(seat).seed == 7
