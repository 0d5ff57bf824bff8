"""Due tasks as iCalendar, read back by a library."""

from datetime import timedelta

from icalendar import Calendar

from reedmace.formats.calendar import write_calendar
from reedmace.logbook.care.due import Due
from tests.support.fitting import NOW


def test_each_task_is_an_event_of_its_own_with_an_alarm() -> None:
    one = Due(key="flow-test", title="Time the flow; now", detail="Jug, clock\nand patience", at=NOW, stage="fit")
    other = one.model_copy(update={"key": "change", "at": NOW + timedelta(days=1)})
    calendar = Calendar.from_ical(write_calendar([(3, "Kiln, left", one), (4, "Bench", other)], NOW))
    events = calendar.walk("VEVENT")
    assert [str(e["uid"]) for e in events] == ["flow-test-3@reedmace", "change-4@reedmace"]
    assert str(events[0]["summary"]) == "Kiln, left: Time the flow; now"
    assert str(events[0]["description"]) == "Jug, clock\nand patience"
    assert events[1].decoded("dtstart") == NOW + timedelta(days=1)
    assert events[0].decoded("dtend") - events[0].decoded("dtstart") == timedelta(minutes=15)
    assert len(calendar.walk("VALARM")) == 2
