package mellowrota.core.time;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.ZonedDateTime;
import java.util.Optional;
import java.util.OptionalInt;

/** The one place that turns a local time into a moment. */
public final class LocalTimes {

  private static final long SECONDS_A_DAY = 24 * 3600;

  private LocalTimes() {}

  /**
   * A local time that does not exist moves forward by the length of the gap; one that exists twice
   * takes the earlier offset (the policy of {@link ZonedDateTime#ofLocal} without a preferred
   * offset).
   */
  public static ZonedDateTime resolve(LocalDateTime local, ZoneId zone) {
    return ZonedDateTime.ofLocal(local, zone, null);
  }

  /** Whether its local time and zone alone tell the moment: not so in an hour's second pass. */
  public static boolean isTold(ZonedDateTime time) {
    return resolve(time.toLocalDateTime(), time.getZone()).isEqual(time);
  }

  /** The same as a moment, sooner found in days around which the clock is not changed. */
  public static Instant moment(LocalDateTime local, ZoneId zone) {
    long second = local.toEpochSecond(ZoneOffset.UTC);
    OptionalInt steady = Offsets.steady(second, zone);
    return steady.isPresent()
        ? Instant.ofEpochSecond(second - steady.getAsInt(), local.getNano())
        : resolve(local, zone).toInstant();
  }

  /** What the clock shows at a moment. */
  public static LocalDateTime local(Instant at, ZoneId zone) {
    OptionalInt steady = Offsets.steady(at.getEpochSecond(), zone);
    return steady.isPresent()
        ? LocalDateTime.ofEpochSecond(
            at.getEpochSecond(), at.getNano(), ZoneOffset.ofTotalSeconds(steady.getAsInt()))
        : LocalDateTime.ofInstant(at, zone);
  }

  /** The local day of a moment. */
  public static LocalDate day(Instant at, ZoneId zone) {
    OptionalInt steady = Offsets.steady(at.getEpochSecond(), zone);
    return steady.isPresent()
        ? LocalDate.ofEpochDay(
            Math.floorDiv(at.getEpochSecond() + steady.getAsInt(), SECONDS_A_DAY))
        : LocalDate.ofInstant(at, zone);
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
