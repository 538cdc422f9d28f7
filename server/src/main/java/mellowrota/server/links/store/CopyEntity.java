package mellowrota.server.links.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;
import java.time.Instant;

/** An entry as it stands in an outside calendar; {@link CopyStore} says what each means. */
@Entity
@Table(name = "copy")
@IdClass(CopyEntity.Key.class)
final class CopyEntity {

  record Key(Long outlet, Long entry) implements Serializable {}

  @Id
  @Column(name = "link_calendar")
  Long outlet;

  @Id Long entry;
  String href;

  @Enumerated(EnumType.STRING)
  CopyStore.State state;

  String wanted;

  /** By which change of our calendar it was opened last. */
  long openedNo;

  String written;
  String stands;
  String etag;
  String attempt;

  String attemptTag;

  boolean look;

  Instant openSince;

  Instant dueAt;

  /** How far off its work was when it was opened, in seconds. */
  long near;

  int tries;
  String fault;

  String faultWords;

  Instant sentAt;

  boolean leftOff;
}
