package mellowrota.server.links;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.server.crew.store.HouseStore;
import mellowrota.server.links.store.BusyStore;
import org.springframework.stereotype.Service;

/**
 * When people are busy in calendars they have elsewhere: times, and how far they can be trusted.
 */
@Service
@RequiredArgsConstructor
public class OutsideBusy {

  /** Up to so many reading intervals what was read is fresh, then late, then not known. */
  private static final int FRESH = 2;

  private static final int LATE = 6;

  private final HouseStore house;
  private final BusyStore store;
  private final Clock clock;

  /** Whose calendars are read. */
  public List<PersonId> people() {
    return store.people();
  }

  /** A span; a whole day is the person's own. */
  public record Span(PersonId person, Instant starts, Instant ends, boolean tentative) {}

  /**
   * The same event in two calendars counts once.
   *
   * @param zone in whose days somebody lives
   */
  public List<Span> between(
      Set<PersonId> people, Instant from, Instant until, Function<PersonId, ZoneId> zone) {
    // Whole days are kept in UTC.
    Duration day = Duration.ofDays(1);
    Map<List<Object>, BusyStore.Busy> once = new LinkedHashMap<>();
    for (BusyStore.Busy one : store.between(people, from.minus(day), until.plus(day))) {
      once.putIfAbsent(List.of(one.person(), one.uidHash(), one.starts()), one);
    }
    return once.values().stream()
        .map(one -> span(one, zone.apply(PersonId.of(one.person()))))
        .filter(span -> span.starts().isBefore(until) && span.ends().isAfter(from))
        .toList();
  }

  private static Span span(BusyStore.Busy one, ZoneId zone) {
    return new Span(
        PersonId.of(one.person()),
        one.firstDay() == null ? one.starts() : one.firstDay().atStartOfDay(zone).toInstant(),
        one.untilDay() == null ? one.ends() : one.untilDay().atStartOfDay(zone).toInstant(),
        one.tentative());
  }

  /** How far what was read can be trusted. */
  public enum Trust {
    FRESH,
    LATE,
    UNKNOWN
  }

  /**
   * When somebody's calendars were read, by the one that was read longest ago.
   *
   * @param readAt null: not yet
   */
  public record Age(PersonId person, Instant readAt, Trust trust) {}

  public List<Age> ages(Set<PersonId> people) {
    Map<PersonId, List<Optional<Instant>>> read =
        store.read(people).stream()
            .collect(
                Collectors.groupingBy(
                    BusyStore.ReadAt::person,
                    LinkedHashMap::new,
                    Collectors.mapping(BusyStore.ReadAt::at, Collectors.toList())));
    Duration interval = Duration.ofSeconds(house.copying().readingInterval());
    List<Age> ages = new ArrayList<>();
    read.forEach((person, all) -> ages.add(age(person, all, interval)));
    return ages;
  }

  private Age age(PersonId person, List<Optional<Instant>> all, Duration interval) {
    if (all.stream().anyMatch(Optional::isEmpty)) {
      return new Age(person, null, Trust.UNKNOWN);
    }
    Instant oldest = all.stream().flatMap(Optional::stream).min(Instant::compareTo).orElseThrow();
    Instant now = clock.instant();
    Trust trust =
        oldest.isAfter(now.minus(interval.multipliedBy(FRESH)))
            ? Trust.FRESH
            : oldest.isAfter(now.minus(interval.multipliedBy(LATE))) ? Trust.LATE : Trust.UNKNOWN;
    return new Age(person, oldest, trust);
  }
}
