package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Optional;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.PlaceId;
import mellowrota.server.crew.WorkTimes.Hours;

/** Working hours on one weekday. */
@Entity
@Table(name = "working_hours")
final class HoursEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  Long person;
  short weekday;

  LocalTime fromTime;

  LocalTime untilTime;

  Long place;

  LocalDate firstDay;

  LocalDate lastDay;

  protected HoursEntity() {}

  HoursEntity(PersonId person, Hours hours) {
    this.person = person.value();
    weekday = (short) hours.weekday().getValue();
    fromTime = hours.from();
    untilTime = hours.until();
    place = hours.place().map(PlaceId::value).orElse(null);
    firstDay = hours.first().orElse(null);
    lastDay = hours.last().orElse(null);
  }

  Hours hours() {
    return new Hours(
        PersonId.of(person),
        DayOfWeek.of(weekday),
        fromTime,
        untilTime,
        Optional.ofNullable(place).map(PlaceId::of),
        Optional.ofNullable(firstDay),
        Optional.ofNullable(lastDay));
  }
}
