package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.DaySpan;
import mellowrota.server.crew.WorkTimes.Away;

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

  boolean agreed;
  boolean sick;

  protected LeaveEntity() {}

  LeaveEntity(PersonId person, DaySpan days, boolean agreed, boolean sick) {
    this.person = person.value();
    firstDay = days.first();
    untilDay = days.until();
    this.agreed = agreed;
    this.sick = sick;
  }

  /** Of which nobody is told why. */
  Away away() {
    return new Away(id, PersonId.of(person), DaySpan.of(firstDay, untilDay), agreed, sick, false);
  }
}
