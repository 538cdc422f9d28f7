package mellowrota.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.time.zone.ZoneRules;
import java.util.Optional;

/** The one place that turns a local time into a moment. */
public final class LocalTimes {

  private static final long A_DAY_AND_A_HALF = 36 * 3600;

  private LocalTimes() {}

  /**
   * A local time that does not exist moves forward by the length of the gap; one that exists twice
   * takes the earlier offset (the policy of {@link ZonedDateTime#ofLocal} without a preferred
   * offset).
   */
  public static ZonedDateTime resolve(LocalDateTime local, ZoneId zone) {
    return ZonedDateTime.ofLocal(local, zone, null);
  }

  /**
   * The same as a moment, sooner found: where the clock is not changed within a day and a half
   * before or after, the offset is known without looking for gaps and overlaps.
   */
  public static Instant moment(LocalDateTime local, ZoneId zone) {
    long second = local.toEpochSecond(ZoneOffset.UTC);
    ZoneRules rules = zone.getRules();
    ZoneOffset before = rules.getOffset(Instant.ofEpochSecond(second - A_DAY_AND_A_HALF));
    ZoneOffset after = rules.getOffset(Instant.ofEpochSecond(second + A_DAY_AND_A_HALF));
    return before.equals(after)
        ? Instant.ofEpochSecond(second - before.getTotalSeconds(), local.getNano())
        : resolve(local, zone).toInstant();
  }

  /**
   * A span of one day by the clock: until the next day where its end is not after its start, and
   * round the clock where both are the same.
   *
   * @return empty: the clock change turns it round
   */
  public static Optional<TimeSpan> span(
      LocalDate day, LocalTime from, LocalTime until, ZoneId zone) {
    LocalDate last = until.isAfter(from) ? day : day.plusDays(1);
    Instant start = moment(day.atTime(from), zone);
    Instant end = moment(last.atTime(until), zone);
    return start.isBefore(end) ? Optional.of(TimeSpan.of(start, end)) : Optional.empty();
  }
}
