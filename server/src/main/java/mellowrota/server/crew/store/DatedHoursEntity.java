package mellowrota.server.crew.store;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import mellowrota.core.people.PersonId;
import mellowrota.core.work.PlaceId;
import mellowrota.server.crew.WorkTimes.Dated;
import mellowrota.server.crew.WorkTimes.Span;

/** What holds on one day in place of the week's hours. */
@Entity
@Table(name = "hours_dated")
final class DatedHoursEntity {

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  Long person;
  LocalDate day;
  Long place;

  /** As 08:00-12:00 13:00-17:00; empty: not at work. */
  String times;

  protected DatedHoursEntity() {}

  DatedHoursEntity(Dated dated) {
    person = dated.person().value();
    day = dated.day();
    place = dated.place().map(PlaceId::value).orElse(null);
    times =
        dated.times().stream()
            .map(one -> one.from() + "-" + one.until())
            .collect(Collectors.joining(" "));
  }

  Dated dated() {
    return new Dated(
        PersonId.of(person), day, Optional.ofNullable(place).map(PlaceId::of), spans());
  }

  private List<Span> spans() {
    return Arrays.stream(times.split(" "))
        .filter(one -> !one.isEmpty())
        .map(one -> one.split("-"))
        .map(one -> new Span(LocalTime.parse(one[0]), LocalTime.parse(one[1])))
        .toList();
  }
}
