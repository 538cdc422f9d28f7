// Writes a calendar file with ical.js, as an office's own program would.
import ICAL from "ical.js";

const calendar = new ICAL.Component(["vcalendar", [], []]);
calendar.updatePropertyWithValue("prodid", "-//Made up//Office//EN");
calendar.updatePropertyWithValue("version", "2.0");

function add(name, uid, title, values) {
  const one = new ICAL.Component(name);
  one.addPropertyWithValue("uid", uid);
  one.addPropertyWithValue("summary", title);
  one.addPropertyWithValue("dtstamp", ICAL.Time.fromString("2026-11-01T08:00:00Z"));
  for (const [key, value] of Object.entries(values)) {
    one.addPropertyWithValue(key, value);
  }
  calendar.addSubcomponent(one);
  return one;
}

add("vevent", "js-1@office.example", "Grease the sluice; paint, too", {
  location: "Lock 7, Thornmere Flight",
  dtstart: ICAL.Time.fromString("2027-03-01T09:00:00Z"),
  dtend: ICAL.Time.fromString("2027-03-01T11:30:00Z"),
  description: "Bring the long brush.\nAnd gloves.",
});
add("vevent", "js-2@office.example", "Towpath closed", {
  dtstart: ICAL.Time.fromDateString("2027-03-02"),
  dtend: ICAL.Time.fromDateString("2027-03-04"),
  categories: "closure",
});
add("vevent", "js-3@office.example", "Weir reading", {
  dtstart: ICAL.Time.fromString("2027-03-24T09:00:00Z"),
  duration: ICAL.Duration.fromString("PT45M"),
  rrule: ICAL.Recur.fromString("FREQ=WEEKLY;COUNT=3"),
});
add("vtodo", "js-4@office.example", "Order hinge pins", {
  due: ICAL.Time.fromString("2027-03-05T16:00:00Z"),
  status: "NEEDS-ACTION",
});
process.stdout.write(calendar.toString() + "\r\n");
