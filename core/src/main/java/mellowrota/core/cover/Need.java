package mellowrota.core.cover;

import java.time.ZoneId;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.TimeSpan;

/**
 * What asks for people in a span: a duty on one of its days, or one visit of a record.
 *
 * @param by what asks; spans of one that overlap ask once, the larger count
 * @param merges whether neighbouring gaps of it are one; visits stay apart
 * @param zone of the site, in which days end
 * @param places how many are asked for, each with the skill it wants
 */
public record Need(
    String by, boolean merges, ZoneId zone, TimeSpan span, List<Optional<String>> places) {

  public Need {
    Objects.requireNonNull(by, "by");
    Objects.requireNonNull(zone, "zone");
    Objects.requireNonNull(span, "span");
    places = List.copyOf(places);
  }

  /** So many of whom each has to have the skill. */
  public static List<Optional<String>> places(int count, Optional<String> skill) {
    return Collections.nCopies(count, skill);
  }
}
