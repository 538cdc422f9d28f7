package mellowrota.server.shares.store;

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
final class ShareEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  long calendar;
  long reader;

  long givenBy;

  @Enumerated(EnumType.STRING)
  Level level;

  boolean mayPassOn;

  LocalDate untilDay;

  Instant madeAt;

  Instant acceptedAt;

  Instant withdrawnAt;

  Long rendering;
}
