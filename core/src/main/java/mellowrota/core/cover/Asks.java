package mellowrota.core.cover;

import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import mellowrota.core.time.TimeSpan;

/**
 * The places of what work stands, each with the skill it wants; whoever fills one need fill no
 * other.
 *
 * @param throughout all its time; none: it asks for no skill
 * @param needs over their spans alone
 */
public record Asks(List<Optional<String>> throughout, List<Need> needs) {

  public static final Asks NOTHING = of(List.of());

  public Asks {
    throughout = List.copyOf(throughout);
    needs = List.copyOf(needs);
  }

  /** The same places all its time. */
  public static Asks of(List<Optional<String>> places) {
    return new Asks(places, List.of());
  }

  /** Each of its places, whenever it is one. */
  public List<Optional<String>> places() {
    return Stream.concat(
            throughout.stream(), needs.stream().flatMap(need -> need.places().stream()))
        .toList();
  }

  /** Whether some of its places want a skill. */
  public boolean wantSkills() {
    return hasSkill(throughout) || needs.stream().anyMatch(need -> hasSkill(need.places()));
  }

  private static boolean hasSkill(List<Optional<String>> places) {
    for (Optional<String> one : places) {
      if (one.isPresent()) {
        return true;
      }
    }
    return false;
  }

  /** When of a span somebody can fill none of them (COVER 23). */
  List<TimeSpan> unmet(TimeSpan span, Eligibility able, ZoneId site) {
    if (throughout.contains(Optional.<String>empty()) || !wantSkills()) {
      return List.of();
    }
    List<TimeSpan> asked = new ArrayList<>();
    List<TimeSpan> met = new ArrayList<>();
    if (!throughout.isEmpty()) {
      asked.add(span);
      throughout.forEach(skill -> able.meeting(skill, site, span).ifPresent(met::add));
    }
    for (Need need : needs) {
      need.span()
          .intersection(span)
          .ifPresent(
              part -> {
                asked.add(part);
                need.places().forEach(skill -> able.meeting(skill, site, part).ifPresent(met::add));
              });
    }
    List<TimeSpan> whole = Spans.union(met);
    return Spans.union(asked).stream().flatMap(one -> Spans.without(one, whole).stream()).toList();
  }
}
