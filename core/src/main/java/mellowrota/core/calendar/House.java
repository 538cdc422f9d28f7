package mellowrota.core.calendar;

import java.time.ZoneId;
import java.util.Objects;
import mellowrota.core.time.WorkingWeek;

/**
 * What the organisation has settled for all.
 *
 * @param seed makes the identifiers of this house its own; never shown
 * @param outsideLimit the highest level for readers who are neither crew nor office
 * @param trustsOwnFeeds whether a person's feed of their own calendar counts as read by them alone
 */
public record House(
    String seed,
    String name,
    ZoneId zone,
    Level outsideLimit,
    boolean trustsOwnFeeds,
    WorkingWeek week) {

  public House {
    Objects.requireNonNull(seed, "seed");
    Objects.requireNonNull(name, "name");
    Objects.requireNonNull(zone, "zone");
    Objects.requireNonNull(outsideLimit, "outsideLimit");
    Objects.requireNonNull(week, "week");
  }
}
