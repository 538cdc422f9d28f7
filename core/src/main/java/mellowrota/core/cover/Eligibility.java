package mellowrota.core.cover;

import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import mellowrota.core.time.LocalTimes;
import mellowrota.core.time.TimeSpan;

/**
 * What somebody can fill.
 *
 * @param skills by name, with the last day on which each holds; empty: it does not end
 * @param notAlone counts only beside somebody who is not so marked
 * @param leave agreed leave
 * @param until from when they are with us no longer
 */
public record Eligibility(
    Map<String, Optional<LocalDate>> skills,
    boolean notAlone,
    List<TimeSpan> leave,
    Optional<Instant> until) {

  /** Who can do all that asks for no skill. */
  public static final Eligibility PLAIN =
      new Eligibility(Map.of(), false, List.of(), Optional.empty());

  public Eligibility {
    skills = Map.copyOf(skills);
    leave = List.copyOf(leave);
    Objects.requireNonNull(until, "until");
  }

  /** Whether they have what a place wants; a skill ends after its last day at the site. */
  public boolean fits(Optional<String> skill, Instant at, ZoneId site) {
    if (skill.isEmpty()) {
      return true;
    }
    Optional<LocalDate> last = skills.get(skill.get());
    return last != null && last.map(day -> at.isBefore(end(day, site))).orElse(true);
  }

  /** When they have a skill within a range. */
  public List<TimeSpan> having(String skill, ZoneId site, TimeSpan range) {
    Optional<LocalDate> last = skills.get(skill);
    if (last == null) {
      return List.of();
    }
    Instant until = last.map(day -> end(day, site)).orElse(range.end());
    return until.isAfter(range.start()) ? List.of(TimeSpan.of(range.start(), until)) : List.of();
  }

  static Instant end(LocalDate day, ZoneId site) {
    return LocalTimes.moment(day.plusDays(1).atStartOfDay(), site);
  }
}
