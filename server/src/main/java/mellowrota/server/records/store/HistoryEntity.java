package mellowrota.server.records.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.SequenceGenerator;
import jakarta.persistence.Table;
import mellowrota.core.change.FieldChange;
import org.hibernate.annotations.Immutable;

/** What an act changed of a record, and whom it was for then. Numbers are taken in blocks. */
@Entity
@Immutable
@Table(name = "history")
final class HistoryEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.SEQUENCE, generator = "history")
  @SequenceGenerator(name = "history", sequenceName = "history_id_seq", allocationSize = 50)
  Long id;

  long act;
  long record;
  String field;

  @Column(name = "old")
  String before;

  @Column(name = "new")
  String after;

  long forThen;

  FieldChange change() {
    return new FieldChange(field, before, after);
  }
}
