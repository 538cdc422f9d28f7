package mellowrota.server.crew;

import java.util.Map;
import java.util.Optional;
import lombok.RequiredArgsConstructor;
import mellowrota.core.people.PersonId;
import mellowrota.core.time.Validity;
import mellowrota.server.acts.Acts;
import mellowrota.server.crew.store.Persons;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What people can, and who may not stand alone. */
@Service
@RequiredArgsConstructor
public class Skills {

  private final Persons persons;
  private final Acts acts;

  /**
   * What one can.
   *
   * @param skills by name, with the days on which each holds
   * @param notAlone counts only beside somebody who is not so marked
   */
  public record Known(Map<String, Validity> skills, boolean notAlone) {

    public static final Known NOTHING = new Known(Map.of(), false);
  }

  /** By person; who is not named has no skill and may stand alone. */
  @Transactional(readOnly = true)
  public Map<PersonId, Known> all() {
    return persons.skills();
  }

  /** Sets what somebody can, in place of what was said before. */
  public void set(PersonId actor, PersonId person, Known known) {
    acts.run(
        Acts.Wanted.by(actor, "crew.skills", Optional.empty(), ""),
        act -> {
          persons.setSkills(person, known);
          return "";
        });
  }
}
