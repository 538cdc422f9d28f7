package mellowrota.server.cover.store;

import jakarta.persistence.CollectionTable;
import jakarta.persistence.Column;
import jakarta.persistence.ElementCollection;
import jakarta.persistence.Embeddable;
import jakarta.persistence.Entity;
import jakarta.persistence.FetchType;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.JoinColumn;
import jakarta.persistence.OrderColumn;
import jakarta.persistence.Table;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalTime;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.cover.Duty;
import mellowrota.core.people.RoleId;
import mellowrota.core.work.PlaceId;
import mellowrota.server.cover.Duties;

/** What must be stood, with its spans and the days on which it is not asked for. */
@Entity
@Table(name = "duty")
final class DutyEntity {

  /**
   * A span that comes again.
   *
   * @param weekdays as 1,2,5; Monday is 1
   */
  @Embeddable
  record SpanRow(
      String weekdays,
      @Column(name = "from_time") LocalTime fromTime,
      @Column(name = "until_time") LocalTime untilTime,
      int count,
      @Column(name = "first_day") LocalDate firstDay,
      @Column(name = "last_day") LocalDate lastDay) {

    static SpanRow of(Duty.Repeating span) {
      return new SpanRow(
          span.weekdays().stream()
              .sorted()
              .map(day -> Integer.toString(day.getValue()))
              .collect(Collectors.joining(",")),
          span.from(),
          span.until(),
          span.count(),
          span.first().orElse(null),
          span.last().orElse(null));
    }

    Duty.Repeating span() {
      return new Duty.Repeating(
          Arrays.stream(weekdays.split(","))
              .map(day -> DayOfWeek.of(Integer.parseInt(day)))
              .collect(Collectors.toSet()),
          fromTime,
          untilTime,
          count,
          Optional.ofNullable(firstDay),
          Optional.ofNullable(lastDay));
    }
  }

  @Id
  @GeneratedValue(strategy = GenerationType.IDENTITY)
  Long id;

  String name;
  Long place;
  Integer role;
  String skill;
  boolean meanwhile;

  @ElementCollection(fetch = FetchType.EAGER)
  @CollectionTable(name = "duty_span", joinColumns = @JoinColumn(name = "duty"))
  @OrderColumn(name = "position")
  List<SpanRow> spans = new ArrayList<>();

  @ElementCollection(fetch = FetchType.EAGER)
  @CollectionTable(name = "duty_lifted", joinColumns = @JoinColumn(name = "duty"))
  @Column(name = "day")
  Set<LocalDate> lifted = new HashSet<>();

  void become(Duties.Kept wanted) {
    name = wanted.name();
    place = wanted.place().value();
    role = wanted.role().value();
    skill = wanted.skill().orElse(null);
    meanwhile = wanted.meanwhile();
    spans.clear();
    wanted.spans().forEach(span -> spans.add(SpanRow.of(span)));
    lifted.retainAll(wanted.lifted());
    lifted.addAll(wanted.lifted());
  }

  Duties.Kept duty() {
    return new Duties.Kept(
        id,
        name,
        PlaceId.of(place),
        RoleId.of(role),
        Optional.ofNullable(skill),
        meanwhile,
        spans.stream().map(SpanRow::span).toList(),
        Set.copyOf(lifted));
  }
}
