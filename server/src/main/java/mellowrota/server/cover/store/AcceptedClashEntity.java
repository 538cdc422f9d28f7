package mellowrota.server.cover.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import mellowrota.core.cover.Clash;

/** A clash that somebody lets stand, as it was then. */
@Entity
@Table(name = "let_stand")
final class AcceptedClashEntity {

  /** Of what clashes and when; with other times it is another one. */
  @Id String clash;

  Long person;

  @Enumerated(EnumType.STRING)
  Clash.Kind kind;

  String reason;

  Long byPerson;

  Long act;
  Instant at;

  protected AcceptedClashEntity() {}

  AcceptedClashEntity(String clash) {
    this.clash = clash;
  }
}
