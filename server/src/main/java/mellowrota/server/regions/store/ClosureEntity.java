package mellowrota.server.regions.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.util.Optional;
import mellowrota.core.time.DaySpan;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.PlaceId;

/** Days on which no work is done at a place, or anywhere. */
@Entity
@Table(name = "closure")
final class ClosureEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  Long place;

  LocalDate firstDay;

  LocalDate lastDay;

  String why;

  protected ClosureEntity() {}

  ClosureEntity(Optional<PlaceId> place, WorkingDays.Closure closure) {
    this.place = place.map(PlaceId::value).orElse(null);
    firstDay = closure.days().first();
    lastDay = closure.days().until().minusDays(1);
    why = closure.why();
  }

  Optional<PlaceId> at() {
    return Optional.ofNullable(place).map(PlaceId::of);
  }

  WorkingDays.Closure closure() {
    return new WorkingDays.Closure(DaySpan.of(firstDay, lastDay.plusDays(1)), why);
  }
}
