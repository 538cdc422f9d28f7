package mellowrota.server.rules.store;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.time.LocalDate;
import org.hibernate.annotations.DynamicUpdate;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** What an act made of the set, and how far it has come through the records. */
@Entity
@DynamicUpdate
@Table(name = "set_change")
final class SetChangeEntity {

  @Id long act;

  @JdbcTypeCode(SqlTypes.JSON)
  String before;

  @JdbcTypeCode(SqlTypes.JSON)
  String after;

  @Enumerated(EnumType.STRING)
  ChangeStore.State state;

  LocalDate fromDay;

  long upto;
  long done;
  long total;
  long entries;

  Instant leaseUntil;
}
