package mellowrota.core.cover;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Objects;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.work.MarginSetting;

/**
 * What takes one person's time, and when they work.
 *
 * @param zone in whose days their days, weeks and nights are
 * @param leave agreed
 * @param busy in calendars of their own; never a copy of ours
 * @param margins theirs, else the house's, for work that says nothing of them
 */
public record Commitments(
    PersonId person,
    ZoneId zone,
    Hours hours,
    List<Leave> leave,
    List<Busy> busy,
    List<Work> work,
    Eligibility able,
    MarginSetting margins) {

  /** Days on which they are away. */
  public record Leave(String id, TimeSpan span) {
    Clash.Item item() {
      return new Clash.Item(Clash.Sort.LEAVE, id, span);
    }
  }

  /** A time that is taken elsewhere. */
  public record Busy(TimeSpan span, boolean tentative) {}

  public Commitments {
    Objects.requireNonNull(person, "person");
    Objects.requireNonNull(zone, "zone");
    Objects.requireNonNull(hours, "hours");
    Objects.requireNonNull(able, "able");
    leave = List.copyOf(leave);
    busy = List.copyOf(busy);
    work = work.stream().map(one -> one.of(zone, margins)).toList();
  }

  /** Somebody of whose margins nothing is said. */
  public Commitments(
      PersonId person,
      ZoneId zone,
      Hours hours,
      List<Leave> leave,
      List<Busy> busy,
      List<Work> work,
      Eligibility able) {
    this(person, zone, hours, leave, busy, work, able, MarginSetting.UNSET);
  }

  /** Work as they would have it. */
  Work asTheirs(Work other) {
    return other.of(zone, margins);
  }

  /** The same with one more work. */
  public Commitments and(Work more) {
    List<Work> all = new ArrayList<>(work);
    all.add(more);
    return new Commitments(person, zone, hours, leave, busy, all, able, margins);
  }

  /** Of sure work in a span, each minute once; all-day work has no hours. */
  public Duration load(TimeSpan in) {
    Collection<TimeSpan> sure =
        work.stream().filter(one -> !one.tentative() && !one.allDay()).map(Work::span).toList();
    return Spans.within(Spans.union(sure), in);
  }

  LocalDate day(Instant at) {
    return LocalTimes.day(at, zone);
  }

  Instant start(LocalDate day) {
    return LocalTimes.moment(day.atStartOfDay(), zone);
  }

  /** Touching and overlapping times of one rank are one item. */
  List<Clash.Item> busyItems(boolean tentative) {
    Collection<TimeSpan> spans =
        busy.stream().filter(one -> one.tentative() == tentative).map(Busy::span).toList();
    return Spans.union(spans).stream()
        .map(span -> new Clash.Item(Clash.Sort.BUSY, "", span))
        .toList();
  }
}
