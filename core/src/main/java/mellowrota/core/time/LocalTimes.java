package mellowrota.core.time;

import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZonedDateTime;

/** The one place that turns a local time into a moment. */
public final class LocalTimes {

  private LocalTimes() {}

  /**
   * A local time that does not exist moves forward by the length of the gap; one that exists twice
   * takes the earlier offset (the policy of {@link ZonedDateTime#ofLocal} without a preferred
   * offset).
   */
  public static ZonedDateTime resolve(LocalDateTime local, ZoneId zone) {
    return ZonedDateTime.ofLocal(local, zone, null);
  }
}
