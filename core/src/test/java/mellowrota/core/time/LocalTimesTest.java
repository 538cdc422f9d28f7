package mellowrota.core.time;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.List;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class LocalTimesTest {

  private static final ZoneId LONDON = ZoneId.of("Europe/London");

  @DataProvider
  Object[][] times() {
    return new Object[][] {
      {"does not exist: forward by the gap", "2026-03-29T01:30", "2026-03-29T01:30:00Z"},
      {"exists twice: the earlier offset", "2026-10-25T01:30", "2026-10-25T00:30:00Z"},
      {"summer", "2026-07-01T12:00", "2026-07-01T11:00:00Z"},
      {"winter", "2026-12-01T12:00", "2026-12-01T12:00:00Z"},
    };
  }

  @Test(dataProvider = "times")
  public void aLocalTimeIsOneMoment(String how, String local, String instant) {
    assertThat(LocalTimes.resolve(LocalDateTime.parse(local), LONDON).toInstant())
        .as(how)
        .isEqualTo(Instant.parse(instant));
  }

  @DataProvider
  Object[][] seeds() {
    Object[][] seeds = new Object[200][];
    for (int i = 0; i < seeds.length; i++) {
      seeds[i] = new Object[] {(long) i};
    }
    return seeds;
  }

  @Test(dataProvider = "seeds")
  public void spansIntersectAsSecondsDo(long seed) {
    SplittableRandom random = new SplittableRandom(seed);
    TimeSpan a = span(random);
    TimeSpan b = span(random);
    boolean shares = false;
    for (int second = 0; second < 40; second++) {
      shares |= holds(a, second) && holds(b, second);
    }
    assertThat(a.intersection(b).isPresent()).isEqualTo(shares);
    assertThat(a.intersection(b)).isEqualTo(b.intersection(a));
    assertThat(a.overlaps(b)).isEqualTo(shares);
    a.intersection(b).ifPresent(both -> assertThat(both.isEmpty()).isFalse());
  }

  private static boolean holds(TimeSpan span, int second) {
    Instant at = Instant.ofEpochSecond(second);
    return !at.isBefore(span.start()) && at.isBefore(span.end());
  }

  private static TimeSpan span(SplittableRandom random) {
    int from = random.nextInt(20);
    return TimeSpan.of(
        Instant.ofEpochSecond(from), Instant.ofEpochSecond(from + random.nextInt(15)));
  }

  /** The short way to a moment is the long one, through gaps, overlaps and half hours. */
  @Test
  public void aMomentIsFoundAsTheTimeIsResolved() {
    for (String name :
        List.of(
            "Europe/London", "America/New_York", "Australia/Lord_Howe", "Asia/Kolkata", "UTC")) {
      ZoneId zone = ZoneId.of(name);
      LocalDateTime end = LocalDateTime.of(2028, 1, 1, 0, 0);
      for (LocalDateTime at = LocalDateTime.of(2026, 1, 1, 0, 15);
          at.isBefore(end);
          at = at.plusMinutes(15)) {
        assertThat(LocalTimes.moment(at, zone))
            .as(at + " in " + name)
            .isEqualTo(LocalTimes.resolve(at, zone).toInstant());
      }
    }
  }

  /** Also before 1970, after what is kept, and where a day was left out. */
  @Test
  public void aDayIsFoundAsTheClockSays() {
    for (String name :
        List.of("Europe/London", "Pacific/Apia", "Australia/Lord_Howe", "Asia/Kathmandu", "UTC")) {
      ZoneId zone = ZoneId.of(name);
      for (int year : new int[] {1949, 1969, 1986, 2011, 2026, 2027, 2102, 2103, 2150}) {
        Instant end = Instant.parse((year + 1) + "-01-03T00:00:00Z");
        for (Instant at = Instant.parse(year + "-01-01T00:00:00Z");
            at.isBefore(end);
            at = at.plusSeconds(2617)) {
          assertThat(LocalTimes.day(at, zone))
              .as(at + " in " + name)
              .isEqualTo(LocalDate.ofInstant(at, zone));
          LocalDateTime local = LocalDateTime.ofInstant(at, zone);
          assertThat(LocalTimes.local(at, zone)).isEqualTo(local);
          assertThat(LocalTimes.moment(local, zone))
              .isEqualTo(LocalTimes.resolve(local, zone).toInstant());
        }
      }
    }
  }
}
