package mellowrota.server.calendars.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.project.Difference;
import mellowrota.core.work.RecordId;

/**
 * An entry; {@link EntryStore} writes them, many at a time and past the session, which therefore
 * keeps none of them: they are read as rows.
 */
@Entity
@Table(name = "entry")
final class EntryEntity {

  @Id Long id;
  long record;
  int visit;
  long calendar;

  @Enumerated(EnumType.STRING)
  Family family;

  String uid;
  int sequence;

  @Enumerated(EnumType.STRING)
  Difference.State state;

  Instant starts;
  Instant ends;
  String rules;

  long changeNo;

  /** What readers keep until the next yes. */
  String released;

  Instant asksSince;

  static EntryKey key(long record, int visit, long calendar, Family family) {
    return new EntryKey(RecordId.of(record), visit, CalendarId.of(calendar), family);
  }
}
