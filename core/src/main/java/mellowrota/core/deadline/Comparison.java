package mellowrota.core.deadline;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.WorkingDays;
import mellowrota.core.work.Due;

/**
 * One step as it stood and as it would stand, when the key date, an answer, a method, a holiday, a
 * closure or the chain changes (CHAINS 2, <i>When the key date moves</i>).
 *
 * @param before empty: the chain did not have it
 * @param after empty: the chain does not have it any more
 * @param past its date then is over by now
 * @param off why its date then is no working day
 * @param sameDay other steps that would be due on that day
 */
public record Comparison(
    Name step,
    Kind kind,
    Optional<Reckoned> before,
    Optional<Reckoned> after,
    boolean past,
    Optional<WorkingDays.Off> off,
    List<Name> sameDay) {

  /** What becomes of a step. */
  public enum Kind {
    REMOVED,
    DONE,
    KEPT_BY_HAND,
    DOES_NOT_APPLY,
    MOVED,
    UNCHANGED,
    NOW_DATED,
    NOW_WITHOUT_DATE,
    STILL_WITHOUT_DATE
  }

  public Comparison {
    Objects.requireNonNull(step, "step");
    Objects.requireNonNull(kind, "kind");
    sameDay = List.copyOf(sameDay);
  }

  /**
   * Both sides of a set, in the order of the chain as it would be, then what it has no more.
   *
   * @param days of the set's place
   * @param zone of the set
   */
  public static List<Comparison> of(
      List<Reckoned> before, List<Reckoned> after, WorkingDays days, ZoneId zone, Instant now) {
    Map<Name, Reckoned> old = new LinkedHashMap<>();
    before.forEach(one -> old.put(one.step().name(), one));
    Map<LocalDate, List<Name>> byDay = new HashMap<>();
    for (Reckoned one : after) {
      one.date()
          .ifPresent(
              due ->
                  byDay
                      .computeIfAbsent(due.day(zone), key -> new ArrayList<>())
                      .add(one.step().name()));
    }
    List<Comparison> found = new ArrayList<>();
    for (Reckoned one : after) {
      Name step = one.step().name();
      Optional<Reckoned> was = Optional.ofNullable(old.remove(step));
      Optional<LocalDate> day = one.date().map(due -> due.day(zone));
      found.add(
          new Comparison(
              step,
              kind(was, one),
              was,
              Optional.of(one),
              one.date().filter(due -> isPast(due, zone, now)).isPresent(),
              day.flatMap(days::off),
              day.map(byDay::get).orElse(List.of()).stream()
                  .filter(other -> !other.equals(step))
                  .toList()));
    }
    old.forEach(
        (step, was) ->
            found.add(
                new Comparison(
                    step,
                    Kind.REMOVED,
                    Optional.of(was),
                    Optional.empty(),
                    false,
                    Optional.empty(),
                    List.of())));
    return found;
  }

  private static Kind kind(Optional<Reckoned> before, Reckoned after) {
    Optional<Due> was = before.flatMap(Reckoned::date);
    return switch (after.standing()) {
      case LEFT_OUT -> Kind.REMOVED;
      case DONE -> Kind.DONE;
      case BY_HAND -> Kind.KEPT_BY_HAND;
      case DOES_NOT_APPLY -> Kind.DOES_NOT_APPLY;
      case PENDING, NO_DATE -> was.isPresent() ? Kind.NOW_WITHOUT_DATE : Kind.STILL_WITHOUT_DATE;
      case RECKONED ->
          was.isEmpty()
              ? Kind.NOW_DATED
              : was.get().isSame(after.date().orElseThrow()) ? Kind.UNCHANGED : Kind.MOVED;
    };
  }

  /** A day before today where the set is, a time before now. */
  private static boolean isPast(Due due, ZoneId zone, Instant now) {
    return due instanceof Due.At at
        ? at.time().toInstant().isBefore(now)
        : due.day(zone).isBefore(LocalTimes.day(now, zone));
  }
}
