package mellowrota.core.sight;

import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
import mellowrota.core.entry.Entry;
import mellowrota.core.people.Capacities;
import mellowrota.core.work.DetailKey;
import mellowrota.core.work.PlaceId;

/**
 * What an entry says, whoever it is for: of the record as it is, or as it was when somebody last
 * said yes to it.
 */
interface Said {

  /** With its times, marks and reminders. */
  Entry entry();

  /** Whether a detail is for somebody who reads in these capacities. */
  boolean isFor(DetailKey detail, Capacities reader);

  Pattern title();

  Pattern place();

  Pattern text();

  /** What a pattern's detail says; empty too where it does not apply. */
  Optional<String> value(String name, DetailKey detail, Optional<DateTimeFormatter> format);

  String ref();

  Optional<String> placeName();

  /** The place that is so called. */
  Optional<PlaceId> site();

  /** What may travel as a category. */
  List<Released.Tag> categories();

  List<Attendee> attendees();
}
