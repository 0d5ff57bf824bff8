"""Quiet hours and clock times in the keeper's own zone."""

from datetime import UTC, datetime, timedelta

import pytest
from pydantic import ValidationError

from reedmace.notices import NoticeChoice
from reedmace.notices.due import LATE, Pressing, owed

LISBON = NoticeChoice(mail=True, zone="Europe/Lisbon")


def at(text: str) -> datetime:
    return datetime.fromisoformat(text).replace(tzinfo=UTC)


@pytest.mark.parametrize(
    ("now", "ends"),
    [
        ("2026-11-30T21:59", None),
        ("2026-11-30T22:00", "2026-12-01T07:00"),
        ("2026-12-01T03:00", "2026-12-01T07:00"),
        ("2026-12-01T07:00", None),
    ],
)
def test_quiet_hours_reach_over_midnight(now: str, ends: str | None) -> None:
    assert LISBON.quiet_ends(at(now)) == (None if ends is None else at(ends))


def test_quiet_hours_within_a_day_and_none_at_all() -> None:
    noon = LISBON.model_copy(update={"quiet_from": "12:00", "quiet_until": "14:00"})
    assert noon.quiet_ends(at("2026-11-30T13:00")) == at("2026-11-30T14:00")
    assert noon.quiet_ends(at("2026-11-30T23:00")) is None
    never = LISBON.model_copy(update={"quiet_from": "07:00", "quiet_until": "07:00"})
    assert never.quiet_ends(at("2026-11-30T07:00")) is None


def test_the_days_hour_is_local_also_over_the_change_of_the_clocks() -> None:
    # Clocks in Lisbon went back on 2026-10-25: 08:00 is 07:00 UTC the day before, 08:00 UTC after.
    assert owed(LISBON, [], at("2026-10-24T07:00"))[0].due_at == at("2026-10-24T07:00")
    assert owed(LISBON, [], at("2026-10-25T07:30")) == []
    assert owed(LISBON, [], at("2026-10-25T08:00"))[0].once_key == "day:2026-10-25"


def test_an_hour_that_a_clock_skips_comes_once() -> None:
    early = LISBON.model_copy(update={"day_at": "01:30", "zone": "Europe/Lisbon"})
    # 01:00 to 02:00 did not exist on 2026-03-29.
    found = {o.once_key for n in range(24) for o in owed(early, [], at("2026-03-29T00:00") + timedelta(hours=n))}
    assert found == {"day:2026-03-29"}


def test_a_list_comes_late_where_the_worker_was_away_but_not_at_night() -> None:
    assert owed(LISBON, [], at("2026-11-30T08:00") + LATE) == []
    assert len(owed(LISBON, [], at("2026-11-30T08:00") + LATE - timedelta(minutes=1))) == 1


def test_the_week_comes_on_its_day() -> None:
    weekly = LISBON.model_copy(update={"day": False, "week": True, "week_on": 0})
    assert [o.kind for o in owed(weekly, [], at("2026-11-30T08:05"))] == ["week"]
    assert owed(weekly, [], at("2026-12-01T08:05")) == []


def test_a_stall_waits_for_the_morning_and_animals_in_danger_do_not() -> None:
    night = at("2026-11-30T23:30")
    stall, harm = owed(LISBON, [Pressing(1, False), Pressing(2, True)], night)
    assert stall.due_at == at("2026-12-01T07:00")
    assert harm.due_at == night
    asleep = LISBON.model_copy(update={"wake_for_harm": False})
    assert owed(asleep, [Pressing(2, True)], night)[0].due_at == at("2026-12-01T07:00")


def test_without_mail_nothing_is_owed() -> None:
    assert owed(NoticeChoice(), [Pressing(2, True)], at("2026-11-30T12:00")) == []


@pytest.mark.parametrize("wrong", [{"zone": "Nowhere/Town"}, {"day_at": "24:00"}, {"quiet_from": "7"}, {"week_on": 7}])
def test_what_is_no_time_or_zone_is_refused(wrong: dict) -> None:
    with pytest.raises(ValidationError):
        NoticeChoice.model_validate(wrong)
