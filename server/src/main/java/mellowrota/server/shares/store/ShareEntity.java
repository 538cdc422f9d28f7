package mellowrota.server.shares.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;
import mellowrota.core.calendar.Level;

/** A calendar offered to one more reader; once accepted it has a rendering. */
@Entity
@Table(name = "share")
class ShareEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  long calendar;
  long reader;

  @Column(name = "given_by")
  long givenBy;

  @Enumerated(EnumType.STRING)
  Level level;

  @Column(name = "may_pass_on")
  boolean mayPassOn;

  @Column(name = "until_day")
  LocalDate untilDay;

  @Column(name = "made_at")
  Instant madeAt;

  @Column(name = "accepted_at")
  Instant acceptedAt;

  @Column(name = "withdrawn_at")
  Instant withdrawnAt;

  Long rendering;
}
