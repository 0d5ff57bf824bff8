"""Due tasks as iCalendar (RFC 5545)."""

from collections.abc import Iterable
from datetime import datetime, timedelta

from icalendar import Alarm, Calendar, Event

from reedmace.logbook.care.due import Due


def write_calendar(rows: Iterable[tuple[int, str, Due]], now: datetime) -> str:
    """iCalendar text of what is due. rows: (tank id, tank name, what); now: aware time of writing."""
    calendar = Calendar()
    calendar.add("prodid", "-//Reedmace//logbook//EN")
    calendar.add("version", "2.0")
    for tank_id, name, one in rows:
        event = Event()
        event.add("uid", f"{one.key}-{tank_id}@reedmace")
        event.add("dtstamp", now)
        event.add("dtstart", one.at)
        event.add("dtend", one.at + timedelta(minutes=15))
        event.add("summary", f"{name}: {one.title}")
        event.add("description", one.detail)
        alarm = Alarm()
        alarm.add("action", "DISPLAY")
        alarm.add("description", one.title)
        alarm.add("trigger", timedelta(0))
        event.add_component(alarm)
        calendar.add_component(event)
    text: bytes = calendar.to_ical()
    return text.decode("utf-8")
