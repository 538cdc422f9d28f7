"""Writes a calendar file with the icalendar library, as an office's own program would."""

import sys
from datetime import date, datetime, timedelta
from zoneinfo import ZoneInfo

from icalendar import Alarm, Calendar, Event, Todo

LONDON = ZoneInfo("Europe/London")


def event(uid, title, **values):
    one = Event()
    one.add("uid", uid)
    one.add("summary", title)
    one.add("dtstamp", datetime(2026, 11, 1, 8, 0, tzinfo=ZoneInfo("UTC")))
    for name, value in values.items():
        one.add(name, value)
    return one


calendar = Calendar()
calendar.add("prodid", "-//Made up//Office//EN")
calendar.add("version", "2.0")
calendar.add_component(
    event(
        "py-1@office.example",
        "Grease the sluice; paint, too",
        location="Lock 7, Thornmere Flight",
        dtstart=datetime(2027, 3, 1, 9, 0, tzinfo=LONDON),
        dtend=datetime(2027, 3, 1, 11, 30, tzinfo=LONDON),
        description="Bring the long brush.\nAnd gloves.",
    )
)
calendar.add_component(
    event(
        "py-2@office.example",
        "Towpath closed",
        dtstart=date(2027, 3, 2),
        dtend=date(2027, 3, 4),
        categories=["closure"],
    )
)
weekly = event(
    "py-3@office.example",
    "Weir reading",
    dtstart=datetime(2027, 3, 24, 9, 0, tzinfo=LONDON),
    duration=timedelta(minutes=45),
    rrule={"freq": "weekly", "count": 3},
)
alarm = Alarm()
alarm.add("action", "DISPLAY")
alarm.add("trigger", timedelta(minutes=-15))
weekly.add_component(alarm)
calendar.add_component(weekly)
todo = Todo()
todo.add("uid", "py-4@office.example")
todo.add("summary", "Order hinge pins")
todo.add("due", datetime(2027, 3, 5, 16, 0, tzinfo=ZoneInfo("UTC")))
todo.add("status", "NEEDS-ACTION")
calendar.add_component(todo)
sys.stdout.buffer.write(calendar.to_ical())
