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
import java.time.MonthDay;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import mellowrota.core.cover.Duty;
import mellowrota.core.people.RoleId;
import mellowrota.core.time.Season;
import mellowrota.core.time.Validity;
import mellowrota.core.work.PlaceId;
import mellowrota.server.cover.Duties;

/** What must be stood, with its spans and its exceptions. */
@Entity
@Table(name = "duty")
final class DutyEntity {

  /**
   * A span that comes again.
   *
   * @param weekdays as 1,2,5; Monday is 1
   * @param seasonFirst as 04-01, of every year
   * @param skills of its places one by one, a line each
   */
  @Embeddable
  record SpanRow(
      String weekdays,
      @Column(name = "from_time") LocalTime fromTime,
      @Column(name = "until_time") LocalTime untilTime,
      int count,
      @Column(name = "first_day") LocalDate firstDay,
      @Column(name = "last_day") LocalDate lastDay,
      @Column(name = "season_first") String seasonFirst,
      @Column(name = "season_last") String seasonLast,
      String skills) {

    static SpanRow of(Duty.Repeating span) {
      return new SpanRow(
          span.weekdays().stream()
              .sorted()
              .map(day -> Integer.toString(day.getValue()))
              .collect(Collectors.joining(",")),
          span.hours().from(),
          span.hours().until(),
          span.hours().count(),
          span.days().first().orElse(null),
          span.days().last().orElse(null),
          span.season().map(one -> MONTH_DAY.format(one.first())).orElse(null),
          span.season().map(one -> MONTH_DAY.format(one.last())).orElse(null),
          lines(span.hours().skills()));
    }

    Duty.Repeating span() {
      return new Duty.Repeating(
          Arrays.stream(weekdays.split(","))
              .map(day -> DayOfWeek.of(Integer.parseInt(day)))
              .collect(Collectors.toSet()),
          new Duty.Stand(fromTime, untilTime, count, read(skills)),
          new Validity(Optional.ofNullable(firstDay), Optional.ofNullable(lastDay)),
          Optional.ofNullable(seasonFirst)
              .map(
                  first ->
                      new Season(
                          MonthDay.parse(first, MONTH_DAY),
                          MonthDay.parse(seasonLast, MONTH_DAY))));
    }
  }

  /** Hours of one day in place of those that come again. */
  @Embeddable
  record OtherRow(
      LocalDate day,
      @Column(name = "from_time") LocalTime fromTime,
      @Column(name = "until_time") LocalTime untilTime,
      int count,
      String skills) {

    static OtherRow of(Duty.Other one) {
      Duty.Stand hours = one.hours();
      return new OtherRow(
          one.day(), hours.from(), hours.until(), hours.count(), lines(hours.skills()));
    }

    Duty.Other other() {
      return new Duty.Other(day, new Duty.Stand(fromTime, untilTime, count, read(skills)));
    }
  }

  private static final DateTimeFormatter MONTH_DAY = DateTimeFormatter.ofPattern("MM-dd");

  private static String lines(List<Optional<String>> skills) {
    return skills.isEmpty()
        ? null
        : skills.stream().map(one -> one.orElse("")).collect(Collectors.joining("\n"));
  }

  private static List<Optional<String>> read(String lines) {
    return lines == null
        ? List.of()
        : Arrays.stream(lines.split("\n", -1))
            .map(one -> Optional.of(one).filter(text -> !text.isEmpty()))
            .toList();
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

  @ElementCollection(fetch = FetchType.EAGER)
  @CollectionTable(name = "duty_other", joinColumns = @JoinColumn(name = "duty"))
  @OrderColumn(name = "position")
  List<OtherRow> others = new ArrayList<>();

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
    others.clear();
    wanted.others().forEach(one -> others.add(OtherRow.of(one)));
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
        Set.copyOf(lifted),
        others.stream().map(OtherRow::other).toList());
  }
}
