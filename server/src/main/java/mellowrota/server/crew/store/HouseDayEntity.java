package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;

/** The day for which entries were last projected; apart from the house, which every act locks. */
@Entity
@Table(name = "house_day")
final class HouseDayEntity {

  @Id boolean one = true;
  LocalDate projected;

  protected HouseDayEntity() {}

  HouseDayEntity(LocalDate projected) {
    this.projected = projected;
  }
}
