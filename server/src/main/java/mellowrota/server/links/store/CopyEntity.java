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
class CopyEntity {

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
  @Column(name = "opened_no")
  long openedNo;

  String written;
  String stands;
  String etag;
  String attempt;

  @Column(name = "attempt_tag")
  String attemptTag;

  boolean look;

  @Column(name = "open_since")
  Instant openSince;

  @Column(name = "due_at")
  Instant dueAt;

  /** How far off its work was when it was opened, in seconds. */
  long near;

  int tries;
  String fault;

  @Column(name = "fault_words")
  String faultWords;

  @Column(name = "sent_at")
  Instant sentAt;

  @Column(name = "left_off")
  boolean leftOff;
}
