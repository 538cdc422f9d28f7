package mellowrota.core.cover;

import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;
import mellowrota.core.time.Validity;

/**
 * What somebody can fill.
 *
 * @param skills by name, with the days on which each holds, at the site
 * @param notAlone counts only beside somebody who is not so marked
 * @param leave agreed leave
 * @param until from when they are with us no longer
 */
public record Eligibility(
    Map<String, Validity> skills, boolean notAlone, List<TimeSpan> leave, Optional<Instant> until) {

  /** Who can do all that asks for no skill. */
  public static final Eligibility PLAIN =
      new Eligibility(Map.of(), false, List.of(), Optional.empty());

  public Eligibility {
    skills = Map.copyOf(skills);
    leave = List.copyOf(leave);
    Objects.requireNonNull(until, "until");
  }

  /** Whether they have what a place wants. */
  public boolean fits(Optional<String> skill, Instant at, ZoneId site) {
    return skill.isEmpty()
        || skills.containsKey(skill.get())
            && skills.get(skill.get()).holdsOn(LocalTimes.day(at, site));
  }

  /** When they have what a place wants, within a range; empty: not at all. */
  public Optional<TimeSpan> meeting(Optional<String> skill, ZoneId site, TimeSpan range) {
    return skill.isEmpty()
        ? Optional.of(range)
        : Optional.ofNullable(skills.get(skill.get())).flatMap(days -> days.in(range, site));
  }
}
