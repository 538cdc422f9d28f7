package mellowrota.server.sight.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import jakarta.persistence.Version;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** A landing rule. Its number is taken before, since one that was taken out comes back under it. */
@Entity
@Table(name = "rule")
final class RuleEntity {

  @Id long id;
  int position;

  @Column(name = "is_on")
  boolean on;

  @JdbcTypeCode(SqlTypes.JSON)
  String sentence;

  @Version Long version;

  protected RuleEntity() {}

  RuleEntity(long id) {
    this.id = id;
  }
}
