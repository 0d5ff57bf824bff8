"""The care plan: films apart, nothing forgotten, absences kept free; cleaning steps; the neighbour's page."""

from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from reedmace.core.filter.kinds import KINDS
from reedmace.core.fit import CareStepsQuestion, care_steps_of
from reedmace.core.upkeep import (
    Away,
    CaredFilter,
    CaredKh,
    CaredTopUp,
    CarePlanQuestion,
    HolidayQuestion,
    QuarantineQuestion,
    care_plan,
    holiday_page,
    quarantine,
)
from reedmace.core.upkeep.care_plan import (
    BEFORE_LEAVING,
    FLOW_TEST_DAYS,
    FORTNIGHT_DAYS,
    MUCH_MINUTES,
    SETTLE_DAYS,
    WHEN_BACK,
)
from reedmace.core.upkeep.care_schemas import CHANGE_DAYS

pytestmark = pytest.mark.slow


def cared(key: str = "f1", every: float = 30, since: float = 0, **more: object) -> CaredFilter:
    return CaredFilter(
        key=key, name=f"Filter {key}", title="Squeeze it", every_days=every, since_cleaned_days=since, **more
    )


def tasks(what: str, *filters: CaredFilter, **more: object):
    return [t for t in care_plan(CarePlanQuestion(filters=list(filters), **more)).tasks if t.what == what]


def test_a_filter_comes_round_at_its_own_interval() -> None:
    found = tasks("clean", cared(every=20, since=5), horizon_days=60)
    assert [t.in_days for t in found] == pytest.approx([15, 35, 55])


def test_what_is_late_is_due_now_and_says_by_how_much() -> None:
    first, *_ = tasks("clean", cared(every=20, since=26))
    assert first.in_days == 0
    assert first.late_days == pytest.approx(6)


def test_a_flow_that_was_measured_to_fade_decides_before_the_usual_interval() -> None:
    first, *_ = tasks("clean", cared(every=20, since=0, fades_in_days=3))
    assert first.in_days == pytest.approx(3)
    assert "flow tests" in first.why


def test_two_films_rest_a_fortnight_from_each_other() -> None:
    found = tasks("clean", cared("a", 30, 40), cared("b", 30, 40))
    assert found[0].in_days == 0
    assert found[1].in_days == pytest.approx(FORTNIGHT_DAYS)
    assert "another film" in (found[1].moved or "")


def test_no_film_is_cleaned_in_the_week_of_new_animals() -> None:
    first, *_ = tasks("clean", cared(every=20, since=30), since_animals_days=2)
    assert first.in_days == pytest.approx(SETTLE_DAYS - 2)


def test_no_film_is_touched_in_the_week_after_poison_or_a_stop() -> None:
    first, *_ = tasks("clean", cared(every=20, since=30), since_trouble_days=1)
    assert first.in_days == pytest.approx(SETTLE_DAYS - 1)
    assert "left alone" in (first.moved or "")


def test_poison_read_week_after_week_does_not_keep_a_clogged_filter_shut_for_ever() -> None:
    late = cared(every=20, since=36)
    first, *_ = tasks("clean", late, since_trouble_days=0, poison_for_days=14)
    assert first.in_days == 0
    assert first.moved is None
    # Poison of today, or animals of today, are waited out however late it is.
    for more in ({"since_trouble_days": 0}, {"since_animals_days": 0, "poison_for_days": 14}):
        first, *_ = tasks("clean", late, **more)
        assert first.in_days == 7


def test_what_falls_into_an_absence_is_done_before_or_after_it() -> None:
    away = [Away(from_days=10, to_days=24)]
    before, *_ = tasks("clean", cared(every=20, since=5), away=away)
    assert (before.in_days, before.moved) == (9, BEFORE_LEAVING)
    now = [Away(from_days=0.5, to_days=14)]
    after, *_ = tasks("clean", cared(every=20, since=19), away=now)
    assert (after.in_days, after.moved) == (15, WHEN_BACK)


def test_filters_that_cannot_rest_are_said_to_be_too_many_for_their_dirt() -> None:
    crowded = care_plan(CarePlanQuestion(filters=[cared("a", 5), cared("b", 5)])).crowded
    assert crowded is not None and "fortnight" in crowded  # noqa: PT018 - one sentence
    assert care_plan(CarePlanQuestion(filters=[cared("a", 40), cared("b", 40)])).crowded is None


_filters: st.SearchStrategy[Any] = st.lists(
    st.builds(
        dict,
        every=st.floats(3, 200),
        since=st.floats(0, 400),
        fades_in_days=st.one_of(st.none(), st.floats(-60, 200)),
        since_flow_test_days=st.one_of(st.none(), st.floats(0, 300)),
        since_guard_days=st.one_of(st.none(), st.floats(0, 60)),
        minutes=st.floats(5, 45),
    ),
    min_size=0,
    max_size=4,
)
_away = st.lists(st.tuples(st.floats(-10, 80), st.floats(1, 30)), max_size=2)


@given(_filters, _away, st.one_of(st.none(), st.floats(0, 40)), st.floats(0, 60))
@settings(max_examples=2000)
def test_of_two_thousand_tanks_no_plan_breaks_its_own_rules(filters, away, new, changed) -> None:
    installed = [cared(f"f{i}", **f) for i, f in enumerate(filters)]
    gone = [Away(from_days=a, to_days=a + long) for a, long in away]
    question = CarePlanQuestion(filters=installed, away=gone, since_animals_days=new, since_change_days=changed)
    answer = care_plan(question)
    cleaned = [t for t in answer.tasks if t.what == "clean"]
    for one in cleaned:
        for other in cleaned:
            if one.filter_key != other.filter_key:
                assert abs(one.in_days - other.in_days) >= FORTNIGHT_DAYS - 1e-6
        if new is not None:
            assert one.in_days >= SETTLE_DAYS - new - 1e-6
    # Nothing is forgotten for ever: whatever is due within the horizon is in the plan, or waits for a film's rest or a
    # return.
    last_return = max([0.0, *(a.to_days + 1 for a in gone)])
    assert any(t.what == "change" for t in answer.tasks) or last_return > question.horizon_days - CHANGE_DAYS
    for f in installed:
        due = f.fades_in_days if f.fades_in_days is not None else f.every_days - f.since_cleaned_days
        latest = max(due, 0.0, last_return, SETTLE_DAYS) + FORTNIGHT_DAYS * len(installed) * 2
        if latest <= question.horizon_days and answer.crowded is None:
            assert any(t.filter_key == f.key for t in cleaned)
        timed = any(t.what == "flow-test" and t.filter_key == f.key for t in answer.tasks)
        assert timed or last_return > question.horizon_days - FLOW_TEST_DAYS
    if answer.weekly_minutes > MUCH_MINUTES:
        assert "more than most keep up" in answer.verdict
    assert all(0 <= t.in_days <= question.horizon_days for t in answer.tasks)


@pytest.mark.parametrize("kind", KINDS, ids=lambda k: k.name)
def test_every_kind_is_cleaned_step_by_step_and_ends_with_the_flow_seen(kind) -> None:
    answer = care_steps_of(CareStepsQuestion(kind=kind.name, film_share=0.5, load_mg_n_day=40))
    ids = [s.id for s in answer.steps]
    assert len(set(ids)) == len(ids) >= 4
    # Each step waits for the one before it, so nothing is plugged in before it is filled.
    assert [s.after for s in answer.steps] == [[], *([i] for i in ids[:-1])]
    assert 0 < answer.touched_share <= 0.5
    assert answer.lost_mg_n_day == pytest.approx(0.5 * answer.touched_share * 0.1 * 40)
    words = " ".join(s.detail for s in answer.steps).lower()
    assert "tap water" not in words or "never tap water" in words or "not with chlorinated tap water" in words
    if not kind.needs_air:
        unplugged = next(i for i, s in enumerate(answer.steps) if "unplug" in f"{s.title}{s.detail}{s.caution}".lower())
        plugged = next((i for i, s in enumerate(answer.steps) if "switch on" in s.title), len(ids))
        assert unplugged < plugged


def test_a_part_past_its_time_is_looked_at() -> None:
    old = care_steps_of(CareStepsQuestion(kind="canister", age_days=800))
    assert [p.part for p in old.worn if p.due] == ["O-ring"]
    assert not any(p.due for p in care_steps_of(CareStepsQuestion(kind="canister", age_days=30)).worn)


def test_the_neighbour_is_asked_little_and_never_to_clean() -> None:
    page = holiday_page(HolidayQuestion(days=14, feed_g_day=1.2, filters=["Burreed 20"], before=["Squeeze it"]))
    assert page.portions_count == 7
    assert page.portion_g == pytest.approx(1.2)
    assert page.before[0] == "Squeeze it"
    assert any("Burreed 20" in line for line in page.neighbour)
    assert any("Nothing is cleaned" in line for line in page.neighbour)
    assert holiday_page(HolidayQuestion(days=3, feed_g_day=1)).portions_count == 0
    # A line without words is none.
    empty = holiday_page(HolidayQuestion(days=3, on_return=["", "Wash it"]))
    assert "After a power cut: wash it" in " ".join(empty.neighbour)
    salt = holiday_page(HolidayQuestion(days=10, salt_water=True))
    assert any("never with salt water" in line for line in salt.neighbour)


def test_what_evaporates_is_put_back_before_the_next_change_and_not_where_the_change_does_it() -> None:
    (due,) = tasks("top-up", top_up=CaredTopUp(every_days=3, since_days=1, litres_day=0.8))
    assert due.in_days == pytest.approx(2)
    assert "2.4 L" in due.title
    assert not tasks("top-up", top_up=CaredTopUp(every_days=12), change_every_days=7)
    (salt,) = tasks("top-up", top_up=CaredTopUp(every_days=1, salt_water=True))
    assert "never salted" in salt.title
    assert " L" not in salt.title.replace("L of", "")


def test_bicarbonate_is_due_on_the_day_alkalinity_reaches_its_floor_whatever_the_changes_bring() -> None:
    kh = {"now_dkh": 4, "falls_dkh_day": 0.2, "floor_dkh": 2, "target_dkh": 4}
    (alone,) = tasks("soda", kh=CaredKh(**kh), since_change_days=0)
    assert alone.in_days == pytest.approx(10)
    # With a tap of 6 dKH a quarter a week brings up 0.85 after 1.4 have gone: 4, 2.6, 3.45, 2.05, 3.04: 4.8 days on.
    (later,) = tasks("soda", kh=CaredKh(**kh, tap_dkh=6), since_change_days=0)
    level, day, change = 4.0, 0, 7
    while level - 0.2 > 2:
        day, level = day + 1, level - 0.2
        if day == change:
            level, change = level + 0.25 * (6 - level), change + 7
    assert day <= later.in_days <= day + 1
    assert not tasks("soda", kh=CaredKh(**kh, tap_dkh=12), since_change_days=0)
    assert not tasks("soda", kh=CaredKh(**{**kh, "floor_dkh": 0}))


def test_the_bicarbonate_of_a_plan_is_weighed_and_moves_ph_little_however_low_it_stands() -> None:
    # Two dKH in 100 L are 6.0 g, from 2 dKH up; from 1 dKH half as much, the rest later, and from almost none next to
    # nothing.
    for level, grams in ((2.0, "6 g"), (1.0, "3 g"), (0.2, "0.89 g")):
        (first,) = tasks("soda", kh=CaredKh(now_dkh=level, falls_dkh_day=0.1, floor_dkh=2, target_dkh=8, net_l=100))
        assert first.in_days == 0
        assert f" {grams} of" in first.title
        assert "rest half a day on" in first.why


def test_socks_come_round_by_themselves() -> None:
    found = tasks("socks", cared(since_socks_days=2, socks_every_days=5), horizon_days=30)
    assert [t.in_days for t in found] == pytest.approx([3, 8, 13, 18, 23, 28])
    assert not tasks("socks", cared())


def test_what_is_asked_for_elsewhere_is_neither_in_the_plan_nor_in_its_first_word() -> None:
    question = CarePlanQuestion(filters=[cared(every=40, since=10, since_flow_test_days=1)], since_test_days=29)
    assert "test" in care_plan(question).verdict
    without = care_plan(question.model_copy(update={"left_out": ["test", "change"]}))
    assert {t.what for t in without.tasks} == {"clean", "flow-test"}
    assert without.verdict.lower().startswith(f"next: {without.tasks[0].title.lower()}")


def test_a_short_quarantine_in_salt_water_is_said_to_be_short() -> None:
    assert "6 weeks" in quarantine(QuarantineQuestion(asked_days=28, salt_water=True)).cautions[0]
    assert "weeks" not in quarantine(QuarantineQuestion(asked_days=42, salt_water=True)).cautions[0]
    assert "weeks" not in quarantine(QuarantineQuestion(asked_days=28)).cautions[0]


@pytest.mark.parametrize("every", [1.0, 2.0, 3.0, 3.5, 3.6, 5.0, 7.0, 10.0])
@pytest.mark.parametrize("weekday", [0.0, 2.3, 6.9])
def test_changes_of_any_interval_come_to_an_end_and_keep_their_count(every: float, weekday: float) -> None:
    found = tasks("change", change_every_days=every, change_day_in_days=weekday, horizon_days=60)
    days = [t.in_days for t in found]
    assert days == sorted(set(days))
    assert 0.45 * 60 / every <= len(days) <= 2 * 60 / every + 1
