package mellowrota.server.incoming.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;
import org.hibernate.annotations.Immutable;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** What a row of a file said when it was taken last, and what it became. */
@Entity
@Immutable
@Table(name = "taken_row")
@IdClass(ImportedRowEntity.Key.class)
final class ImportedRowEntity {

  record Key(String what, String source, String sourceId, Long ofRecord) implements Serializable {}

  @Id String what;
  @Id String source;

  @Id String sourceId;

  /** The number of the record, of rows of work; else 0. */
  @Id Long ofRecord;

  Long record;
  Long person;
  Long place;

  @JdbcTypeCode(SqlTypes.JSON)
  String cells;

  long act;

  long target() {
    return record != null ? record : person != null ? person : place;
  }
}
