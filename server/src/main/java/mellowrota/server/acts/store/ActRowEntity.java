package mellowrota.server.acts.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import org.hibernate.annotations.Immutable;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A row as an act found it and left it, in JSON; triggers keep them. */
@Entity
@Immutable
@Table(name = "act_row")
final class ActRowEntity {

  @Id Long id;
  long act;

  String keptIn;

  @JdbcTypeCode(SqlTypes.JSON)
  String before;

  @JdbcTypeCode(SqlTypes.JSON)
  String after;

  ActStore.Row row() {
    return new ActStore.Row(act, keptIn, before, after);
  }
}
