package mellowrota.server.records;

import static mellowrota.server.platform.Words.say;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Set;
import mellowrota.core.change.RecordField;
import mellowrota.core.people.Role;
import mellowrota.core.work.DetailDefinition;
import mellowrota.core.work.DetailKey;
import mellowrota.server.platform.Problem;

/** What somebody may change: office everything, others what their roles allow and they may see. */
public final class Permits {

  private Permits() {}

  /** The fields of a change this person may name, as the API calls them. */
  public static List<String> mayChange(RecordAccess.Standing standing) {
    List<String> found = new ArrayList<>();
    if (standing.isOffice()) {
      found.add("title");
      Arrays.stream(RecordField.values()).map(RecordField::api).forEach(found::add);
      for (DetailDefinition definition : standing.world().details().of(standing.record().kind())) {
        if (definition.isWritten()) {
          found.add(definition.key().name());
        }
      }
      found.add("note");
      return found;
    }
    Set<Role.Right> rights = standing.rights();
    for (RecordField field : RecordField.values()) {
      boolean lets = field.right().filter(rights::contains).isPresent();
      if (lets && standing.sees(field)) {
        found.add(field.api());
      }
    }
    if (rights.contains(Role.Right.NOTES) && standing.sees(DetailKey.NOTES)) {
      found.add("notes");
      found.add("note");
    }
    return found;
  }

  /** Whether this person may change the record's times. */
  public static boolean mayMove(RecordAccess.Standing standing) {
    return standing.isOffice()
        || standing.rights().contains(Role.Right.TIMES) && standing.sees(DetailKey.TIMES);
  }

  /** Whether this person may change who is on the record. */
  public static boolean mayHandOver(RecordAccess.Standing standing) {
    return standing.isOffice()
        || standing.rights().contains(Role.Right.PEOPLE) && standing.sees(DetailKey.PEOPLE);
  }

  /** Refuses a change that names a field this person may not change. */
  static void require(RecordAccess.Standing standing, Set<String> fields) {
    List<String> may = mayChange(standing);
    for (String field : fields) {
      if (!may.contains(field)) {
        throw Problem.forbidden(
            say(
                "records.you-may-not-change",
                field,
                (may.isEmpty() ? "nothing" : String.join(", ", may))));
      }
    }
  }
}
