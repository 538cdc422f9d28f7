package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Optional;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.server.crew.WorkTimes.Away;
import mellowrota.server.crew.WorkTimes.Span;
import org.jspecify.annotations.Nullable;

/** Days away, agreed or asked for. */
@Entity
@Table(name = "leave")
final class LeaveEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  Long person;

  LocalDate firstDay;

  LocalDate untilDay;

  /** Of one day; none: all of each. */
  @Nullable LocalTime fromTime;

  @Nullable LocalTime untilTime;

  boolean agreed;
  boolean sick;

  protected LeaveEntity() {}

  LeaveEntity(PersonId person, DaySpan days, Optional<Span> hours, boolean agreed, boolean sick) {
    this.person = person.value();
    firstDay = days.first();
    untilDay = days.until();
    fromTime = hours.map(Span::from).orElse(null);
    untilTime = hours.map(Span::until).orElse(null);
    this.agreed = agreed;
    this.sick = sick;
  }

  /** Of which nobody is told why. */
  Away away() {
    Optional<Span> hours = Optional.ofNullable(fromTime).map(from -> new Span(from, untilTime));
    return new Away(
        id, PersonId.of(person), DaySpan.of(firstDay, untilDay), hours, agreed, sick, false);
  }
}
