package mellowrota.server.accounts.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import org.hibernate.annotations.Immutable;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** Whose a session is; Spring Session keeps them. */
@Entity
@Immutable
@Table(name = "spring_session")
final class SessionEntity {

  @Id
  @JdbcTypeCode(SqlTypes.CHAR)
  @Column(name = "primary_id", length = 36)
  String id;

  @JdbcTypeCode(SqlTypes.CHAR)
  @Column(name = "session_id", length = 36)
  String sessionId;

  String principalName;
}
