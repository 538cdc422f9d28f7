package mellowrota.server.today.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.IdClass;
import jakarta.persistence.Table;
import java.io.Serializable;
import java.time.Instant;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;

/** Work that somebody had and lost, as they knew it. */
@Entity
@Table(name = "lost_work")
@IdClass(LostWorkEntity.Key.class)
final class LostWorkEntity {

  record Key(Long person, Long record) implements Serializable {}

  @Id Long person;
  @Id Long record;
  long act;
  Instant at;
  @Nullable LocalDate day;
  @Nullable String place;
  boolean cancelled;
}
