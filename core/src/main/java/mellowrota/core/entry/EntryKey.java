package mellowrota.core.entry;

import java.util.Comparator;
import java.util.Objects;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.work.RecordId;

/** There is one entry for each of these, ever. */
public record EntryKey(RecordId record, int visit, CalendarId calendar, Family family)
    implements Comparable<EntryKey> {

  private static final Comparator<EntryKey> ORDER =
      Comparator.comparing(EntryKey::record)
          .thenComparingInt(EntryKey::visit)
          .thenComparing(EntryKey::calendar)
          .thenComparing(EntryKey::family);

  public EntryKey {
    Objects.requireNonNull(record, "record");
    Objects.requireNonNull(calendar, "calendar");
    Objects.requireNonNull(family, "family");
  }

  @Override
  public int compareTo(EntryKey other) {
    return ORDER.compare(this, other);
  }
}
