package mellowrota.server.calendars.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EntityManager;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.TypedQuery;
import java.time.Instant;
import java.util.List;
import mellowrota.core.calendar.CalendarId;
import mellowrota.core.entry.EntryKey;
import mellowrota.core.entry.Family;
import mellowrota.core.project.Difference;
import mellowrota.core.work.RecordId;
import org.hibernate.jpa.HibernateHints;

/** An entry; {@link EntryStore} writes them, many at a time. */
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

  /** What a query finds. They are written past the session, which therefore keeps none of them. */
  static List<EntryEntity> list(EntityManager kept, TypedQuery<EntryEntity> query) {
    List<EntryEntity> found = query.setHint(HibernateHints.HINT_READ_ONLY, true).getResultList();
    found.forEach(kept::detach);
    return found;
  }

  EntryKey key() {
    return new EntryKey(RecordId.of(record), visit, CalendarId.of(calendar), family);
  }
}
