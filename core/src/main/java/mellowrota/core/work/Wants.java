package mellowrota.core.work;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

/**
 * How many people each visit of a record wants.
 *
 * @param skills of which some of them have to have one, named once for each who has to
 */
public record Wants(int people, List<String> skills) {

  /** It asks for nobody. */
  public static final Wants NONE = new Wants(0, List.of());

  public Wants {
    skills = skills.stream().sorted().toList();
    if (people < skills.size()) {
      throw new IllegalArgumentException(
          "of " + people + " people " + skills.size() + " have to have a skill");
    }
  }

  public boolean isNone() {
    return people == 0;
  }

  /** One for each of them, with the skill it wants. */
  public List<Optional<String>> places() {
    List<Optional<String>> found = new ArrayList<>();
    skills.forEach(skill -> found.add(Optional.of(skill)));
    found.addAll(Collections.nCopies(people - skills.size(), Optional.empty()));
    return found;
  }
}
