"""The worker's rounds: what is due goes out once, what was dealt with does not, failures wait and are told."""

import re
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from reedmace.logbook.replay.entries import NewEntry
from reedmace.notices import MailServerError, NoticeChoice, queue
from reedmace.store import Notices
from reedmace.store.notices import LEASE, MOST_TRIES

NOW = datetime(2026, 11, 30, 12, 0, tzinfo=UTC)
CHOSEN = NoticeChoice(mail=True, day=False)
_keys = iter(range(1, 10_000))


def poisoned(tanks, now: datetime = NOW) -> int:
    """A tank with animals in and ammonia far over what they bear."""
    tank = tanks.make("Kiln room", now - timedelta(days=40)).id
    bodies: list[dict[str, Any]] = [
        {"kind": "tank-plan", "tank": {"length_cm": 60, "width_cm": 30, "height_cm": 36}},
        {"kind": "stocking", "species_id": "zebra-danio", "count": 10},
    ]
    for body in bodies:
        write(tanks, tank, body, now - timedelta(days=30))
    write(tanks, tank, {"kind": "reading", "ammonia_ppm": 4.0, "nitrite_ppm": 0.0, "ph": 8.2, "temperature_c": 26}, now)
    return tank


def write(tanks, tank: int, body: dict, at: datetime) -> None:
    entry = NewEntry.model_validate({"key": f"notice-{next(_keys):06d}", "at": at, "body": body})
    tanks.add(tank, entry, at)


def choose(worker, account_id: int, choice: NoticeChoice = CHOSEN, now: datetime = NOW) -> None:
    Notices(worker.database).choose(account_id, choice.model_dump(mode="json"), now)


def rounds(worker, start: datetime, count: int = 3, every: timedelta = timedelta(minutes=6)) -> None:
    for n in range(count):
        worker.round(start + n * every)


def test_animals_in_danger_are_mailed_once_with_the_action_and_a_link(worker, account, tanks) -> None:
    who = account()
    tank = poisoned(tanks(who))
    choose(worker, who)
    rounds(worker, NOW, 4)
    (mail,) = worker.mail.sent
    assert mail["Subject"].startswith("Kiln room: ")
    text = mail.get_body(("plain",)).get_content()
    assert f"https://reedmace.example/tanks/{tank}/" in text
    assert re.search(r"\d", text)
    assert mail["List-Unsubscribe-Post"] == "List-Unsubscribe=One-Click"


def test_of_a_tank_dealt_with_before_it_goes_out_nothing_is_sent(worker, account, tanks) -> None:
    who = account()
    mine = tanks(who)
    tank = poisoned(mine, NOW)
    night = NoticeChoice(mail=True, day=False, quiet_from="11:00", quiet_until="13:00", wake_for_harm=False)
    choose(worker, who, night)
    worker.round(NOW)
    assert worker.mail.sent == []
    for n in (1, 2):
        write(mine, tank, {"kind": "water-change", "share": 0.9}, NOW + timedelta(minutes=n))
    clean = {"kind": "reading", "ammonia_ppm": 0.0, "nitrite_ppm": 0.0, "ph": 7.2, "temperature_c": 25}
    write(mine, tank, clean, NOW + timedelta(minutes=9))
    rounds(worker, NOW + timedelta(hours=1, minutes=1))
    assert worker.mail.sent == []


def test_what_comes_back_after_it_was_well_is_told_again(worker, account, tanks) -> None:
    who = account()
    mine = tanks(who)
    tank = poisoned(mine)
    choose(worker, who)
    rounds(worker, NOW)
    for n in (1, 2):
        write(mine, tank, {"kind": "water-change", "share": 0.9}, NOW + timedelta(hours=1, minutes=n))
    clean = {"kind": "reading", "ammonia_ppm": 0.0, "nitrite_ppm": 0.0, "ph": 7.2, "temperature_c": 25}
    write(mine, tank, clean, NOW + timedelta(hours=2))
    rounds(worker, NOW + timedelta(hours=3))
    assert len(worker.mail.sent) == 1
    again = {"kind": "reading", "ammonia_ppm": 4.0, "nitrite_ppm": 0.0, "ph": 8.2, "temperature_c": 26}
    write(mine, tank, again, NOW + timedelta(days=2))
    rounds(worker, NOW + timedelta(days=2, minutes=1))
    assert len(worker.mail.sent) == 2


def test_the_days_list_comes_once_a_day_and_not_where_nothing_is_due(worker, account, tanks) -> None:
    who, idle = account(), account()
    poisoned(tanks(who), NOW - timedelta(days=1))
    listed = NoticeChoice(mail=True, at_once=False, day=True, day_at="12:00")
    for one in (who, idle):
        choose(worker, one, listed)
    rounds(worker, NOW, 5)
    rounds(worker, NOW + timedelta(days=1), 3)
    assert [m["Subject"].partition(":")[0] for m in worker.mail.sent] == ["Today", "Today"]
    assert len({m["Message-ID"] for m in worker.mail.sent}) == 2


def test_the_weeks_list_names_the_days(worker, account, tanks) -> None:
    who = account()
    poisoned(tanks(who), NOW - timedelta(days=1))
    choose(worker, who, NoticeChoice(mail=True, at_once=False, day=False, week=True, week_on=0, day_at="12:00"))
    rounds(worker, NOW)
    (mail,) = worker.mail.sent
    assert mail["Subject"].startswith("This week: ")


def test_a_helper_is_told_of_the_tanks_it_helps_with_until_the_help_ends(worker, account, tanks) -> None:
    from reedmace.store import Households

    owner, helper = account(), account()
    poisoned(tanks(owner))
    token = Households(worker.database, owner).invite("helper", NOW)
    Households(worker.database, helper).accept(token, NOW)
    choose(worker, helper)
    rounds(worker, NOW)
    assert len(worker.mail.sent) == 1
    member = Households(worker.database, helper).helps()[0].id
    Households(worker.database, helper).part(member)
    Notices(worker.database).add(helper, "press:harm:again", "at-once", NOW, tank_id=1)
    rounds(worker, NOW + timedelta(hours=1))
    assert len(worker.mail.sent) == 1


def test_nothing_of_practice_is_mailed(worker, account, tanks) -> None:
    from reedmace.practice.begin import begin
    from reedmace.practice.lesson import lessons

    who = account()
    practice, entries = begin(lessons()["saturdays-fish"], 5, NOW - timedelta(days=30))
    tanks(who).bring_practice("Practice", entries, NOW, practice)
    choose(worker, who, NoticeChoice(mail=True, day_at="12:00"))
    rounds(worker, NOW)
    assert worker.mail.sent == []


def test_nothing_goes_to_an_address_nobody_confirmed(worker, account, tanks) -> None:
    who = account(confirmed=False)
    poisoned(tanks(who))
    choose(worker, who)
    rounds(worker, NOW)
    assert worker.mail.sent == []


def test_a_failure_waits_longer_each_time_and_a_refused_mail_is_shown_to_the_operator(worker, account, tanks) -> None:
    who = account()
    poisoned(tanks(who))
    choose(worker, who)
    worker.mail.fails[:] = [MailServerError("away"), MailServerError("away"), MailServerError("away")]
    tried = []
    for minute in range(12):
        before = len(worker.mail.fails)
        worker.round(NOW + timedelta(minutes=minute))
        if len(worker.mail.fails) < before or worker.mail.sent:
            tried.append(minute)
        if worker.mail.sent:
            break
    assert tried == [0, 1, 3, 7]
    queue(Notices(worker.database), "told", who, NOW, text="The password was changed.")
    worker.mail.fails.append(MailServerError("550 no such box", for_good=True))
    worker.round(NOW + timedelta(hours=1))
    ((email, dead),) = Notices(worker.database).dead()
    assert email.endswith("@yard.example")
    assert "550" in dead.error


def test_after_many_tries_it_is_given_up(worker, account) -> None:
    who, at = account(), NOW
    queue(Notices(worker.database), "told", who, NOW, text="x")
    worker.mail.fails[:] = [MailServerError("away") for _ in range(MOST_TRIES)]
    for _ in range(MOST_TRIES + 5):
        worker.send(at)
        at += timedelta(hours=1, minutes=1)
    assert worker.mail.sent == []
    assert Notices(worker.database).counts() == {"dead": 1}


def test_of_two_workers_one_sends_and_a_dead_ones_share_is_taken_over(worker, account) -> None:
    who = account()
    notices = Notices(worker.database)
    for _ in range(5):
        queue(notices, "told", who, NOW, text="x")
    taken = notices.claim(NOW)
    assert len(taken) == 5
    assert notices.claim(NOW + LEASE / 2) == []
    assert [n.id for n in notices.claim(NOW + LEASE + timedelta(seconds=1))] == [n.id for n in taken]


def test_what_was_sent_while_the_database_was_away_is_told_to_it_later_and_not_sent_again(
    worker, account, monkeypatch
) -> None:
    import peewee

    who = account()
    queue(Notices(worker.database), "told", who, NOW, text="x")
    real = Notices.end

    def away(*_, **__):
        raise peewee.OperationalError(2013, "lost")

    monkeypatch.setattr(Notices, "end", away)
    with pytest.raises(peewee.OperationalError):
        worker.send(NOW)
    monkeypatch.setattr(Notices, "end", real)
    rounds(worker, NOW + LEASE * 2)
    assert len(worker.mail.sent) == 1
    assert Notices(worker.database).counts() == {"sent": 1}


def test_a_name_with_line_breaks_or_markup_stays_text(worker, account, tanks) -> None:
    who = account()
    mine = tanks(who)
    mine.rename(poisoned(mine), "Hall\nBcc: x@y.example <b>")
    choose(worker, who)
    rounds(worker, NOW)
    (mail,) = worker.mail.sent
    assert mail["Bcc"] is None
    assert "<b>" not in mail.get_body(("html",)).get_content()


def test_decimals_are_written_as_the_keeper_writes_them(worker, account, tanks) -> None:
    from reedmace.store import Accounts

    who = account()
    poisoned(tanks(who))
    Accounts(worker.database).choose_units(who, {"volume": "L", "decimal": ","})
    choose(worker, who)
    rounds(worker, NOW)
    (mail,) = worker.mail.sent
    html = mail.get_body(("html",)).get_content()
    assert "line-height: 1.25" in html
    # A signed link may hold a figure with a point by chance.
    said = re.sub(r"https://\S+", "", mail.get_body(("plain",)).get_content())
    assert re.search(r"\d,\d", said)
    assert not re.search(r"\d\.\d", said)
