package mellowrota.core.cover;

import java.time.DayOfWeek;
import java.time.Duration;
import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;

/**
 * The house's rules of cover. A length of zero, or a count of zero, is no limit.
 *
 * @param levels of the kinds that are minded otherwise than {@link Clash.Level#WARN}
 * @param rest at least so long between two stretches of work
 * @param longest a stretch without a break at most
 * @param week at most so much in a local week that begins on {@code weekBegins}
 * @param periodWeeks over how many weeks, the week in question the last, the mean is taken
 * @param periodWeek the mean of a week over them at most
 * @param dueADay so many due on one day are a pile-up
 */
public record Limits(
    Map<Clash.Kind, Clash.Level> levels,
    Duration rest,
    Duration longest,
    DayOfWeek weekBegins,
    Duration week,
    int periodWeeks,
    Duration periodWeek,
    int daysInARow,
    int nightsInARow,
    int dueADay) {

  public Limits {
    levels = Map.copyOf(levels);
    Objects.requireNonNull(weekBegins, "weekBegins");
    for (Duration one : new Duration[] {rest, longest, week, periodWeek}) {
      if (one.isNegative()) {
        throw new IllegalArgumentException("a limit is never negative");
      }
    }
    if (periodWeeks < 0 || daysInARow < 0 || nightsInARow < 0 || dueADay < 0) {
      throw new IllegalArgumentException("a limit is never negative");
    }
  }

  /** What a house begins with. */
  public static Limits usual() {
    Map<Clash.Kind, Clash.Level> levels = new EnumMap<>(Clash.Kind.class);
    levels.put(Clash.Kind.DOUBLE, Clash.Level.NEVER);
    levels.put(Clash.Kind.LEAVE, Clash.Level.NEVER);
    levels.put(Clash.Kind.SKILL, Clash.Level.NEVER);
    return new Limits(
        levels,
        Duration.ofHours(11),
        Duration.ofHours(13),
        DayOfWeek.MONDAY,
        Duration.ofHours(48),
        0,
        Duration.ZERO,
        6,
        4,
        3);
  }

  /** Of a kind that has one: minutes, or a count; zero is no limit. */
  public Optional<Integer> amount(Clash.Kind kind) {
    return switch (kind) {
      case REST -> Optional.of((int) rest.toMinutes());
      case LONGEST -> Optional.of((int) longest.toMinutes());
      case WEEK -> Optional.of((int) week.toMinutes());
      case PERIOD -> Optional.of((int) periodWeek.toMinutes());
      case DAYS -> Optional.of(daysInARow);
      case NIGHTS -> Optional.of(nightsInARow);
      case DUE -> Optional.of(dueADay);
      default -> Optional.empty();
    };
  }

  /** What is no limit of anybody's: it never more than warns. */
  private static final Set<Clash.Kind> ONLY_WARN = Set.of(Clash.Kind.MARGIN, Clash.Kind.SHUT);

  /** Whether a house may settle how a kind is minded. */
  public static boolean isSettled(Clash.Kind kind) {
    return kind != Clash.Kind.LEFT && !ONLY_WARN.contains(kind);
  }

  /** How a clash of this kind is minded. */
  public Clash.Level level(Clash.Kind kind) {
    if (kind == Clash.Kind.LEFT) {
      return Clash.Level.NEVER;
    }
    return ONLY_WARN.contains(kind)
        ? Clash.Level.WARN
        : levels.getOrDefault(kind, Clash.Level.WARN);
  }
}
