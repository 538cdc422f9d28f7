package mellowrota.server.rules.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** What a set would do, worked out in the background; kept for a day. */
@Entity
@Table(name = "look")
final class PreviewEntity {

  enum State {
    RUNNING,
    DONE,
    FAILED
  }

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String token;
  long person;

  String setHash;

  long worldVersion;

  LocalDate day;
  Instant at;

  @Enumerated(EnumType.STRING)
  State state;

  /** When its process was last at it, by the database's clock. */
  Instant beat;

  @JdbcTypeCode(SqlTypes.JSON)
  String told;

  String[] shows = {};
  Long[] touched = {};
}
