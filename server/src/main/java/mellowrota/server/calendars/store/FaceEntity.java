package mellowrota.server.calendars.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;
import java.time.Instant;

/** What an entry shows in one way of reading; {@link EntryStore} writes them, many at a time. */
@Entity
@Table(name = "face")
@IdClass(FaceEntity.Key.class)
final class FaceEntity {

  record Key(Long entry, Long rendering) implements Serializable {}

  @Id Long entry;
  @Id Long rendering;
  boolean live;
  String content;
  String etag;
  int sequence;
  Instant starts;
  Instant ends;
  Instant modified;

  long changeNo;

  /** Its iCalendar text, made at the first reading. */
  String ics;

  boolean hurries;
}
