package mellowrota.server.crew;

import java.time.LocalDate;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import mellowrota.core.people.PersonId;
import mellowrota.server.acts.Acts;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Service;

/** What people can, and who may not stand alone. */
@Service
public class Skills {

  private final JdbcClient jdbc;
  private final Acts acts;

  Skills(JdbcClient jdbc, Acts acts) {
    this.jdbc = jdbc;
    this.acts = acts;
  }

  /**
   * What one can.
   *
   * @param skills by name, with the last day on which each holds; empty: it does not end
   * @param notAlone counts only beside somebody who is not so marked
   */
  public record Known(Map<String, Optional<LocalDate>> skills, boolean notAlone) {

    public static final Known NOTHING = new Known(Map.of(), false);
  }

  /** By person; who is not named has no skill and may stand alone. */
  public Map<PersonId, Known> all() {
    Map<PersonId, Map<String, Optional<LocalDate>>> skills = new HashMap<>();
    jdbc.sql("select person, skill, last_day from person_skill")
        .query(
            row -> {
              skills
                  .computeIfAbsent(PersonId.of(row.getLong(1)), key -> new TreeMap<>())
                  .put(row.getString(2), Optional.ofNullable(row.getObject(3, LocalDate.class)));
            });
    Set<PersonId> notAlone =
        new HashSet<>(
            jdbc.sql("select id from person where not_alone")
                .query((row, n) -> PersonId.of(row.getLong(1)))
                .list());
    Map<PersonId, Known> found = new HashMap<>();
    Set<PersonId> named = new HashSet<>(skills.keySet());
    named.addAll(notAlone);
    named.forEach(
        one ->
            found.put(one, new Known(skills.getOrDefault(one, Map.of()), notAlone.contains(one))));
    return found;
  }

  /** Sets what somebody can, in place of what was said before. */
  public void set(PersonId actor, PersonId person, Known known) {
    acts.run(
        Acts.Wanted.by(actor, "crew.skills", Optional.empty(), ""),
        act -> {
          jdbc.sql("update person set not_alone = ? where id = ?")
              .param(known.notAlone())
              .param(person.value())
              .update();
          jdbc.sql("delete from person_skill where person = ?").param(person.value()).update();
          known.skills().forEach((skill, last) -> learn(person, skill, last));
          return "";
        });
  }

  private void learn(PersonId person, String skill, Optional<LocalDate> last) {
    jdbc.sql(
            """
            insert into person_skill (person, skill, last_day) values (?, ?, ?)
            on conflict (person, skill) do update set last_day = excluded.last_day
            """)
        .param(person.value())
        .param(skill)
        .param(last.orElse(null))
        .update();
  }

  /** Adds and takes away some of what somebody can, within an act. */
  void keep(PersonId person, Map<String, Optional<LocalDate>> learns, Set<String> loses) {
    for (String skill : loses) {
      jdbc.sql("delete from person_skill where person = ? and skill = ?")
          .param(person.value())
          .param(skill)
          .update();
    }
    learns.forEach((skill, last) -> learn(person, skill, last));
  }
}
