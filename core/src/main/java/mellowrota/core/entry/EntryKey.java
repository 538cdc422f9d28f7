package mellowrota.core.entry;

import java.util.Objects;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.work.RecordId;

/** There is one entry for each of these, ever. */
public record EntryKey(RecordId record, int visit, CalendarId calendar, Family family)
    implements Comparable<EntryKey> {

  public EntryKey {
    Objects.requireNonNull(record, "record");
    Objects.requireNonNull(calendar, "calendar");
    Objects.requireNonNull(family, "family");
  }

  @Override
  public int compareTo(EntryKey other) {
    int order = record.compareTo(other.record);
    order = order != 0 ? order : Integer.compare(visit, other.visit);
    order = order != 0 ? order : calendar.compareTo(other.calendar);
    return order != 0 ? order : family.compareTo(other.family);
  }
}
